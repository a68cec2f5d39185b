import { problemText } from '@nibrel/core/model/refusal';
import { opId } from '@nibrel/core/planner/drafts';
import Joi from 'joi';
import { type DoneStep } from '@nibrel/core/job/events';
import { type JobState } from '@nibrel/core/job/state';
import { refusal } from '@nibrel/core/job/rules';
import { type Mechanism, namedNeed, type NamedOp, numberedOp, possibleNow, unmetFor } from '@nibrel/core/planner/holds';
import { thingName } from '@nibrel/core/planner/words';
import { useMemo, useState } from 'react';
import { Button } from '../../ui/button.tsx';
import { Field } from '../../ui/field.tsx';
import { Panel } from '../../ui/panel.tsx';
import { words } from '../../ui/typed.ts';
import { useFields } from '../../ui/use-fields.ts';

const schema = Joi.object<{ anyway: string }>({ anyway: words('How it came about: it is recorded') });

interface OtherStepProps {
  readonly mechanism: Mechanism;
  readonly state: JobState;
  readonly open: boolean;
  onClose(): void;
  /** @returns was it taken? What was written stays until it is. */
  onDone(step: DoneStep, anyway?: string): Promise<boolean>;
}

const VERBS = {
  release: 'Released',
  open: 'Opened',
  lift: 'Lifted off',
  fit: 'Fitted',
  close: 'Closed',
  make: 'Made',
} as const;

/**
 * Something else was done than the plan says. What the rules allow is taken; what they forbid is refused with what
 * still holds, and can be recorded as having happened anyway, so that the record follows reality.
 */
export function OtherStepPanel({ mechanism, state, open, onClose, onDone }: OtherStepProps) {
  const [wanted, setWanted] = useState('');
  const { field, sent, empty } = useFields(schema, { anyway: '' });
  const [chosen, setChosen] = useState<NamedOp | null>(null);
  const lists = useMemo(
    () => (open ? possibleNow(mechanism, state.device) : { possible: [], blocked: [] }),
    [mechanism, state, open],
  );
  const titleOf = (op: NamedOp) => `${VERBS[op.kind]}: ${thingName(mechanism.map, (op.joint ?? op.part)!)}`;
  const matches = (op: NamedOp) => titleOf(op).toLowerCase().includes(wanted.toLowerCase());
  const take = async (op: NamedOp, anyway?: string) => {
    if (!(await onDone(stepOf(op), anyway))) return onClose();
    setChosen(null);
    setWanted('');
    empty();
    onClose();
  };
  return (
    <Panel title="Something else was done" said="The rest is planned anew from there." open={open} onClose={onClose}>
      <div className="flex flex-col gap-4">
        <Field label="Find" value={wanted} onChange={(event) => setWanted(event.target.value)} autoFocus />
        <ul className="max-h-[34dvh] overflow-y-auto border-y border-hair" aria-label="Allowed now">
          {lists.possible.filter(matches).map((op) => (
            <li key={titleOf(op) + (op.onto ?? '')} className="border-b border-hair">
              <Button weight="quiet" className="w-full" onClick={() => void take(op)}>
                {titleOf(op)}
              </Button>
            </li>
          ))}
          {lists.blocked.filter(matches).map((op) => (
            <li key={`${titleOf(op)} blocked`} className="border-b border-hair">
              <Button weight="quiet" className="w-full text-quiet" onClick={() => setChosen(op)}>
                {titleOf(op)} — not yet
              </Button>
            </li>
          ))}
        </ul>
        {chosen && (
          <form
            className="flex flex-col gap-3 border-l-4 border-now bg-now-wash px-4 py-3"
            onSubmit={sent(({ anyway }) => take(chosen, anyway))}
          >
            <p role="alert" className="text-body">
              <strong>{titleOf(chosen)}.</strong> {reasonAgainst(mechanism, state, chosen)}
            </p>
            <Field label="How did it happen anyway" {...field('anyway')} maxLength={1000} />
            <Button type="submit">It happened anyway</Button>
          </form>
        )}
      </div>
    </Panel>
  );
}

/** An operation of the lists as one that was done: without what the lists say about it. */
function stepOf({ kind, joint, part, onto }: NamedOp): DoneStep {
  return {
    id: opId(kind, joint ?? part),
    kind,
    ...(joint === undefined ? {} : { joint }),
    ...(part === undefined ? {} : { part }),
    ...(onto === undefined ? {} : { onto }),
  };
}

function reasonAgainst(mechanism: Mechanism, state: JobState, op: NamedOp): string {
  const numbered = numberedOp(mechanism, op);
  if (numbered.kind === 'make' || numbered.kind === 'close' || numbered.kind === 'fit')
    return problemText(refusal(mechanism, numbered, []));
  const unmet = unmetFor(mechanism, state.device, numbered, { live: new Set() });
  const needs = unmet.map((each) => namedNeed(mechanism, each));
  return problemText(refusal(mechanism, numbered, needs));
}
