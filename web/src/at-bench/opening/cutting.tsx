import { isCellBehind, type JobState } from '@nibrel/core/job/state';
import type { BondCut } from '@nibrel/core/planner/cut';
import type { Drag } from '@nibrel/core/physics/heat';
import { edgeInHand } from '@nibrel/core/bench/in-hand';
import { type BondJoint, type DeviceMap, isOuter, partById, seenEdge } from '@nibrel/core/model/device-map';
import { type Policy, settled } from '@nibrel/core/model/policy';
import { countdown, edgeName, plural, spokenName } from '@nibrel/core/planner/words';
import { Link } from 'react-router';
import { temperature, temperatures } from '../../app/units.ts';
import type { Side } from '@nibrel/core/drawn/places';
import { Choice } from '../../ui/choice.tsx';
import { EdgeMarks } from './edge-marks.tsx';
import type { Hand } from './hand.ts';
import type { OpeningWork } from './work.ts';
import { Seam } from './seam.tsx';

interface CuttingWork extends OpeningWork {
  readonly side: Side;
  /** what one more warming takes from here */
  readonly again_s: number | null;
}

/** A bond that is cut edge by edge: how deep in the largest figures, how long it stays soft, when to heat again. */
export function useCutting({ bench, map, state, bond, cut, warm, side, again_s }: CuttingWork): Hand | null {
  const inHand = bond && cut && edgeInHand(state, bond, cut, warm);
  if (!cut || !bond || !inHand) return null;
  const { edge, isFirstGap, left_s, isStiff } = inHand;
  const cutter = state.policy.firstGap === 'bench-cutter';
  const done = state.opening.cut.get(bond.id) ?? NONE;
  return {
    lead: (
      <Depth
        map={map}
        next={edge}
        isFirstGap={isFirstGap}
        left_s={left_s}
        drag={warm?.drag ?? null}
        setCutter={cutter && isSetAnew(cut, edge.segment)}
        isEarly={isFirstGap && !isStiff && bond.heat === true && (warm?.off?.isEarly ?? false)}
        isStiff={isStiff}
        again_s={again_s}
      />
    ),
    body: (
      <Edges
        map={map}
        state={state}
        bond={bond}
        cut={cut}
        done={done}
        onPicks={(material, count) => void bench.send('placeholder', { joint: bond.id, material, count })}
      />
    ),
    marks: <EdgeMarks map={map} side={side} bond={bond} cut={cut} done={done} />,
    ...(warm?.bond_C ? { bond_C: warm.bond_C.likely } : {}),
    spoken: isStiff
      ? 'Too stiff for this edge. Heat again.'
      : `Cut ${edgeName(bond, edge.segment)}, ${edge.depth} millimetres deep at most.`,
    alarm: isStiff ? 'stiff' : null,
  };
}

const NONE: ReadonlySet<string> = new Set();

interface DepthProps {
  readonly map: DeviceMap;
  readonly next: BondCut['edges'][number];
  readonly isFirstGap: boolean;
  readonly left_s: number | null;
  readonly drag: Drag | null;
  /** a cutter of fixed depth stands at another depth before this edge */
  readonly setCutter: boolean;
  readonly isEarly: boolean;
  readonly isStiff: boolean;
  readonly again_s: number | null;
}

/** How deep at this edge, in the largest figures, and for how long yet. */
function Depth({ map, next, isFirstGap, left_s, drag, setCutter, isEarly, isStiff, again_s }: DepthProps) {
  const again = `heat again, H${again_s ? `, about ${countdown(again_s)}` : ''}`;
  return (
    <>
      {setCutter && <p className="text-far leading-tight font-bold">Set the cutter to {next.depth} mm.</p>}
      <div className="grid grid-cols-[auto_minmax(0,1fr)] items-end gap-5">
        <p className="leading-none">
          <span className="text-huge font-bold text-now">{next.depth}</span>
          <span className="text-far"> mm</span>
        </p>
        <p className="text-lead leading-tight">
          deep at most{next.near ? `: ${spokenName(map, next.near)} lies behind` : ''}
        </p>
      </div>
      {isEarly && (
        <p className="text-lead font-bold text-now">
          Heat off early: it may not be soft yet. More heat, not more force.
        </p>
      )}
      {left_s !== null && (
        <p role="timer" aria-label="Soft for" className="text-lead">
          {isStiff ? (
            <strong className="text-now">
              {isFirstGap ? 'Too stiff for the first gap' : 'Stiff by now'}: {again}.
            </strong>
          ) : (
            <>
              {isFirstGap ? 'Soft' : 'Goes on'} for another <strong>{countdown(left_s)}</strong>; this edge takes{' '}
              {countdown(next.seconds)}
              {!isFirstGap && drag && <span className="text-quiet"> {dragWords(drag)}</span>}
            </>
          )}
        </p>
      )}
    </>
  );
}

/** Where it is taken to drag, and who says so. */
function dragWords({ low, likely, high, from }: Drag): string {
  if (from === 0) return `Below ${temperature(likely)} it drags (guess): D when it does.`;
  return `Below ${temperature(likely)} it drags here (felt ${plural(from, 'time')}, ${temperatures(low, high)}).`;
}

/** Does the depth change at this edge, the first one counted? */
function isSetAnew({ edges }: BondCut, segment: string): boolean {
  const at = edges.findIndex((each) => each.segment === segment);
  return edges[at]!.depth !== edges[at - 1]?.depth;
}

interface EdgesProps {
  readonly map: DeviceMap;
  readonly state: JobState;
  readonly bond: BondJoint;
  readonly cut: BondCut;
  readonly done: ReadonlySet<string>;
  onPicks(material: 'metal' | 'plastic', count: number): void;
}

function Edges({ map, state, bond, cut, done, onPicks }: EdgesProps) {
  const next = cut.edges.find((each) => !done.has(each.segment))!;
  // a cup holds on a face, not on a mesh or a lens
  const held = partById(map, bond.holds[0])!;
  const picks = state.opening.placeholders.get(bond.id);
  const wedged = picks && picks.count > 0 ? picks.material : 'none';
  return (
    <div className="flex flex-col gap-3">
      {done.size === 0 && (
        <p className="text-lead">
          {isOuter(held) && FIRST_GAPS[settled(map, state.policy).policy.firstGap]} {cut.startWhy}{' '}
          {isCellBehind(map, state, bond)
            ? 'Soft picks only: a cell lies behind this bond.'
            : 'Metal only for the first gap, soft picks after.'}
        </p>
      )}
      <ol aria-label="Edges" className="text-body">
        {cut.edges.map(({ segment, depth, seconds, near, reheatBefore }, index) => (
          <li
            key={segment}
            className={`grid grid-cols-[1.6rem_minmax(0,1fr)_4.2rem_3.2rem] border-b border-hair py-0.5 ${segment === next.segment ? 'font-bold text-now' : done.has(segment) ? 'text-done' : ''}`}
          >
            {state.policy.firstGap === 'bench-cutter' && isSetAnew(cut, segment) && !done.has(segment) && (
              <strong className="col-span-4">Cutter to {depth} mm, then</strong>
            )}
            <span>{done.has(segment) ? '✓' : index + 1}</span>
            <span className="truncate">
              {reheatBefore && !done.has(segment) && segment !== next.segment && <strong>heat, then </strong>}
              {edgeName(bond, segment)}
              {near && <span className="text-quiet">, {spokenName(map, near)}</span>}
            </span>
            <span className="text-right">{depth} mm</span>
            <span className="text-right">{done.has(segment) ? 'cut' : countdown(seconds)}</span>
          </li>
        ))}
      </ol>
      <p className="text-body">
        {bond.heat && `${plural(cut.warmings, 'warming')} for the whole cut. `}
        {swingWords(map, bond, cut)}
      </p>
      <Link
        to={`/pick-card/${map.id}/${bond.id}?revision=${state.job.revision}`}
        className="inline-flex min-h-12 items-center self-start text-body underline decoration-hair underline-offset-4"
      >
        Pick card to print
      </Link>
      {bond.seam && <Seam map={map} bond={bond} depth={next.depth} />}
      <div className="flex flex-wrap items-center gap-3 text-body">
        <span className="text-quiet">Picks that stay in</span>
        <Choice
          label="Picks that stay in"
          value={wedged}
          options={['none', 'plastic', 'metal']}
          onChange={(material) =>
            onPicks(material === 'none' ? (picks?.material ?? 'plastic') : material, material === 'none' ? 0 : 1)
          }
        />
        {wedged === 'plastic' && <span className="text-note text-quiet">Out before hot air: it softens them.</span>}
      </div>
    </div>
  );
}

const FIRST_GAPS: Readonly<Record<Policy['firstGap'], string>> = {
  'one-cup': 'One cup close to this edge, pulled straight up.',
  'two-cup': 'The two-cup clamp over this edge, squeezed slowly.',
  'edgeless-blade': 'The edgeless blade into the seam here, flat.',
  'thin-film': 'A thin film into the seam here, then a thicker one beside it.',
  'bench-cutter': 'The bench cutter here, set to this depth.',
  'by-hand': 'A fingernail at the notch here.',
};

/** Toward which side as it is seen now, how far, and what has to come off before it goes further. */
function swingWords(map: DeviceMap, { face }: BondJoint, { toward, gap_mm, tethers }: BondCut): string {
  if (!toward) return '';
  const names = [...new Set(tethers.map((id) => spokenName(map, id)))].slice(0, 2).join(' and ');
  const held = names ? ` until ${names} ${tethers.length > 1 ? 'are' : 'is'} off` : '';
  const far = gap_mm ? `, ${gap_mm} mm at most${held}` : '';
  return `The ${seenEdge(toward, face)} edge stays down: open it toward there${far}.`;
}
