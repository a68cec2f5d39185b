import Joi from 'joi';
import type { EventData } from '@nibrel/core/job/events';
import type { JobState } from '@nibrel/core/job/state';
import { clock } from '../app/format.ts';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { figure } from '../ui/typed.ts';
import { useFields } from '../ui/use-fields.ts';

const schema = Joi.object<{ percent: number }>({ percent: figure('0 to 100', { least: 0, most: 100 }) });

interface ChargeReadingProps {
  readonly state: JobState;
  onCharge(charge: EventData['charge']): void;
}

/** The charge as the device shows it, typed in. */
export function ChargeReading({ state, onCharge }: ChargeReadingProps) {
  const { field, sent, empty } = useFields(schema, { percent: '' });
  const last = state.charges.at(-1);
  const read = sent(({ percent }) => {
    onCharge({ charge: percent / 100, source: 'typed' });
    empty();
  });
  return (
    <form onSubmit={read} className="grid grid-cols-[minmax(0,1fr)_5rem_auto] items-end gap-2">
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
      <Field label="Now, %" inputMode="decimal" {...field('percent')} />
      <Button type="submit">Note</Button>
    </form>
  );
}
