import Joi from 'joi';
import type { Ahead } from '@nibrel/core/bench/in-hand';
import type { EventData } from '@nibrel/core/job/events';
import type { JobState } from '@nibrel/core/job/state';
import { plural } from '@nibrel/core/planner/words';
import { useKeys } from '../app/keys.ts';
import { Button } from '../ui/button.tsx';
import { Choice } from '../ui/choice.tsx';
import { Field } from '../ui/field.tsx';
import { GateSection, type Spread } from './gate-section.tsx';
import { picked, words } from '../ui/typed.ts';
import { useFields } from '../ui/use-fields.ts';

const SIGNS = {
  loss: 'Lost',
  warning: 'Warning',
  seal: 'Seal',
  data: 'Data',
  origin: 'Origin',
  fault: 'Old fault',
} as const;

type How = EventData['told']['how'];
const schema = Joi.object<{ who: string; how: How }>({ who: words('Who agrees', 120), how: picked() });

interface OwnerSectionProps {
  readonly state: JobState;
  readonly ahead: Ahead;
  readonly spread: Spread;
  onTold(told: EventData['told']): void;
}

/** What the owner must know, agreed before anything is opened. */
export function OwnerSection({ state, ahead, spread, onTold }: OwnerSectionProps) {
  const { field, pick, sent } = useFields(schema, { who: state.job.owner ?? 'the owner', how: 'here' as How });
  const { untold, owner, ops } = ahead;
  const asks = ops.some((op) => op.name === 'agree');
  const told = sent((agreed) => {
    if (!asks) return;
    const items = [...new Set([...(state.agreed?.items ?? []), ...untold.map((each) => each.text)])];
    onTold({ items, ...agreed });
  });
  const tell = () => void told();
  useKeys({ ' ': tell, PageDown: tell }, asks && spread.open && spread.takesKeys);
  const said = asks
    ? `${plural(untold.length, 'thing')} to tell`
    : owner.length === 0
      ? 'nothing to tell'
      : state.agreed
        ? `${state.agreed.who} agreed`
        : 'agreed';
  return (
    <GateSection spread={spread} title="The owner must know" said={said} done={!asks}>
      <ul className="mb-3 text-body">
        {(asks ? untold : owner).map((each) => (
          <li key={each.text} className="grid grid-cols-[5.5rem_1fr] border-b border-hair py-1">
            <span className="text-note text-care">{SIGNS[each.kind]}</span>
            {each.text}
          </li>
        ))}
      </ul>
      {asks && (
        <form onSubmit={told} className="flex flex-wrap items-end gap-3">
          <div className="w-56">
            <Field label="Who agrees" {...field('who')} maxLength={120} />
          </div>
          <Choice
            label="How"
            {...pick('how')}
            options={['here', { value: 'by-phone', label: 'by phone' }, { value: 'in-writing', label: 'in writing' }]}
          />
          <Button weight="loud" type="submit" keyName="Space">
            Told and agreed
          </Button>
        </form>
      )}
    </GateSection>
  );
}
