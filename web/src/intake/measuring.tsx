import Joi from 'joi';
import type { EventData } from '@nibrel/core/job/events';
import type { JobState } from '@nibrel/core/job/state';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { partName } from '@nibrel/core/planner/words';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { SelectField } from '../ui/select-field.tsx';
import { figure, picked } from '../ui/typed.ts';
import { useFields } from '../ui/use-fields.ts';

const schema = Joi.object<{ what: string; thickness_mm: number }>({
  what: picked(),
  thickness_mm: figure('A thickness in millimetres, as 8.4', { over: 0, most: 500 }),
});

interface MeasuringProps {
  readonly map: DeviceMap;
  readonly state: JobState;
  onMeasure(measure: EventData['measure']): void;
}

/**
 * Thickness now against the map's: a figure over the limit adds a stop; one below it never clears a stop, because what
 * the eye finds counts more.
 */
export function Measuring({ map, state, onMeasure }: MeasuringProps) {
  const { field, pick, sent, setValue } = useFields(schema, { what: 'device', thickness_mm: '' });
  const cells = map.parts.filter((each) => each.kind === 'battery');
  const last = state.measured.at(-1);
  const measure = sent(({ what, thickness_mm }) => {
    onMeasure({ thickness_mm, ...(what === 'device' ? {} : { part: what }) });
    setValue('thickness_mm', '');
  });
  return (
    <form onSubmit={measure} className="grid grid-cols-[minmax(0,1fr)_5rem_auto] items-end gap-2">
      <SelectField
        id="measured"
        label="Thickness, by the map"
        {...pick('what')}
        options={[
          { value: 'device', label: `device, ${map.outline.thickness} mm` },
          ...cells.map(({ id, name, z }) => ({
            value: id,
            label: `${name.toLowerCase()}, ${(z.bottom - z.top).toFixed(1)} mm`,
          })),
        ]}
      />
      <Field label="Now, mm" inputMode="decimal" {...field('thickness_mm')} />
      <Button type="submit">Note</Button>
      {last && (
        <p className="col-span-3 text-note text-quiet">
          {last.part ? partName(map, last.part) : 'Device'}: {last.thickness_mm} mm,{' '}
          {last.over_percent >= 0
            ? `${last.over_percent.toFixed(1)} % over`
            : `${(-last.over_percent).toFixed(1)} % under`}{' '}
          the map. Limit {state.limits.swelling_percent} % (common practice). What the eye finds counts more.
        </p>
      )}
    </form>
  );
}
