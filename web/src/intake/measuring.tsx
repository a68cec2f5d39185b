import type { EventData, JobState } from '@nibrel/core/job';
import type { DeviceMap } from '@nibrel/core/device-map';
import { partName } from '@nibrel/core/words';
import { useState } from 'react';
import { decimal } from '../app/format.ts';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { submitted } from '../ui/form.ts';
import { SelectField } from '../ui/select-field.tsx';

interface MeasuringProps {
  readonly map: DeviceMap;
  readonly state: JobState;
  onMeasure(measure: EventData['measure']): void;
}

/** Thickness now against the map's: it can add a stop, and never clears one. */
export function Measuring({ map, state, onMeasure }: MeasuringProps) {
  const [what, setWhat] = useState('device');
  const [typed, setTyped] = useState('');
  const [problem, setProblem] = useState('');
  const cells = map.parts.filter((each) => each.kind === 'battery');
  const last = state.measured.at(-1);
  const measure = () => {
    const thickness_mm = decimal(typed);
    if (thickness_mm === null || thickness_mm <= 0 || thickness_mm > 500) {
      return setProblem('A thickness in millimetres, as 8.4');
    }
    setProblem('');
    setTyped('');
    onMeasure({ thickness_mm, ...(what === 'device' ? {} : { part: what }) });
  };
  return (
    <form onSubmit={submitted(measure)} className="grid grid-cols-[minmax(0,1fr)_5rem_auto] items-end gap-2">
      <SelectField
        id="measured"
        label="Thickness, by the map"
        value={what}
        options={[
          { value: 'device', label: `device, ${map.outline.thickness} mm` },
          ...cells.map(({ id, name, z }) => ({
            value: id,
            label: `${name.toLowerCase()}, ${(z.bottom - z.top).toFixed(1)} mm`,
          })),
        ]}
        onChange={setWhat}
      />
      <Field
        label="Now, mm"
        inputMode="decimal"
        value={typed}
        problem={problem}
        onChange={(event) => setTyped(event.target.value)}
      />
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
