import type { DeviceMap, Fastener } from '@nibrel/core/model/device-map';
import type { Limits } from '@nibrel/core/model/limits';
import { type Harm, harmOf, type Hole, holesOf, kindsIn } from '@nibrel/core/screws/mix-ups';
import { screwLetters, swapped } from '@nibrel/core/screws/screws';
import { heldName, duration } from '@nibrel/core/planner/words';
import { useMemo, useState } from 'react';
import { DeviceDrawing } from '../drawing/device-drawing.tsx';
import { Zoomable } from '../drawing/zoomable.tsx';
import { mainSide, type Side } from '@nibrel/core/drawn/places';
import { Choice } from '../ui/choice.tsx';
import { ScrewMark } from '../ui/screw-mark.tsx';
import { HarmMarks } from './harm-marks.tsx';

interface SwapMatrixProps {
  readonly map: DeviceMap;
  readonly limits: Limits;
}

/** Holes of a joint that are alike: the same kind, as deep, over the same. */
interface Column {
  readonly id: string;
  readonly joint: string;
  readonly kind: Fastener;
  readonly holes: readonly Hole[];
}

/** Every screw kind in every hole: pick a screw, and the holes where it would do harm are lit, with the harm. */
export function SwapMatrix({ map, limits }: SwapMatrixProps) {
  const holes = useMemo(() => holesOf(map), [map]);
  const kinds = useMemo(() => kindsIn(holes), [holes]);
  const columns = useMemo(() => columnsOf(holes), [holes]);
  const letters = screwLetters(map);
  const [chosen, setChosen] = useState(kinds[0]!.kind.id);
  const [side, setSide] = useState<Side>(() => mainSide(map));
  const kind = kinds.find((each) => each.kind.id === chosen)!.kind;
  const harms = columns.flatMap(({ holes: own, kind: right, joint }) => {
    const harm = harmOf(kind, right, own[0]!.point, limits);
    return harm ? [{ joint, holes: own, harm }] : [];
  });
  const worst = harms.toSorted((a, b) => b.harm.minutes - a.harm.minutes);
  return (
    <section aria-label="Where one would do harm">
      <h2 className="text-far font-bold">Where one would do harm</h2>
      <div className="mt-2 grid gap-x-6 lg:grid-cols-[minmax(0,max-content)_minmax(16rem,1fr)]">
        <div className="min-w-0">
          <div className="overflow-x-auto">
            <table className="border-collapse text-note">
              <thead>
                <tr>
                  <th scope="col" className="sr-only">
                    Screw
                  </th>
                  {columns.map((column) => (
                    <th key={column.id} scope="col" className="h-32 border-b border-ink px-1 align-bottom font-normal">
                      <span className="inline-block max-h-30 rotate-180 truncate whitespace-nowrap [writing-mode:vertical-rl]">
                        {heldName(map, column.joint)}
                      </span>
                      <span className="block font-bold">{letters.get(column.kind.id)!.letter}</span>
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {kinds.map(({ kind: each }) => (
                  <tr key={each.id} className={each.id === chosen ? 'bg-now-wash' : ''}>
                    <th scope="row" className="border-b border-hair pr-1 font-normal">
                      <button
                        type="button"
                        aria-pressed={each.id === chosen}
                        className="flex min-h-12 items-center gap-1 px-1 text-body"
                        onClick={() => setChosen(each.id)}
                      >
                        <ScrewMark mark={letters.get(each.id)!} />
                        <span className="w-7 text-right">{each.length}</span>
                        <span className="sr-only">mm</span>
                      </button>
                    </th>
                    {columns.map((column) => (
                      <Cell key={column.id} screw={each} column={column} limits={limits} />
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          <p className="mt-2 text-note text-quiet">
            ● fits, its own · ○ fits as well · + sticks out, mm · − holds by less, mm · ✕ another drive · ≠ another
            thread. Striped where it costs an hour and more.
          </p>
          <div aria-live="polite" className="mt-4">
            <h3 className="text-lead font-bold">
              {letters.get(kind.id)!.letter}, {letters.get(kind.id)!.isMeasured ? `${kind.length} mm` : 'not measured'}:{' '}
              {harms.length > 0
                ? 'not into'
                : letters.get(kind.id)!.isMeasured
                  ? 'does no harm anywhere'
                  : 'nobody knows before it is measured'}
            </h3>
            <ul className="text-body">
              {worst.map(({ joint, holes: own, harm }) => (
                <li key={joint + own[0]!.point.id} className="flex flex-wrap gap-x-4 border-b border-hair py-1">
                  <span className="font-bold">{heldName(map, joint)}</span>
                  <span>{own.map(({ point }) => point.id).join(', ')}</span>
                  <span>{harm.text}</span>
                  <span className="ml-auto text-quiet">{minutesWords(harm)}</span>
                </li>
              ))}
            </ul>
            <p className="mt-1 text-note text-quiet">
              Minutes are the workshop’s own figures (Ways of working, limits), common practice to begin with.
            </p>
          </div>
        </div>
        <div className="flex flex-col gap-2">
          <Choice label="Side" value={side} onChange={setSide} options={['front', 'back']} />
          <div className="h-[62dvh] min-h-96">
            <Zoomable>
              <DeviceDrawing
                map={map}
                side={side}
                peeled={map.parts.length}
                label={`${map.name}, ${side}: holes for ${letters.get(kind.id)!.letter}`}
              >
                <HarmMarks map={map} side={side} kind={kind} limits={limits} />
              </DeviceDrawing>
            </Zoomable>
          </div>
        </div>
      </div>
    </section>
  );
}

function columnsOf(holes: readonly Hole[]): Column[] {
  const columns = new Map<string, Hole[]>();
  for (const hole of holes) {
    const { joint, point, kind } = hole;
    const id = [joint.id, kind.id, point.depth, point.below].join(' ');
    columns.set(id, [...(columns.get(id) ?? []), hole]);
  }
  return [...columns].map(([id, own]) => ({ id, joint: own[0]!.joint.id, kind: own[0]!.kind, holes: own }));
}

function minutesWords({ minutes }: Harm): string {
  return minutes < 1 ? 'next to nothing' : `about ${duration(minutes * 60)}`;
}

/** From here a swap is worth a warning that is seen at a glance, minutes (guess). */
const GRAVE_MIN = 60;

const VERDICTS = {
  fits: 'fits',
  long: 'too long',
  short: 'too short',
  'wrong-drive': 'another drive',
  'wrong-thread': 'another thread',
} as const;

function Cell({ screw, column, limits }: { screw: Fastener; column: Column; limits: Limits }) {
  const { point } = column.holes[0]!;
  const { verdict, protrudes_mm, engagementLost_mm } = swapped(screw, column.kind, point.depth);
  const harm = harmOf(screw, column.kind, point, limits);
  const mark = {
    fits: screw.id === column.kind.id ? '●' : '○',
    long: `+${protrudes_mm}`,
    short: `−${engagementLost_mm}`,
    'wrong-drive': '✕',
    'wrong-thread': '≠',
  }[verdict];
  const isGrave = harm !== null && harm.minutes >= GRAVE_MIN && verdict !== 'wrong-drive';
  return (
    <td
      className={`min-w-8.5 border-b border-l border-hair text-center ${isGrave ? 'striped' : ''}`}
      title={harm?.text}
      aria-label={`${VERDICTS[verdict]}${harm ? `, ${harm.text}` : ''}`}
    >
      <span className={isGrave ? 'bg-care-wash font-bold' : ''}>{mark}</span>
    </td>
  );
}
