import Joi from 'joi';
import { type DeviceMap, fastenerAt, type ScrewJoint, type ScrewPoint } from '@nibrel/core/model/device-map';
import type { EventData } from '@nibrel/core/job/events';
import type { JobState } from '@nibrel/core/job/state';
import { type PeakVerdict, tighteningOrder, type TorqueWindow, windowOf } from '@nibrel/core/screws/tightening';
import { heldName, pointPlace } from '@nibrel/core/planner/words';
import { screwLetters } from '@nibrel/core/screws/screws';
import { useQuery } from '@tanstack/react-query';
import { shopQuery } from '../app/queries.ts';
import { useReadings } from '../app/use-readings.ts';
import { torqueAt, torques, typedTorque } from '../app/units.ts';
import { sound } from '../app/feedback.ts';
import { Button } from '../ui/button.tsx';
import { Field } from '../ui/field.tsx';
import { readBy } from '../ui/typed.ts';
import { useFields } from '../ui/use-fields.ts';

interface TighteningProps {
  readonly map: DeviceMap;
  readonly state: JobState;
  readonly joint: ScrewJoint;
  /** is it one of several that are tightened by one press? */
  readonly isOneOfMany: boolean;
  onPeak(peak: EventData['tightened']): Promise<boolean>;
}

const VERDICTS: Readonly<Record<PeakVerdict, string>> = {
  in: 'within spec',
  low: 'below: turn it on',
  high: 'above: loosen it, and look at its thread',
  slips: 'it slips: the thread is gone',
};

const schema = Joi.object<{ peak: number }>({
  peak: readBy(typedTorque, 'The peak as the driver shows it', 0, 10_000),
});

/** The screws of a joint in the order in which they are tightened, each with its window and what the driver made of it. */
export function Tightening({ map, state, joint, isOneOfMany, onPeak }: TighteningProps) {
  const order = tighteningOrder(joint).map((point) => ({ point, window: windowOf(map, joint, point) }));
  const driven = order.filter((each): each is Driven => each.window !== null);
  const isSimulated = useQuery(shopQuery).data?.standIns === true;
  const peakOf = (point: ScrewPoint) => state.peaks.get(`${joint.id}/${point.id}`);
  const next = driven.find(({ point }) => !isDown(peakOf(point)?.verdict));
  const driver = useDriver(driven, (point, peak_Ncm, slipped) =>
    onPeak({ joint: joint.id, point: point.id, peak_Ncm, ...(slipped ? { slipped } : {}), simulated: true }),
  );
  const { field, sent, setValue } = useFields<{ peak: string }, { peak: number }>(schema, { peak: '' });
  const letters = screwLetters(map);
  if (driven.length === 0) return null;
  const said = [...new Set(order.map(({ window }) => windowWords(window)))];
  // what holds for every screw is said once
  const every = said.length === 1 ? said[0]! : null;
  const done = driven.filter(({ point }) => peakOf(point)?.verdict === 'in').length;
  return (
    <section
      aria-label={isOneOfMany ? `Tightening, ${heldName(map, joint)}` : 'Tightening'}
      className="flex flex-col gap-2"
    >
      <p className="text-body text-quiet">
        Turn back until the thread drops in{turnWords(joint)}
        {every !== null && (
          <>
            : <b>{every}</b> each
          </>
        )}
        . {computedWords(driven)}
      </p>
      <ol className="text-body">
        {order.map(({ point, window }, at) => {
          const peak = peakOf(point);
          const isNext = next?.point === point;
          return (
            <li
              key={point.id}
              aria-current={isNext || undefined}
              className={`flex flex-wrap items-baseline gap-x-2 border-b border-hair py-1 ${isNext ? 'font-bold text-now' : ''}`}
            >
              <span className="w-5 tabular-nums">{at + 1}</span>
              <span>
                {letters.get(fastenerAt(joint, point))!.letter}, {pointPlace(map, joint.id, point.id)}
              </span>
              {every === null && <span>{windowWords(window)}</span>}
              {peak && (
                <span className={peak.verdict === 'in' ? 'text-done' : 'font-bold text-now'}>
                  {torqueAt(peak.peak_Ncm)}, {VERDICTS[peak.verdict]}
                </span>
              )}
            </li>
          );
        })}
      </ol>
      <div className="flex flex-wrap items-end gap-2">
        {isSimulated && (
          <Button disabled={driver.isOn} onClick={driver.start}>
            {driver.isOn ? 'The driver turns' : 'From the driver (simulated)'}
          </Button>
        )}
        {next && (
          <form
            className="flex items-end gap-2"
            onSubmit={sent(async ({ peak }) => {
              if (await onPeak({ joint: joint.id, point: next.point.id, peak_Ncm: peak })) setValue('peak', '');
            })}
          >
            <div className="w-28">
              <Field
                label={`Peak of screw ${order.findIndex(({ point }) => point === next.point) + 1}`}
                inputMode="decimal"
                autoComplete="off"
                {...field('peak')}
              />
            </div>
            <Button type="submit">Note it</Button>
          </form>
        )}
        <span role="status" className="text-body text-quiet">
          {done} of {driven.length} within torque spec
        </span>
      </div>
      {driver.problem && <p className="text-body text-now">{driver.problem}</p>}
    </section>
  );
}

/** *5 to 7 N·cm* */
function windowWords(window: TorqueWindow | null): string {
  if (!window) return '';
  return torques(window.least_Ncm, window.most_Ncm);
}

/** How far a computed torque is from what strips its boss: of the weakest. */
function computedWords(driven: readonly Driven[]): string | null {
  const margins = driven.flatMap(({ window }) => (window.from === 'thread' ? [window.stripMargin!] : []));
  return margins.length > 0
    ? `Computed from the thread: its boss takes ${Math.min(...margins).toFixed(1)} times that.`
    : null;
}

/** Screws of one joint pull it down together: none is tight before all are in. */
function turnWords({ points }: ScrewJoint): string {
  if (points.length === 1) return '';
  const start = points.length === 2 ? ', start both' : ', start them all';
  // crosswise takes more than two
  const isCrosswise = points.length > 2 && points.every(({ order }) => order === undefined);
  return `${start}, then ${isCrosswise ? 'crosswise' : 'in turn'}`;
}

interface Driven {
  readonly point: ScrewPoint;
  readonly window: TorqueWindow;
}

function isDown(verdict: PeakVerdict | undefined): boolean {
  return verdict === 'in' || verdict === 'high';
}

interface DriverReading {
  readonly screw: number;
  readonly peak_Ncm: number;
  readonly slipped: boolean;
  readonly isLast: boolean;
}

const DRIVER = { route: 'torque-driver', name: 'The driver', cure: 'Type its peaks in.' };

/** Listens to the torque driver's stand-in; each peak is recorded as it comes. */
function useDriver(
  driven: readonly Driven[],
  onPeak: (point: ScrewPoint, peak: number, slipped: boolean) => Promise<boolean>,
) {
  const { start, ...driver } = useReadings<DriverReading>(DRIVER, ({ screw, peak_Ncm, slipped }) => {
    const each = driven[screw - 1];
    if (!each) return;
    sound(peak_Ncm < each.window.least_Ncm || slipped ? 'refused' : 'step');
    void onPeak(each.point, peak_Ncm, slipped);
  });
  const windows = driven.map(({ window }) => `${tenths(window.least_Ncm)}-${tenths(window.most_Ncm)}`).join(',');
  return { ...driver, start: () => start({ windows }) };
}

function tenths(value: number): number {
  return Math.round(value * 10) / 10;
}
