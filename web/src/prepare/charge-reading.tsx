import type { EventData, JobState } from '@nibrel/core/job';
import { useState } from 'react';
import { clock, decimal } from '../app/format.ts';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { submitted } from '../ui/form.ts';

interface ChargeReadingProps {
  readonly state: JobState;
  onCharge(charge: EventData['charge']): void;
}

/** The charge as the device shows it, typed in. */
export function ChargeReading({ state, onCharge }: ChargeReadingProps) {
  const [typed, setTyped] = useState('');
  const [problem, setProblem] = useState('');
  const last = state.charges.at(-1);
  const note = () => {
    const percent = decimal(typed);
    if (percent === null || percent < 0 || percent > 100) return setProblem('0 to 100');
    setProblem('');
    setTyped('');
    onCharge({ charge: percent / 100, source: 'typed' });
  };
  return (
    <form onSubmit={submitted(note)} className="grid grid-cols-[minmax(0,1fr)_5rem_auto] items-end gap-2">
      <p className="pb-2 text-body">
        {last ? (
          <>
            Charge <strong>{Math.round(last.charge * 100)} %</strong> at {clock(last.at)}
            {last.simulated && <span className="text-quiet">, simulated</span>}
          </>
        ) : (
          <span className="text-quiet">The charge was not read yet</span>
        )}
      </p>
      <Field
        label="Now, %"
        inputMode="decimal"
        value={typed}
        problem={problem}
        onChange={(event) => setTyped(event.target.value)}
      />
      <Button type="submit">Note</Button>
    </form>
  );
}
