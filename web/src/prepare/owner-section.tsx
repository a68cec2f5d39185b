import type { Ahead } from '@nibrel/core/in-hand';
import type { EventData, JobState } from '@nibrel/core/job';
import { plural } from '@nibrel/core/words';
import { useState } from 'react';
import { useKeys } from '../app/keys.ts';
import { Button } from '../ui/button.tsx';
import { Choice } from '../ui/choice.tsx';
import { Field } from '../ui/field.tsx';
import { submitted } from '../ui/form.ts';
import { GateSection, type Spread } from './gate-section.tsx';

const SIGNS = {
  loss: 'Lost',
  warning: 'Warning',
  seal: 'Seal',
  data: 'Data',
  origin: 'Origin',
  fault: 'Old fault',
} as const;

interface OwnerSectionProps {
  readonly state: JobState;
  readonly ahead: Ahead;
  readonly spread: Spread;
  onTold(told: EventData['told']): void;
}

/** What the owner must know, agreed before anything is opened. */
export function OwnerSection({ state, ahead, spread, onTold }: OwnerSectionProps) {
  const [who, setWho] = useState(state.job.owner ?? 'the owner');
  const [how, setHow] = useState<EventData['told']['how']>('here');
  const { untold, owner, ops } = ahead;
  const asks = ops.some((op) => op.name === 'agree');
  const told = () => {
    if (!asks || !who.trim()) return;
    const items = [...new Set([...(state.agreed?.items ?? []), ...untold.map((each) => each.text)])];
    onTold({ items, who: who.trim(), how });
  };
  useKeys({ ' ': told, PageDown: told }, asks && spread.open && spread.takesKeys);
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
        <form onSubmit={submitted(told)} className="flex flex-wrap items-end gap-3">
          <div className="w-56">
            <Field
              label="Who agrees"
              value={who}
              required
              onChange={(event) => setWho(event.target.value)}
              maxLength={120}
            />
          </div>
          <Choice
            label="How"
            value={how}
            onChange={setHow}
            options={[
              { value: 'here', label: 'here' },
              { value: 'by-phone', label: 'by phone' },
              { value: 'in-writing', label: 'in writing' },
            ]}
          />
          <Button weight="loud" type="submit" keyName="Space">
            Told and agreed
          </Button>
        </form>
      )}
    </GateSection>
  );
}
