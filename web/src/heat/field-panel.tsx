import { cutOfBond } from '@nibrel/core/planner/cut';
import type { BondJoint, DeviceMap } from '@nibrel/core/model/device-map';
import { type DeviceWarming, dragsBelow, segmentsOf, type Touch, type Warming } from '@nibrel/core/physics/heat';
import { countdown, edgeName, plural } from '@nibrel/core/planner/words';
import { useEffect, useState } from 'react';
import { Button } from '../ui/button.tsx';
import { Slide } from '../ui/slide.tsx';
import type { Field } from '../workers/compute.worker.ts';
import { useField } from './use-heat.ts';
import { FieldPicture, Scale } from './field-picture.tsx';
import { temperature } from '../app/units.ts';

interface FieldPanelProps {
  readonly map: DeviceMap;
  readonly bond: BondJoint;
  readonly warming: Warming;
  readonly touch: Touch;
  /** how long the bond stays soft, by the layers alone */
  readonly working_s: number | null;
  readonly speed_mm_s: number;
}

/** How long a slider has to rest before the device is computed whole. */
const REST_MS = 350;
/** A picture of the film, milliseconds. */
const FRAME_MS = 60;

/** The whole device as it warms, in a worker, and how far one can cut before each edge is too stiff. */
export function FieldPanel({ map, bond, warming, touch, working_s, speed_mm_s }: FieldPanelProps) {
  const rested = useRested(warming, touch);
  const { field, problem, share } = useField(deviceWarming(map, bond, rested.warming, rested.touch), {
    soften_C: rested.warming.soften_C,
    drag_C: dragsBelow(bond, rested.warming.soften_C).likely,
  });
  if (problem) return <p className="text-body text-now">{problem}</p>;
  if (!field) {
    return (
      <div role="status" className="min-h-80">
        <p className="text-lead text-quiet">Warming the whole device, {Math.round(share * 100)} %</p>
        <div aria-hidden="true" className="mt-2 h-2 max-w-80 border border-ink">
          <div className="h-full bg-ink" style={{ width: `${share * 100}%` }} />
        </div>
      </div>
    );
  }
  return (
    <Film
      key={rested.key}
      map={map}
      bond={bond}
      field={field}
      warming={rested.warming}
      working_s={working_s}
      speed_mm_s={speed_mm_s}
    />
  );
}

function deviceWarming(map: DeviceMap, bond: BondJoint, warming: Warming, touch: Touch): DeviceWarming {
  const { setting, heat_s, materials, stack } = warming;
  const total_s = Math.max(heat_s + 240, heat_s * 1.4);
  return { map, bond, stack, setting, touch, heat_s, total_s, ...(materials ? { materials } : {}) };
}

/** What was set once the sliders have come to rest. */
function useRested(warming: Warming, touch: Touch) {
  const key = JSON.stringify([warming, touch]);
  const [rested, setRested] = useState({ key, warming, touch });
  useEffect(() => {
    const timer = setTimeout(() => {
      const [settled, where] = JSON.parse(key) as [Warming, Touch];
      setRested({ key, warming: settled, touch: where });
    }, REST_MS);
    return () => clearTimeout(timer);
  }, [key]);
  return rested;
}

interface FilmProps extends Omit<FieldPanelProps, 'touch'> {
  readonly field: Field;
}

function Film({ map, bond, field, warming, working_s, speed_mm_s }: FilmProps) {
  const last = field.times_s.length - 1;
  const [moment, setMoment] = useState(field.times_s.findLastIndex((time) => time <= warming.heat_s));
  const [playing, setPlaying] = useState(false);
  useEffect(() => {
    if (!playing) return;
    const timer = setInterval(() => setMoment((at) => (at >= last ? 0 : at + 1)), FRAME_MS);
    return () => clearInterval(timer);
  }, [playing, last]);
  const at_s = field.times_s[moment]!;
  const isBack = (bond.heatFace ?? bond.face) === 'back';
  return (
    <section aria-label="The whole device" className="grid grid-cols-[auto_minmax(0,1fr)] gap-6">
      <div className="h-80">
        <FieldPicture
          map={map}
          field={field}
          moment={moment}
          soften_C={warming.soften_C}
          mirrored={isBack}
          segments={segmentsOf(map, bond)}
        />
      </div>
      <div className="flex min-w-0 flex-col">
        <h2 className="text-lead font-bold">
          {countdown(at_s)}, {at_s <= warming.heat_s ? 'source on' : 'source gone'}
        </h2>
        <p className="text-note text-quiet">
          At the level of the bond, seen from the {isBack ? 'back' : 'front'}. The thick line is{' '}
          {temperature(warming.soften_C)}; an edge is drawn full where it is soft from corner to corner.
        </p>
        <Scale />
        <div className="flex items-center gap-4">
          <Button onClick={() => setPlaying(!playing)}>{playing ? 'Hold' : 'Play'}</Button>
          <div className="grow">
            <Slide
              bare
              label="Moment"
              said={countdown(at_s)}
              value={moment}
              min={0}
              max={last}
              step={1}
              onChange={(next) => {
                setPlaying(false);
                setMoment(next);
              }}
            />
          </div>
        </div>
        <CutTimes
          map={map}
          bond={bond}
          field={field}
          working_s={working_s}
          speed_mm_s={speed_mm_s}
          heat_s={warming.heat_s}
        />
      </div>
    </section>
  );
}

interface CutTimesProps {
  readonly map: DeviceMap;
  readonly bond: BondJoint;
  readonly field: Field;
  readonly working_s: number | null;
  readonly speed_mm_s: number;
  readonly heat_s: number;
}

/** Each edge in its turn: how deep, how long it takes, how long it is soft, and where to pause for heat. */
function CutTimes({ map, bond, field, working_s, speed_mm_s, heat_s }: CutTimesProps) {
  const { softFor_s, dragFor_s } = field;
  const longest = (byEdge: Readonly<Record<string, number>>) => Math.max(0, ...Object.values(byEdge));
  const workingTime_s = working_s || longest(softFor_s);
  const dragTime_s = Math.max(workingTime_s, longest(dragFor_s));
  const heat =
    workingTime_s > 0
      ? { workingTime_s, dragTime_s, reheat_s: Math.round(heat_s / 2), softFor_s, dragFor_s }
      : undefined;
  const cut = cutOfBond(map, bond, { speed_mm_s, ...(heat ? { heat } : {}) });
  if (!cut) return <p className="mt-2 text-body text-quiet">The map says of no edge how deep it is cut.</p>;
  return (
    <>
      <p className="mt-2 text-body">
        {heat
          ? `${plural(cut.warmings, 'warming')} for the whole cut, ${countdown(cut.seconds)} in all`
          : 'No edge is soft when the source goes.'}
      </p>
      <ol className="mt-1 text-body">
        {cut.edges.map(({ segment, depth, seconds, reheatBefore, reheatsWithin }) => (
          <li key={segment} className="border-b border-hair py-0.5">
            {reheatBefore && <p className="font-bold text-now">heat again</p>}
            <p className="grid grid-cols-[minmax(3.6rem,1fr)_3.7rem_3rem_5.2rem]">
              <span className="truncate">{edgeName(bond, segment)}</span>
              <span className="text-right">{depth} mm</span>
              <span className="text-right">{countdown(seconds)}</span>
              <span className="text-right text-quiet">soft {countdown(field.softFor_s[segment] ?? 0)}</span>
            </p>
            {reheatsWithin && <p className="text-now">{plural(reheatsWithin, 'pause')} on the way</p>}
          </li>
        ))}
      </ol>
    </>
  );
}
