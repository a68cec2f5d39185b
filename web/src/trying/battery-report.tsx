import type { EventData } from '@nibrel/core/job/events';
import { batteryWords } from '@nibrel/core/planner/words';
import Joi from 'joi';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { SelectField } from '../ui/select-field.tsx';
import { figure, picked } from '../ui/typed.ts';
import { useFields } from '../ui/use-fields.ts';

type Read = EventData['battery-read'];
type Origin = NonNullable<Read['origin']>;

interface Typed {
  readonly health: string;
  readonly capacity: string;
  readonly charge: string;
  readonly origin: Origin | '';
}

interface Sent {
  readonly health?: number;
  readonly capacity?: number;
  readonly charge?: number;
  readonly origin: Origin | '';
}

const schema = Joi.object<Sent>({
  health: figure('0 to 150', { least: 0, most: 150 }).empty(''),
  capacity: figure('A capacity, as 4100', { over: 0, most: 100_000 }).empty(''),
  charge: figure('0 to 100', { least: 0, most: 100 }).empty(''),
  origin: picked(),
});

const EMPTY: Typed = { health: '', capacity: '', charge: '', origin: '' };

interface BatteryReportProps {
  readonly of: Read['of'];
  readonly reads: readonly Read[];
  onRead(read: Read): void;
}

/** What the device reports of its battery: any of it, as far as it says so. */
export function BatteryReport({ of, reads, onRead }: BatteryReportProps) {
  const { field, pick, sent, empty } = useFields<Typed, Sent>(schema, EMPTY);
  const last = reads.findLast((each) => each.of === of);
  const read = sent(({ health, capacity, charge, origin }) => {
    const said: Omit<Read, 'of'> = {
      ...(health === undefined ? {} : { health: health / 100 }),
      ...(capacity === undefined ? {} : { capacity_mAh: capacity }),
      ...(charge === undefined ? {} : { charge: charge / 100 }),
      ...(origin ? { origin } : {}),
    };
    if (Object.keys(said).length === 0) return;
    onRead({ of, ...said });
    empty();
  });
  return (
    <form aria-label="Battery report" onSubmit={read} className="flex flex-col gap-2">
      {reads.map((each, at) => (
        <p key={`${each.of} ${at}`} className="text-body text-quiet">
          The {each.of} one: {batteryWords(each)}.
        </p>
      ))}
      <div className="grid grid-cols-3 gap-3">
        <Field label="Health, %" inputMode="decimal" {...field('health')} />
        <Field label="Capacity, mAh" inputMode="decimal" {...field('capacity')} />
        <Field label="Charge, %" inputMode="decimal" {...field('charge')} />
      </div>
      {of === 'new' && (
        <SelectField
          id="battery-origin"
          label="What it says of its origin"
          {...pick('origin')}
          options={[
            { value: '', label: 'not looked at' },
            { value: 'none', label: 'nothing' },
            { value: 'as-foretold', label: 'as it was foretold' },
            { value: 'not-foretold', label: 'something that was not foretold' },
          ]}
        />
      )}
      <Button type="submit">{last ? 'Note it anew' : 'Note what it reports'}</Button>
    </form>
  );
}
