import Joi from 'joi';
import { type DeviceMap, jointById } from '@nibrel/core/model/device-map';
import type { EventData } from '@nibrel/core/job/events';
import type { JobState } from '@nibrel/core/job/state';
import { type Doubt, judgedDoubt } from '@nibrel/core/screws/mix-ups';
import { CALIPER_SD_MM, screwLetters } from '@nibrel/core/screws/screws';
import { heldName, plural, pointPlace } from '@nibrel/core/planner/words';
import { useState } from 'react';
import { useQuery } from '@tanstack/react-query';
import { shopQuery } from '../app/queries.ts';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { ScrewMark } from '../ui/screw-mark.tsx';
import { SelectField } from '../ui/select-field.tsx';
import { figure, picked } from '../ui/typed.ts';
import { useFields } from '../ui/use-fields.ts';
import { useCaliper } from './use-caliper.ts';

interface InDoubtProps {
  readonly map: DeviceMap;
  readonly state: JobState;
  send<Type extends keyof EventData>(type: Type, data: EventData[Type]): Promise<boolean>;
}

interface Typed {
  readonly length: string;
  readonly drive: string;
}

const schema = Joi.object<{ length: number; drive: string }>({
  length: figure('A length in mm, more than 0 and up to 200', { over: 0, most: 200 }),
  drive: picked(),
});

/** A screw of which nobody knows where it belongs: what it can be, where it may go, and what else would tell. */
export function InDoubt({ map, state, send }: InDoubtProps) {
  const letters = screwLetters(map);
  const { onMat } = state.ledger;
  const open = onMat.length > 0 ? [...new Set(onMat.map(({ joint }) => joint))] : undefined;
  const [measures, setMeasures] = useState<readonly number[]>([]);
  const [drive, setDrive] = useState<string | null>(null);
  const [simulated, setSimulated] = useState(false);
  const [told, setTold] = useState<string | null>(null);
  const { field, pick, sent, typed, setValue } = useFields<Typed, { length: number; drive: string }>(schema, {
    length: '',
    drive: '',
  });
  const measured = (length_mm: number, seen: string | null) => {
    setMeasures((before) => [...before, length_mm]);
    setDrive(seen);
    setTold(null);
  };
  const caliper = useCaliper((reading) => {
    setSimulated(true);
    measured(reading.length_mm, typed('drive') || null);
  });
  const hasCaliper = useQuery(shopQuery).data?.standIns === true;
  const mean_mm = measures.reduce((sum, each) => sum + each, 0) / Math.max(1, measures.length);
  const length_mm = Math.round(mean_mm * 100) / 100;
  const sd_mm = CALIPER_SD_MM / Math.sqrt(Math.max(1, measures.length));
  const doubt = measures.length > 0 ? judgedDoubt(map, open, { length_mm, sd_mm, drive }, state.limits) : null;
  const drives = [...new Set(map.fasteners.map((each) => each.drive))];
  const again = () => {
    setMeasures([]);
    setTold(null);
    setSimulated(false);
    setValue('length', '');
  };
  /** the stand-in measures one of those that lie on the mat, the first there or the first of the map */
  const layIn = () => {
    const [first] = onMat;
    const kind = map.fasteners.find(({ id }) => id === first?.fastener) ?? map.fasteners[0]!;
    caliper.start([{ length_mm: first?.length_mm ?? kind.length, drive: kind.drive }], {
      spilled: false,
      seed: 1 + measures.length,
    });
  };
  return (
    <section aria-label="One in doubt">
      <h2 className="text-far font-bold">One in doubt</h2>
      <p className="text-body text-quiet">
        Measure it: each further measure of the same screw makes the mean surer.
        {open ? ' Judged against the holes that are open now.' : ' Nothing is out: judged against all holes.'}
      </p>
      <form
        className="mt-3 flex flex-wrap items-end gap-3"
        onSubmit={sent((values) => measured(values.length, values.drive || null))}
      >
        <Field label="Length, mm" inputMode="decimal" autoComplete="off" {...field('length')} />
        <SelectField
          id="doubt-drive"
          label="Drive"
          options={[{ value: '', label: 'not looked at' }, ...drives.map((value) => ({ value, label: value }))]}
          {...pick('drive')}
        />
        <Button type="submit">{measures.length > 0 ? 'Measured once more' : 'Judge it'}</Button>
        {hasCaliper && (
          <Button disabled={caliper.isOn} onClick={layIn}>
            From the caliper (simulated)
          </Button>
        )}
        {measures.length > 0 && <Button onClick={again}>Another screw</Button>}
      </form>
      {caliper.problem && <p className="mt-2 text-body text-now">{caliper.problem}</p>}
      {doubt && (
        <div aria-live="polite" className="mt-4 grid gap-x-8 gap-y-4 lg:grid-cols-[20rem_minmax(0,1fr)]">
          <div>
            <p className="text-lead">
              {length_mm} mm, {measures.length === 1 ? 'measured once' : `the mean of ${measures.length}`}
            </p>
            <h3 className="mt-3 text-lead font-bold">It can be</h3>
            <ul className="border-t border-ink">
              {doubt.kinds.map(({ fastener, p }) => (
                <li
                  key={fastener}
                  className="flex items-center justify-between gap-4 border-b border-hair py-1 text-body"
                >
                  {fastener === null ? 'one that belongs nowhere here' : <ScrewMark mark={letters.get(fastener)!} />}
                  <b>{Math.round(p * 100)} %</b>
                </li>
              ))}
            </ul>
            {doubt.tells && <p className="mt-2 text-lead font-bold">{doubt.tells}</p>}
          </div>
          <Holes
            map={map}
            doubt={doubt}
            isOut={(joint, point) => onMat.some((each) => each.joint === joint && each.point === point)}
            onHole={async (joint, point) => {
              const isTaken = await send('screw-measured', {
                joint,
                point,
                length_mm,
                ...(simulated ? { simulated } : {}),
              });
              if (isTaken)
                setTold(
                  `Recorded: the screw for ${heldName(map, joint)}, ${pointPlace(map, joint, point)}, measures ${length_mm} mm.`,
                );
            }}
          />
        </div>
      )}
      {told && (
        <p role="status" className="mt-3 text-body font-bold">
          {told}
        </p>
      )}
    </section>
  );
}

/** What costs less is said quietly. */
const SLIGHT_MIN = 5;

interface HolesProps {
  readonly map: DeviceMap;
  readonly doubt: Doubt;
  isOut(joint: string, point: string): boolean;
  onHole(joint: string, point: string): Promise<void>;
}

function Holes({ map, doubt, isOut, onHole }: HolesProps) {
  const letters = screwLetters(map);
  if (doubt.holes.length === 0) {
    return <p className="text-lead font-bold">It goes nowhere in this device. Put it aside.</p>;
  }
  const safe = doubt.holes.filter(({ harm }) => harm === null).length;
  return (
    <div>
      <h3 className="text-lead font-bold">
        {safe === 0 ? 'No hole takes it without harm' : `${plural(safe, 'hole')} take it without harm`}
      </h3>
      <ul className="max-h-96 overflow-y-auto border-t border-ink">
        {doubt.holes.map(({ joint, point, harm, risk_min }) => {
          const screw = jointById(map, joint);
          const own = screw?.type === 'screw' ? screw.points.find(({ id }) => id === point) : undefined;
          const kind = own?.fastener ?? (screw?.type === 'screw' ? screw.fastener : '');
          return (
            <li
              key={`${joint}/${point}`}
              className="grid min-h-12 grid-cols-[1.5rem_11rem_minmax(0,1fr)_auto] items-center gap-x-3 border-b border-hair py-1 text-body"
            >
              <b>{letters.get(kind)?.letter}</b>
              <span>
                {heldName(map, joint)}, {pointPlace(map, joint, point)}
              </span>
              {harm ? (
                <span className={risk_min < SLIGHT_MIN ? 'text-quiet' : 'font-bold text-now'}>
                  {harm.text}
                  <span className="ml-3 font-normal text-quiet">{Math.round(risk_min)} min to be expected</span>
                </span>
              ) : (
                <span className="text-done">safe</span>
              )}
              {isOut(joint, point) && <Button onClick={() => void onHole(joint, point)}>It is for this hole</Button>}
            </li>
          );
        })}
      </ul>
    </div>
  );
}
