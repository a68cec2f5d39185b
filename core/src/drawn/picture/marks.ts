import { type DeviceMap, type Joint, jointById, type Point } from '../../model/device-map/index.ts';
import type { Op } from '../../planner/drafts/index.ts';
import { type Box, onSide, placesOf, type Side } from '../places/index.ts';
import type { Move, StayingSide } from './part-moves.ts';
import { MARK_PX, RING_PX, WORD_PX, wordsWide } from './pixels.ts';

/** Which way screws are turned and plugs go. */
export type Turning = 'out' | 'in' | null;

/** Also where one press fits the part and puts its screws in. */
export function turningOf(ops: readonly Op[]): Turning {
  const kinds = ops.map(({ kind }) => kind);
  return kinds.includes('release') ? 'out' : kinds.includes('make') ? 'in' : null;
}

/** A number of the list beside a joint. */
export interface NumberAt {
  readonly number: number;
  readonly at: Point;
}

/** A number stands so far left of the place that it means. */
const BESIDE_PX = MARK_PX * 1.3;

/** The numbers of a list that stand at joints: those of one joint side by side. */
export function numbersAt(
  map: DeviceMap,
  side: Side,
  list: readonly { readonly at: string | null }[],
  view: Box,
  scale: number,
): readonly NumberAt[] {
  const told = new Map<string, number>();
  return list.flatMap(({ at: id }, index) => {
    const joint = jointById(map, id ?? undefined);
    // what is at the rim is reached from either side
    const isSeen = joint?.face === side || joint?.face === 'edge';
    const place = joint && isSeen ? placesOf(map, joint)[0] : undefined;
    if (!joint || !place) return [];
    const before = told.get(joint.id) ?? 0;
    told.set(joint.id, before + 1);
    const x = onSide(map, side, place.x) - (BESIDE_PX + before * RING_PX) / scale;
    const half = RING_PX / 2 / scale;
    return [{ number: index + 1, at: { x: Math.max(view.x + half, x), y: place.y } }];
  });
}

/** What marks, numbers and moves cover, mm: no name stands there. */
export function covered(
  map: DeviceMap,
  side: Side,
  what: {
    readonly marked: ReadonlySet<string>;
    readonly now: ReadonlySet<string>;
    readonly turning: Turning;
    readonly numbers: readonly NumberAt[];
    readonly moves: readonly Move[];
  },
  scale: number,
): readonly Box[] {
  const around = ({ x, y }: Point, px: number): Box => {
    const half = px / scale / 2;
    return { x: x - half, y: y - half, w: 2 * half, h: 2 * half };
  };
  const joints = [...what.marked].flatMap((id) => {
    const joint = jointById(map, id);
    if (!joint) return [];
    const isPlug = joint.type === 'connector' || joint.type === 'solder';
    const size = what.turning && isPlug ? MARK_PX * 4 : what.now.has(id) ? MARK_PX : MARK_PX * 0.6;
    const places = placesOf(map, joint).map(({ x, y }) => around({ x: onSide(map, side, x), y }, size));
    return [...places, ...turns(map, side, joint, size, what.turning, scale), ...edges(map, side, joint, scale)];
  });
  return [
    ...joints,
    ...what.numbers.map(({ at }) => around(at, RING_PX)),
    ...what.moves.flatMap((move) => coveredBy(move, scale)),
  ];
}

/** The numbers right of screws and clips that go in an order. */
function turns(map: DeviceMap, side: Side, joint: Joint, size: number, turning: Turning, scale: number): Box[] {
  if (!turning || (joint.type !== 'screw' && joint.type !== 'clip')) return [];
  const [w, h] = [RING_PX / scale, RING_PX / scale];
  return (joint.points ?? []).map(({ x, y }) => ({ x: onSide(map, side, x) + size / 2 / scale, y: y - h / 2, w, h }));
}

/** The dashes along the edges of a bond. */
function edges(map: DeviceMap, side: Side, joint: Joint, scale: number): Box[] {
  if (joint.type !== 'bond') return [];
  const thick = 6 / scale;
  return (joint.segments ?? []).map(({ from, to }) => {
    const [x1, x2] = [onSide(map, side, from.x), onSide(map, side, to.x)];
    const [x, y] = [Math.min(x1, x2) - thick / 2, Math.min(from.y, to.y) - thick / 2];
    return { x, y, w: Math.abs(x2 - x1) + thick, h: Math.abs(to.y - from.y) + thick };
  });
}

/** An arrow with its words, the words of a side that stays. */
function coveredBy(move: Move, scale: number): readonly Box[] {
  if (move.kind === 'begin') return [boxAround([move.at], MARK_PX / scale)];
  const arrow = boxAround([move.from, move.to], MARK_PX / scale / 2);
  const words = wordsBox(farAt(move, scale), move.far, scale);
  if (move.kind === 'slide') return [arrow, words];
  return [arrow, words, wordsBox(nameAt(move, scale), move.name, scale)];
}

/** Where it is said how far something goes: below an arrow that lies, right of one that stands. */
export function farAt(
  { from, to, far }: { readonly from: Point; readonly to: Point; readonly far: string },
  scale: number,
): Point {
  const [x, y] = [(from.x + to.x) / 2, (from.y + to.y) / 2];
  const lies = Math.abs(to.x - from.x) > Math.abs(to.y - from.y);
  const off_px = lies ? MARK_PX / 2 + WORD_PX : MARK_PX / 2 + wordsWide(far, WORD_PX) / 2;
  return lies ? { x, y: y + off_px / scale } : { x: x + off_px / scale, y };
}

/** Where a side that stays is named: inside of it, a quarter of the way along. */
export function nameAt({ edge, stays: [a, b], name }: StayingSide, scale: number): Point {
  const at = { x: a.x + (b.x - a.x) / 4, y: a.y + (b.y - a.y) / 4 };
  const wide = (wordsWide(name, WORD_PX) / 2 + 10) / scale;
  const high = (WORD_PX + 4) / scale;
  switch (edge) {
    case 'left':
      return { x: at.x + wide, y: at.y };
    case 'right':
      return { x: at.x - wide, y: at.y };
    case 'top':
      return { x: at.x, y: at.y + high };
    case 'bottom':
      return { x: at.x, y: at.y - high };
  }
}

function wordsBox({ x, y }: Point, words: string, scale: number): Box {
  const [w, h] = [wordsWide(words, WORD_PX) / scale, (WORD_PX * 1.4) / scale];
  return { x: x - w / 2, y: y - h / 2, w, h };
}

function boxAround(points: readonly Point[], by: number): Box {
  const [xs, ys] = [points.map(({ x }) => x), points.map(({ y }) => y)];
  const [left, top] = [Math.min(...xs) - by, Math.min(...ys) - by];
  return { x: left, y: top, w: Math.max(...xs) + by - left, h: Math.max(...ys) + by - top };
}
