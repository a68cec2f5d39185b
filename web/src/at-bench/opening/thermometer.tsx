import Joi from 'joi';
import type { Heating } from '@nibrel/core/job/state';
import type { Reading, Spot } from '@nibrel/core/physics/heat';
import { useEffect, useRef, useState } from 'react';
import { elapsed_s } from '@nibrel/core/bench/in-hand';
import { Button } from '../../ui/button.tsx';
import { Choice } from '../../ui/choice.tsx';
import { Field } from '../../ui/field.tsx';
import { temperature, temperatureUnit } from '../../app/units.ts';
import { temperatureTyped } from '../../ui/typed.ts';
import { useFields } from '../../ui/use-fields.ts';

const readingSchema = () => Joi.object<{ temp_C: number }>({ temp_C: temperatureTyped() });

interface ThermometerProps {
  readonly map: string;
  readonly heating: Heating;
  /** a thermocouple that stands in for a real one is there */
  readonly standIn: boolean;
  /** @returns false where they can't be taken just now */
  onReadings(readings: readonly Reading[], simulated: boolean): boolean;
}

const SPOTS: readonly { readonly value: Spot; readonly label: string }[] = [
  { value: 'bond', label: 'in the seam' },
  { value: 'face', label: 'heated face' },
  { value: 'far', label: 'far face' },
];
/** Streamed readings are put on disk so many at a time. */
const BATCH = 5;

interface Streamed extends Reading {
  readonly source_C: number;
}

/** What a thermometer shows, typed in or streamed: every reading narrows what is foreseen. */
export function Thermometer({ map, heating, standIn, onReadings }: ThermometerProps) {
  const { field, sent, empty, setError } = useFields(readingSchema(), { temp_C: '' });
  const [spot, setSpot] = useState<Spot>('bond');
  const { last, isOn } = useThermocouple(map, heating, standIn && heating.simulated === true, onReadings);
  const read = sent(({ temp_C }) => {
    // by the clock itself: the page's own lags a little, and two readings may fall between its ticks
    const at_s = Math.round(elapsedNow(heating) * 100) / 100;
    const taken = onReadings([{ at_s, temp_C, spot }], false);
    if (taken) empty();
    else setError('temp_C', { message: 'Saving, once more' });
  });
  return (
    <details className="border-t border-hair">
      <summary className="flex min-h-12 cursor-pointer items-center justify-between py-2 text-body">
        <span>Thermometer</span>
        <span className="text-quiet">
          {heating.readings.length > 0
            ? `${heating.readings.length} read, last ${temperature(heating.readings.at(-1)!.temp_C, 1)}${heating.simulatedReadings ? ' (simulated)' : ''}`
            : 'nothing read yet'}
        </span>
      </summary>
      <Choice label="Where it is held" value={spot} options={SPOTS} onChange={setSpot} />
      <form onSubmit={read} className="mt-2 grid grid-cols-[minmax(0,1fr)_auto] items-end gap-2">
        <Field label={`Shows, ${temperatureUnit()}`} inputMode="decimal" {...field('temp_C')} />
        <Button type="submit">Note</Button>
      </form>
      {isOn && (
        <p role="status" className="mt-2 text-body">
          Simulated:{' '}
          {last
            ? `${temperature(last.temp_C, 1)}, ${heating.setting.kind} shows ${temperature(last.source_C, 1)}`
            : 'waiting'}
        </p>
      )}
    </details>
  );
}

/** Listens to the thermocouple's stand-in for as long as a source that only stands in for one is on. */
function useThermocouple(map: string, heating: Heating, wanted: boolean, onReadings: ThermometerProps['onReadings']) {
  const [last, setLast] = useState<Streamed | null>(null);
  const waiting = useRef<Reading[]>([]);
  const latest = useRef({ onReadings, heating });
  useEffect(() => {
    latest.current = { onReadings, heating };
  });
  const { joint, pace = 1 } = heating;
  const { kind, temp_C } = heating.setting;
  const past = heating.past.map(({ seconds }) => Math.round(seconds)).join(',');
  useEffect(() => {
    if (!wanted) return;
    const from_s = String(Math.round(elapsedNow(latest.current.heating) * 10) / 10);
    const query = new URLSearchParams({
      map,
      joint,
      kind,
      temp_C: String(temp_C),
      spot: 'bond',
      pace: String(pace),
      from_s,
      ...(past ? { past } : {}),
    });
    const source = new EventSource(`/api/v1/stand-ins/thermocouple?${query}`);
    source.addEventListener('message', (message: MessageEvent<string>) => {
      const reading = JSON.parse(message.data) as Streamed;
      setLast(reading);
      waiting.current.push({ at_s: reading.at_s, temp_C: reading.temp_C, spot: reading.spot });
      const isFull = waiting.current.length >= BATCH;
      if (isFull && latest.current.onReadings(waiting.current, true)) waiting.current = [];
    });
    // it would begin anew at the time of its address: the readings would not go forward
    source.addEventListener('error', () => source.close());
    return () => source.close();
  }, [wanted, map, joint, kind, temp_C, pace, past]);
  return { last, isOn: wanted };
}

/** By the clock itself. */
function elapsedNow(heating: Heating): number {
  return elapsed_s(heating, Date.now());
}
