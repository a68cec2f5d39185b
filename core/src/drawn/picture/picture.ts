import { type DeviceMap, type Part, type Point } from '../../model/device-map/index.ts';
import type { Op } from '../../planner/drafts/index.ts';
import { partName } from '../../planner/words/index.ts';
import {
  type Box,
  boxOn,
  centreOf,
  corners,
  fromTheTop,
  onSide,
  placesOf,
  type Ring,
  ringOf,
  type Side,
} from '../places/index.ts';
import type { Shown } from '../shown/index.ts';
import { covered, type NumberAt, numbersAt, type Turning, turningOf } from './marks.ts';
import { type Move, movesOf, straightOf } from './part-moves.ts';
import { type Label, placedNames, type Shape } from './placed-names.ts';
import { seenAt, type Standing, standingIn } from './stands-at.ts';
import { layoutOf, nearBox, scaleOf, type Size } from './view-box.ts';

/** What is asked of a drawing. */
export interface Drawn extends Shown {
  readonly map: DeviceMap;
  readonly side: Side;
  /** parts and joints whose neighbourhood is drawn large, the whole device small beside it */
  readonly near?: readonly string[];
  /** what is done: its way is drawn */
  readonly ops?: readonly Op[];
  /** what is listed beside the drawing: it is numbered alike */
  readonly list?: readonly { readonly at: string | null }[];
  /** what is in hand is named elsewhere, and other words stand on it */
  readonly isNameless?: boolean;
}

/** A device as it is drawn, mm of the side that is up, a scale of pixels a mm. */
export interface Picture {
  readonly whole: Box;
  /** what of it is drawn large; null where all of it is */
  readonly close: Box | null;
  readonly scale: number;
  /** parts in sight, the deepest first, what hands are on last */
  readonly parts: readonly Part[];
  /** can a part be pressed where it is drawn large? */
  readonly inSight: ReadonlySet<string>;
  readonly standing: readonly Standing[];
  readonly turning: Turning;
  readonly numbers: readonly NumberAt[];
  readonly moves: readonly Move[];
  readonly labels: readonly Label[];
}

const NONE: ReadonlySet<string> = new Set();

/** Where all of it goes: the one place that decides what is drawn, and where its words stand. */
export function pictureOf(
  { map, side, near = [], ops = [], list = [], isNameless = false, ...shown }: Drawn,
  size: Size,
): Picture {
  const { now = NONE, marked = NONE, standing: open = [], gone = NONE, peeled = 0, selected } = shown;
  const hidden = new Set([...gone, ...open.map(({ part }) => part)]);
  const visible = fromTheTop(map, side)
    .filter(({ id }) => !hidden.has(id))
    .slice(peeled);
  const edges = open.map(({ part, tethers }) => seenAt(map, side, part, tethers));
  const { whole, rooms } = layoutOf(map, edges);
  const isBeside = open.some(({ part }) => ops.some((op) => op.part === part) || list.some(({ at }) => at === part));
  const around = near.filter((id) => !hidden.has(id));
  // what stands open beside the device is seen with all of it
  const close = isBeside ? null : nearBox(boxesOf(map, side, around), whole, size);
  const view = close ?? whole;
  const scale = scaleOf(view, size);
  const isStrong = ({ id }: Part) => id === selected || now.has(id);
  const parts = [...visible.toReversed().filter((part) => !isStrong(part)), ...visible.toReversed().filter(isStrong)];
  const standing = open.map((each, index) => standingIn(map, side, each, edges[index]!, rooms[index]!));
  const turning = turningOf(ops);
  const numbers = numbersAt(map, side, list, view, scale);
  const here = new Set(parts.map(({ id }) => id));
  const moves = movesOf(map, side, ops).filter(({ part }) => here.has(part));
  const straight = straightOf(map, ops);
  const numbered = (id: string) => list.flatMap(({ at }, index) => (at === id ? [index + 1] : []));
  const shapes = [
    ...standing.map(({ part, ring }): Shape => ({
      id: part,
      ring,
      name: `${partName(map, part)}, open`,
      isStrong: now.has(part),
      numbers: numbered(part),
      way: straight.get(part) ?? null,
    })),
    ...parts.toReversed().map((part): Shape => {
      const isNamed = !(isNameless && isStrong(part));
      return {
        id: part.id,
        ring: ringOf(map, side, part),
        name: isNamed ? part.name : '',
        isStrong: isStrong(part),
        numbers: numbered(part.id),
        way: isNamed ? (straight.get(part.id) ?? null) : null,
      };
    }),
  ];
  const marks = [
    ...covered(map, side, { marked, now, turning, numbers, moves }, scale).map(corners),
    ...standing.flatMap(({ tethers }) => tethers.flatMap((line) => strip(line, TETHER_PX / scale))),
  ];
  return {
    whole,
    close,
    scale,
    parts,
    inSight: new Set(parts.flatMap((part) => (!close || isWithin(close, centreOn(map, side, part)) ? [part.id] : []))),
    standing,
    turning,
    numbers,
    moves,
    labels: placedNames(shapes, marks, view, scale),
  };
}

/** A flex that ties what stands open is drawn so thick, with air, px. */
const TETHER_PX = 8;

/** A straight line as wide as it is drawn. */
function strip([from, to]: readonly Point[], wide: number): Ring[] {
  if (!from || !to) return [];
  const long = Math.max(0.01, Math.hypot(to.x - from.x, to.y - from.y));
  const [ux, uy] = [((to.x - from.x) / long) * (wide / 2), ((to.y - from.y) / long) * (wide / 2)];
  return [
    [
      [from.x - ux - uy, from.y - uy + ux],
      [to.x + ux - uy, to.y + uy + ux],
      [to.x + ux + uy, to.y + uy - ux],
      [from.x - ux + uy, from.y - uy - ux],
    ],
  ];
}

/** What has to be seen around a plug to find it. */
const AROUND_MM = 12;

/** Of parts their boxes; of a joint whose parts are out of sight the places of its marks. */
function boxesOf(map: DeviceMap, side: Side, ids: readonly string[]): { readonly box: Part['box'] }[] {
  const parts = map.parts.filter(({ id }) => ids.includes(id));
  // a joint is near what it holds, where that is drawn
  const joints = map.joints.filter(({ id, holds }) => ids.includes(id) && !holds.some((held) => ids.includes(held)));
  const places = joints
    .flatMap((each) => placesOf(map, each))
    .map(({ x, y }) => ({ x: x - AROUND_MM, y: y - AROUND_MM, w: 2 * AROUND_MM, h: 2 * AROUND_MM }));
  return [...parts.map(({ box }) => box), ...places].map((box) => ({ box: boxOn(map, side, box) }));
}

function centreOn(map: DeviceMap, side: Side, part: Part): Point {
  const { x, y } = centreOf(part);
  return { x: onSide(map, side, x), y };
}

function isWithin({ x, y, w, h }: Box, at: Point): boolean {
  return at.x > x && at.x < x + w && at.y > y && at.y < y + h;
}
