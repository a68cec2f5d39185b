import Joi from 'joi';
import { type EventData } from '@nibrel/core/job/events';
import { type JobState } from '@nibrel/core/job/state';
import { TRANSPLANT_CHECKS, TRANSPLANT_GATE } from '@nibrel/core/job/rules';
import { useState } from 'react';
import { decimal } from '../../app/format.ts';
import { Button } from '../../ui/button.tsx';
import { Caution } from '../../ui/caution.tsx';
import { Field } from '../../ui/field.tsx';
import type { Closing } from '../../ui/form.ts';
import { Panel } from '../../ui/panel.tsx';
import { figure, note, properName } from '../../ui/typed.ts';
import { useFields } from '../../ui/use-fields.ts';

interface TransplantPanelProps extends Closing {
  readonly state: JobState;
  /** the cell that an iron is taken to, where its own cell stays */
  readonly iron?: string | null;
  onAllowed(allowed: EventData['transplant-allowed']): void;
  onDone?(done: EventData['transplant-done']): void;
}

const GATE_WORDS: Readonly<Record<(typeof TRANSPLANT_GATE)[number], string>> = {
  training: 'Trained for it, by name',
  'local rules': 'Local rules and insurance allow it',
  eyes: 'Eyes and face covered',
  sand: 'Sand in reach, the way out clear, not alone',
};

const CHECK_WORDS: Readonly<Record<(typeof TRANSPLANT_CHECKS)[number], string>> = {
  polarity: 'Polarity checked with a meter before it was joined',
  'pull test': 'Every joint pulled, and held',
  insulation: 'Insulation back over every edge and tab',
};

/** The cell transplant's own gate, and after it its checks. How it is done is not told here. */
export function TransplantPanel({ state, iron = null, open, onClose, onAllowed, onDone }: TransplantPanelProps) {
  const isAllowed = state.transplant.allowed !== null;
  return (
    <Panel
      title={
        isAllowed
          ? 'The new cell, checked'
          : `${iron ? `An iron at ${iron}` : 'A cell transplant'} is for the lead to allow`
      }
      said={iron ? 'Recorded, with who allowed it.' : 'Recorded, and disclosed in the record and to the owner.'}
      open={open}
      onClose={onClose}
    >
      {isAllowed ? (
        <Checks state={state} onDone={(done) => onDone?.(done)} onClose={onClose} />
      ) : (
        <Gate state={state} iron={iron} onAllowed={onAllowed} onClose={onClose} />
      )}
    </Panel>
  );
}

const allowedSchema = Joi.object<{ lead: string; text: string; percent: number }>({
  lead: properName('Who allows it: the lead’s own name'),
  text: note(1000),
  percent: figure('0 to 100', { least: 0, most: 100 }),
});

const volts = (value: string, helpers: Joi.CustomHelpers) => {
  const cells = value
    .split(/[\s;]+/)
    .filter(Boolean)
    .map(decimal);
  return cells.length > 0 && !cells.includes(null) ? cells : helpers.error('volts.none');
};
const checksSchema = Joi.object<{ old_V: number; cells_V: number[] }>({
  old_V: figure('A voltage, as 3.81', { over: 0 }),
  cells_V: Joi.string().allow('').custom(volts).messages({ 'volts.none': 'Voltages, as 3.81 or 3.81 3.80' }),
});

interface GateProps {
  readonly state: JobState;
  readonly iron: string | null;
  onAllowed: TransplantPanelProps['onAllowed'];
  onClose(): void;
}

function Gate({ state, iron, onAllowed, onClose }: GateProps) {
  const [confirmed, setConfirmed] = useState<ReadonlySet<string>>(new Set());
  const known = String(Math.round((state.charges.at(-1)?.charge ?? 0) * 100) || '');
  const { field, sent } = useFields(allowedSchema, { lead: '', text: '', percent: known });
  const allow = sent(({ lead, text, percent }) => {
    onAllowed({ lead, text, charge: percent / 100, confirmed: [...confirmed] });
    onClose();
  });
  return (
    <form onSubmit={allow} className="flex flex-col gap-4">
      <Caution>
        A cell that is shorted, cut or overheated burns at once, with poisonous smoke. Only trained people, only where
        the law and the insurer allow it.{' '}
        {iron ? 'A part that need not be unsoldered stays.' : 'A whole new pack is the usual way.'}
      </Caution>
      <Confirm words={GATE_WORDS} confirmed={confirmed} onConfirmed={setConfirmed} />
      <div className="grid grid-cols-2 gap-4">
        <Field label="Lead" {...field('lead')} maxLength={60} />
        <Field
          label={`Charge of the ${iron ? '' : 'old '}cell, % (${Math.round(state.limits.transplantCharge * 100)} at most)`}
          inputMode="decimal"
          {...field('percent')}
        />
      </div>
      <Field label={iron ? 'Why it is unsoldered here' : 'Why not a whole pack'} {...field('text')} maxLength={1000} />
      <Button weight="loud" type="submit" disabled={confirmed.size < TRANSPLANT_GATE.length}>
        The lead allows it
      </Button>
    </form>
  );
}

interface ChecksProps {
  readonly state: JobState;
  onDone(done: EventData['transplant-done']): void;
  onClose(): void;
}

function Checks({ state, onDone, onClose }: ChecksProps) {
  const [checked, setChecked] = useState<ReadonlySet<string>>(new Set());
  const { field, sent } = useFields(checksSchema, { old_V: '', cells_V: '' });
  const done = sent((read) => {
    onDone({ ...read, checked: [...checked] });
    onClose();
  });
  return (
    <form onSubmit={done} className="flex flex-col gap-4">
      <div className="grid grid-cols-2 gap-4">
        <Field label="Open-circuit voltage before, V" inputMode="decimal" {...field('old_V')} />
        <Field
          label="Of the new cell, or cells, V"
          hint={`3.81 or 3.81 3.80; they may differ by ${state.limits.transplantDifference_V} V`}
          {...field('cells_V')}
        />
      </div>
      <Confirm words={CHECK_WORDS} confirmed={checked} onConfirmed={setChecked} />
      <Button weight="loud" type="submit" disabled={checked.size < TRANSPLANT_CHECKS.length}>
        All of it checked
      </Button>
    </form>
  );
}

interface ConfirmProps {
  readonly words: Readonly<Record<string, string>>;
  readonly confirmed: ReadonlySet<string>;
  onConfirmed(confirmed: ReadonlySet<string>): void;
}

function Confirm({ words, confirmed, onConfirmed }: ConfirmProps) {
  const flip = (id: string) =>
    onConfirmed(
      confirmed.has(id) ? new Set([...confirmed].filter((each) => each !== id)) : new Set([...confirmed, id]),
    );
  return (
    <ul className="border-t border-hair">
      {Object.entries(words).map(([id, said]) => (
        <li key={id} className="border-b border-hair">
          <button
            type="button"
            aria-pressed={confirmed.has(id)}
            onClick={() => flip(id)}
            className="flex min-h-12 w-full items-center gap-3 text-left text-body"
          >
            <span aria-hidden="true" className={`w-6 text-lead ${confirmed.has(id) ? 'text-done' : 'text-now'}`}>
              {confirmed.has(id) ? '✓' : '–'}
            </span>
            {said}
          </button>
        </li>
      ))}
    </ul>
  );
}
