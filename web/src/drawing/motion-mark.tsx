import {
  type ConnectorJoint,
  type DeviceMap,
  flexGoesTo,
  type Point,
  type SolderJoint,
} from '@nibrel/core/model/device-map';
import { MARK_PX } from '@nibrel/core/drawn/picture';
import { onSide, placesOf, type Side } from '@nibrel/core/drawn/places';
import { useMm } from './scale.ts';
import { Words } from './thing.tsx';

interface MotionMarkProps {
  readonly map: DeviceMap;
  readonly side: Side;
  readonly joint: ConnectorJoint | SolderJoint;
  /** on its way off, or on */
  readonly turning: 'out' | 'in';
  /** the battery is connected while it is worked */
  readonly isLive: boolean;
}

/**
 * How a plug is undone or made, drawn where it is: the edge that is levered, the way its latch and its flex go, up out of the
 * page or down into it, or an iron.
 */
export function MotionMark({ map, side, joint, turning, isLive }: MotionMarkProps) {
  const mm = useMm();
  const [place] = placesOf(map, joint);
  if (!place) return null;
  const at = { x: onSide(map, side, place.x), y: place.y };
  const r = mm(MARK_PX);
  const style = joint.type === 'solder' ? 'solder' : joint.style;
  return (
    <g
      stroke="var(--now)"
      strokeWidth={mm(2.6)}
      fill="none"
      strokeLinecap="round"
      strokeLinejoin="round"
      pointerEvents="none"
    >
      {style === 'press' && turning === 'out' && <Lever at={at} from={leverOf(map, side, joint, at)} r={r} />}
      {style === 'press' && turning === 'in' && <Down at={at} r={r * 0.62} />}
      {style === 'coax' && (turning === 'out' ? <Up at={at} r={r * 0.5} /> : <Down at={at} r={r * 0.5} />)}
      {(style === 'zif-flip' || style === 'zif-slide') && (
        <Latch at={at} away={wayTo(map, side, joint, at)} r={r} isFlip={style === 'zif-flip'} turning={turning} />
      )}
      {style === 'plug' && <Way at={at} to={wayTo(map, side, joint, at)} r={r} turning={turning} />}
      {style === 'solder' && <Iron at={at} r={r} />}
      {isLive && (
        <g stroke="none">
          <Words x={at.x} y={at.y + r * 1.6} strong>
            live
          </Words>
        </g>
      )}
    </g>
  );
}

/** A unit vector. */
type Toward = Point;

function unit(from: Point, to: Point, otherwise: Toward): Toward {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const long = Math.hypot(dx, dy);
  return long < 0.01 ? otherwise : { x: dx / long, y: dy / long };
}

const UPWARD: Toward = { x: 0, y: -1 };

function leverOf(map: DeviceMap, side: Side, joint: ConnectorJoint | SolderJoint, at: Point): Toward {
  const lever = joint.type === 'connector' ? joint.lever : undefined;
  return lever ? unit(at, { x: onSide(map, side, lever.x), y: lever.y }, UPWARD) : UPWARD;
}

/** Toward what hangs on it: that way its flex leaves. */
function wayTo(map: DeviceMap, side: Side, joint: ConnectorJoint | SolderJoint, at: Point): Toward {
  const to = flexGoesTo(map, joint.id, { x: onSide(map, side, at.x), y: at.y });
  return to ? unit(at, { x: onSide(map, side, to.x), y: to.y }, { x: 0, y: 1 }) : UPWARD;
}

interface MarkAt {
  readonly at: Point;
  readonly r: number;
}

/** A tip at the edge that is levered, and the plug swinging up from there. */
function Lever({ at, from, r }: MarkAt & { readonly from: Toward }) {
  const edge = { x: at.x + from.x * r * 0.75, y: at.y + from.y * r * 0.75 };
  const [px, py] = [-from.y, from.x];
  const tip = `M${edge.x} ${edge.y}l${from.x * r * 0.9 + px * r * 0.22} ${from.y * r * 0.9 + py * r * 0.22}l${-px * r * 0.44} ${-py * r * 0.44}Z`;
  const over = { x: at.x - from.x * r * 0.9, y: at.y - from.y * r * 0.9 };
  return (
    <>
      <path d={tip} fill="var(--now)" />
      <path
        d={`M${edge.x + px * r * 0.3} ${edge.y + py * r * 0.3}Q${at.x + px * r * 1.5} ${at.y + py * r * 1.5} ${over.x + px * r * 0.35} ${over.y + py * r * 0.35}`}
      />
      <Head
        at={{ x: over.x + px * r * 0.35, y: over.y + py * r * 0.35 }}
        to={unit({ x: at.x + px * r * 1.5, y: at.y + py * r * 1.5 }, over, from)}
        r={r}
      />
    </>
  );
}

/** The point of an arrow. */
function Head({ at, to, r }: MarkAt & { readonly to: Toward }) {
  const [px, py] = [-to.y, to.x];
  const back = { x: at.x - to.x * r * 0.38, y: at.y - to.y * r * 0.38 };
  return (
    <path
      d={`M${back.x + px * r * 0.26} ${back.y + py * r * 0.26}L${at.x} ${at.y}L${back.x - px * r * 0.26} ${back.y - py * r * 0.26}`}
    />
  );
}

/** Out of the page, as an arrow is drawn that is seen from its point. */
function Up({ at: { x, y }, r }: MarkAt) {
  return (
    <>
      <circle cx={x} cy={y} r={r * 1.5} />
      <circle cx={x} cy={y} r={r * 0.35} fill="var(--now)" />
    </>
  );
}

/** Into the page, as one that is seen from its feathers. */
function Down({ at: { x, y }, r }: MarkAt) {
  const d = r * 1.06;
  return (
    <>
      <circle cx={x} cy={y} r={r * 1.5} />
      <path d={`M${x - d} ${y - d}L${x + d} ${y + d}M${x - d} ${y + d}L${x + d} ${y - d}`} />
    </>
  );
}

interface LatchProps extends MarkAt {
  /** the way that the flex leaves */
  readonly away: Toward;
  readonly isFlip: boolean;
  readonly turning: 'out' | 'in';
}

/** A latch is flipped up at the side away from the flex, or slid toward it by both ends; then the flex is drawn out. */
function Latch({ at, away, r, isFlip, turning }: LatchProps) {
  const [px, py] = [-away.y, away.x];
  const side = isFlip ? -1 : 1;
  const bar = { x: at.x + away.x * r * 0.55 * side, y: at.y + away.y * r * 0.55 * side };
  const ends = [1, -1].map((end) => ({ x: bar.x + px * r * 0.9 * end, y: bar.y + py * r * 0.9 * end }));
  const out = turning === 'out' ? away : { x: -away.x, y: -away.y };
  return (
    <>
      <path d={`M${ends[0]!.x} ${ends[0]!.y}L${ends[1]!.x} ${ends[1]!.y}`} strokeWidth={r * 0.2} />
      {isFlip ? (
        <>
          <path
            d={`M${bar.x} ${bar.y}q${-away.x * r * 0.9 + px * r * 0.2} ${-away.y * r * 0.9 + py * r * 0.2} ${-away.x * r * 0.5 + px * r * 0.9} ${-away.y * r * 0.5 + py * r * 0.9}`}
          />
          <Head
            at={{ x: bar.x - away.x * r * 0.5 + px * r * 0.9, y: bar.y - away.y * r * 0.5 + py * r * 0.9 }}
            to={unit({ x: 0, y: 0 }, { x: px + away.x * 0.4, y: py + away.y * 0.4 }, away)}
            r={r}
          />
        </>
      ) : (
        ends.map((end) => <Way key={`${end.x} ${end.y}`} at={end} to={out} r={r * 0.6} turning="out" />)
      )}
      <Way at={{ x: at.x + away.x * r, y: at.y + away.y * r }} to={away} r={r} turning={turning} />
    </>
  );
}

/** Out toward what hangs on it, or in. */
function Way({ at, to, r, turning }: MarkAt & { readonly to: Toward; readonly turning: 'out' | 'in' }) {
  const far = { x: at.x + to.x * r * 1.7, y: at.y + to.y * r * 1.7 };
  const isOut = turning === 'out';
  return (
    <>
      <path d={`M${at.x} ${at.y}L${far.x} ${far.y}`} strokeDasharray={`${r * 0.4} ${r * 0.3}`} />
      <Head at={isOut ? far : at} to={isOut ? to : { x: -to.x, y: -to.y }} r={r} />
    </>
  );
}

/** The tip of an iron, from the upper right. */
function Iron({ at: { x, y }, r }: MarkAt) {
  return (
    <>
      <path d={`M${x} ${y}l${r * 0.5} ${-r * 0.75}l${r * 0.35} ${r * 0.25}Z`} fill="var(--now)" />
      <path d={`M${x + r * 0.75} ${y - r * 0.6}l${r * 0.7} ${-r * 0.9}`} strokeWidth={r * 0.3} />
    </>
  );
}
