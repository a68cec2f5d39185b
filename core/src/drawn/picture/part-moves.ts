import {
  type DeviceMap,
  type Edge,
  type Joint,
  jointById,
  middleOfEdge,
  opposite,
  type Part,
  partById,
  type Point,
  seenEdge,
  seenWay,
} from '../../model/device-map/index.ts';
import type { Op } from '../../planner/drafts/index.ts';
import { type Box, boxOn, nearestEdge, onSide, type Side } from '../places/index.ts';

/** How a part goes, in mm of the side that it is drawn on. */
export type Move =
  /** one side stays down, the other comes up from there or goes down to it */
  | (StayingSide & {
      readonly kind: 'tilt';
      readonly part: string;
      readonly from: Point;
      readonly to: Point;
      /** *4 mm at most*; empty where the map does not say */
      readonly far: string;
    })
  | { readonly kind: 'slide'; readonly part: string; readonly from: Point; readonly to: Point; readonly far: string }
  /** where it is begun */
  | { readonly kind: 'begin'; readonly part: string; readonly at: Point };

/** Straight out of the page, or into it. */
export type Straight = 'up' | 'down';

/** What of a part's own way is drawn for these operations: the side that stays, where it goes, how far at most. */
export function movesOf(map: DeviceMap, side: Side, ops: readonly Op[]): readonly Move[] {
  const moves = ops.flatMap((op) => moveOf(map, side, op));
  // opened and lifted in one, a part is drawn on its way once
  const told = new Set<string>();
  return moves.filter(({ kind, part }) => {
    const key = `${kind} ${part}`;
    if (told.has(key)) return false;
    told.add(key);
    return true;
  });
}

/** Parts that go straight up or down, where nothing keeps one side of them down. */
export function straightOf(map: DeviceMap, ops: readonly Op[]): ReadonlyMap<string, Straight> {
  return new Map(
    ops.flatMap((op): [string, Straight][] => {
      const part = partById(map, op.part);
      if (!part || part.face === 'edge' || op.kind === 'procedure' || tiltOf(map, op, part)) return [];
      if (op.kind === 'lift' || op.kind === 'open') return [[part.id, 'up']];
      return op.kind === 'fit' || op.kind === 'close' ? [[part.id, 'down']] : [];
    }),
  );
}

function moveOf(map: DeviceMap, side: Side, op: Op): Move[] {
  const joint = jointById(map, op.joint);
  const begins = (op.pries ?? []).flatMap((id): Move[] => {
    const at = partById(map, id)?.liftFrom;
    return at ? [{ kind: 'begin', part: id, at: { x: onSide(map, side, at.x), y: at.y } }] : [];
  });
  if (joint) return [...ofJoint(map, side, op, joint), ...begins];
  const part = partById(map, op.part);
  if (!part || op.kind === 'procedure') return begins;
  if (part.face === 'edge') return [throughTheEdge(map, side, part, op.kind === 'lift'), ...begins];
  const tilt = tiltOf(map, op, part);
  return [...(tilt ? [tilted(map, side, part, tilt)] : []), ...begins];
}

function ofJoint(map: DeviceMap, side: Side, { kind }: Op, joint: Joint): Move[] {
  const part = partById(map, joint.holds[0]);
  if (!part || joint.type !== 'clip' || (kind !== 'release' && kind !== 'make')) return [];
  const isOff = kind === 'release';
  if (joint.slide && Math.hypot(joint.slide.dx, joint.slide.dy) > 0) {
    const way = seenWay(joint.slide, side);
    return [slid(boxOn(map, side, part.box), part.id, isOff ? way : { dx: -way.dx, dy: -way.dy })];
  }
  if (joint.eject && isOff) return [throughTheEdge(map, side, part, true)];
  if (!joint.tilt) return [];
  return [tilted(map, side, part, { edge: joint.tilt, name: isOff ? STAYS : 'first', far: '' })];
}

/** The side of a part that stays down, as it is seen. */
export interface StayingSide {
  readonly edge: Edge;
  readonly stays: readonly [Point, Point];
  /** *stays down*, *hinge* */
  readonly name: string;
}

/** The side of a part toward which it is opened, an edge as the map has it. */
export function stayingSide(map: DeviceMap, side: Side, part: Part, own: Edge, name = STAYS): StayingSide {
  const edge = seenEdge(own, side);
  return { edge, stays: endsOf(boxOn(map, side, part.box), edge), name };
}

interface Tilt {
  /** as the map has it */
  readonly edge: Edge;
  readonly name: string;
  readonly far: string;
}

const STAYS = 'stays down';

/** The side that stays down while this is done; null where the part goes straight. */
function tiltOf(map: DeviceMap, { kind, posture }: Op, { id, opens, motion }: Part): Tilt | null {
  const hinge = map.joints.find((each) => each.type === 'hinge' && each.holds.includes(id));
  const seat = map.joints.find((each) => each.type === 'seat' && each.tilt && each.holds.includes(id));
  if (hinge?.type === 'hinge' && (kind === 'open' || kind === 'close'))
    return { edge: hinge.edge, name: 'hinge', far: '' };
  if (kind === 'lift') return seat?.type === 'seat' && seat.tilt ? { edge: seat.tilt, name: STAYS, far: '' } : null;
  if (opens && (kind === 'open' || kind === 'close')) {
    const far = kind === 'open' && opens.gap ? `${opens.gap} mm at most` : '';
    return { edge: opens.edge, name: kind === 'open' ? STAYS : 'first', far };
  }
  if (kind !== 'fit') return null;
  if (opens && posture === 'stands')
    return { edge: opens.edge, name: 'stands here', far: opens.angle ? `${opens.angle}°` : '' };
  return motion?.firstEdge
    ? { edge: motion.firstEdge, name: 'first', far: motion.angle ? `at ${motion.angle}°` : '' }
    : null;
}

/** The arrow runs over so much of the part, from the side that moves. */
const [NEAR, FAR] = [0.1, 0.45];

function tilted(map: DeviceMap, side: Side, part: Part, { edge: own, name, far }: Tilt): Move {
  const staysThere = stayingSide(map, side, part, own, name);
  const box = boxOn(map, side, part.box);
  const moving = middleOfEdge(box, opposite(staysThere.edge));
  const staying = middleOfEdge(box, staysThere.edge);
  const toward = (share: number) => ({
    x: moving.x + (staying.x - moving.x) * share,
    y: moving.y + (staying.y - moving.y) * share,
  });
  return {
    kind: 'tilt',
    part: part.id,
    ...staysThere,
    from: toward(NEAR),
    to: toward(FAR),
    far,
  };
}

/** A slide of a few mm is drawn longer than it is, or nobody sees it: so much of the device at least. */
const LEAST_SLIDE = 0.2;

function slid(box: Box, part: string, { dx, dy }: { readonly dx: number; readonly dy: number }): Move {
  const long = Math.hypot(dx, dy);
  const isAcross = Math.abs(dx) >= Math.abs(dy);
  // across the quarter of it that no word of its middle stands in
  const middle = isAcross
    ? { x: box.x + box.w / 2, y: box.y + box.h * 0.75 }
    : { x: box.x + box.w * 0.75, y: box.y + box.h / 2 };
  const drawn = Math.max(long, (isAcross ? box.w : box.h) * LEAST_SLIDE) / 2;
  const [ux, uy] = [dx / long, dy / long];
  return {
    kind: 'slide',
    part,
    from: { x: middle.x - ux * drawn, y: middle.y - uy * drawn },
    to: { x: middle.x + ux * drawn, y: middle.y + uy * drawn },
    far: `${Math.round(long * 10) / 10} mm`,
  };
}

/** A tray comes out of the edge that it is nearest to, and goes in there. */
function throughTheEdge(map: DeviceMap, side: Side, part: Part, isOut: boolean): Move {
  const box = boxOn(map, side, part.box);
  const { width, height } = map.outline;
  const edge = nearestEdge(box, { x: 0, y: 0, w: width, h: height });
  const rim = middleOfEdge(box, edge);
  const [dx, dy] = OUTWARD[edge];
  const out = { x: rim.x + dx * OUT_MM, y: rim.y + dy * OUT_MM };
  return { kind: 'slide', part: part.id, from: isOut ? rim : out, to: isOut ? out : rim, far: '' };
}

const OUTWARD: Readonly<Record<Edge, readonly [number, number]>> = {
  left: [-1, 0],
  right: [1, 0],
  top: [0, -1],
  bottom: [0, 1],
};
/** How long the arrow of a tray is, mm: it stays in the air that is drawn around a device. */
const OUT_MM = 6;

function endsOf({ x, y, w, h }: Box, edge: Edge): readonly [Point, Point] {
  const [left, right, top, bottom] = [x, x + w, y, y + h];
  switch (edge) {
    case 'left':
      return [
        { x: left, y: top },
        { x: left, y: bottom },
      ];
    case 'right':
      return [
        { x: right, y: top },
        { x: right, y: bottom },
      ];
    case 'top':
      return [
        { x: left, y: top },
        { x: right, y: top },
      ];
    case 'bottom':
      return [
        { x: left, y: bottom },
        { x: right, y: bottom },
      ];
  }
}
