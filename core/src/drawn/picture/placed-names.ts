import polygonClipping, { type MultiPolygon, type Polygon } from 'polygon-clipping';
import polylabel from 'polylabel';
import type { Point } from '../../model/device-map/index.ts';
import { type Box, corners, type Ring } from '../places/index.ts';
import { NAME_PX, RING_PX, WORD_PX, wordsWide } from './pixels.ts';
import type { Straight } from './part-moves.ts';

/** A shape on the drawing that may have its name on it. */
export interface Shape {
  readonly id: string;
  readonly ring: Ring;
  /** empty where none is wanted */
  readonly name: string;
  /** hands are on it, or it is looked at */
  readonly isStrong: boolean;
  /** its numbers in the list: they stand before its name, and are drawn even where that has no room */
  readonly numbers: readonly number[];
  readonly way: Straight | null;
}

/** What stands on a part: its numbers, the way it goes, its name. */
export interface Label {
  readonly id: string;
  /** the middle of it, mm */
  readonly at: Point;
  readonly box: Box;
  /** empty where there is no room for it */
  readonly name: string;
  readonly size_px: number;
  readonly isStrong: boolean;
  readonly numbers: readonly number[];
  readonly way: Straight | null;
}

/** Between the rings of a label and its name, px. */
const BETWEEN_PX = 4;

/**
 * Places the names of shapes, the one nearest to the eye first: each within what is seen of its own shape, as far from its
 * rim, from all that lies over it and from marks as it can be (its pole of inaccessibility, Garcia-Castellanos and Lombardo
 * 2007). A name that has no room is left out; numbers and ways are drawn at the best place there is.
 * @param marks what no name may stand on, mm
 * @param view what is in sight, mm
 * @param scale pixels a millimetre
 */
export function placedNames(
  shapes: readonly Shape[],
  marks: readonly Ring[],
  view: Box,
  scale: number,
): readonly Label[] {
  const taken = [...marks];
  const labels: Label[] = [];
  const bounds = shapes.map(({ ring }) => boundsOf(ring));
  shapes.forEach((shape, index) => {
    const own = bounds[index]!;
    const sizes = sizesOf(shape).filter(
      ({ wide_px, high_px, mustBe }) => mustBe || (own.w * scale >= wide_px && own.h * scale >= high_px),
    );
    if (sizes.length === 0 || !meets(own, view)) return;
    const over = [
      ...shapes.slice(0, index).flatMap(({ ring }, at) => (meets(bounds[at]!, own) ? [ring] : [])),
      ...taken.filter((ring) => meets(boundsOf(ring), own)),
    ];
    const isFree = over.length === 0 && isUpright(shape.ring, own) && isAround(view, own);
    const seen = isFree ? null : seenOf(shape.ring, view, over);
    for (const { name, size_px, wide_px, high_px, mustBe } of sizes) {
      const [w, h] = [wide_px / scale, high_px / scale];
      // an upright rectangle that nothing lies over has its pole in its middle
      const place = seen === null ? middleOf(own) : poleOf(seen, w, h);
      const box = place && { x: place.x - w / 2, y: place.y - h / 2, w, h };
      if (box && (seen === null ? isAround(own, box) : isWithin(box, seen))) return void put(shape, name, size_px, box);
      // numbers are needed wherever they stand
      if (mustBe) {
        const { x, y } = place ?? middleOf(own);
        return void put(shape, name, size_px, { x: x - w / 2, y: y - h / 2, w, h });
      }
    }
  });
  return labels;

  function put({ id, isStrong, numbers, way }: Shape, name: string, size_px: number, box: Box) {
    taken.push(corners(box));
    labels.push({ id, at: { x: box.x + box.w / 2, y: box.y + box.h / 2 }, box, name, size_px, isStrong, numbers, way });
  }
}

interface LabelSize {
  readonly name: string;
  readonly size_px: number;
  readonly wide_px: number;
  readonly high_px: number;
  /** it is drawn even where it has no room */
  readonly mustBe: boolean;
}

/** How a label can be drawn, the best way first. */
function sizesOf({ name, isStrong, numbers, way }: Shape): readonly LabelSize[] {
  const rings = numbers.length + (way ? 1 : 0);
  const before = rings * (RING_PX + BETWEEN_PX);
  const named = (name === '' ? [] : isStrong ? [NAME_PX, WORD_PX] : [WORD_PX]).map((size_px) => ({
    name,
    size_px,
    wide_px: before + wordsWide(name, size_px),
    high_px: Math.max(size_px * 1.3, rings > 0 ? RING_PX : 0),
    mustBe: false,
  }));
  if (rings === 0) return named;
  return [...named, { name: '', size_px: NAME_PX, wide_px: before - BETWEEN_PX, high_px: RING_PX, mustBe: true }];
}

/** What is seen of a shape: what lies over it and what is out of sight is cut away. */
function seenOf(ring: Ring, view: Box, over: readonly Ring[]): MultiPolygon {
  try {
    const inSight = polygonClipping.intersection(polygonOf(ring), polygonOf(corners(view)));
    return over.length === 0 ? inSight : polygonClipping.difference(inSight, ...over.map(polygonOf));
  } catch {
    // an outline that crosses itself can't be cut: it gets no name
    return [];
  }
}

/** A ring as it is filled: by even and odd, so that a bezel whose outline comes back by its own cut has its opening. */
function polygonOf(ring: Ring): MultiPolygon {
  const [first, ...more] = loopsOf(ring).map((loop): Polygon => [loop.map(([x, y]) => [x, y])]);
  if (!first) return [];
  return more.length === 0 ? [first] : polygonClipping.xor(first, ...more);
}

/** A ring parted where it comes to a corner for the second time. */
function loopsOf(ring: Ring): Ring[] {
  const loops: Ring[] = [];
  let open: Ring[number][] = [];
  for (const corner of ring) {
    const before = open.findIndex(([x, y]) => x === corner[0] && y === corner[1]);
    if (before >= 0) {
      loops.push(open.slice(before));
      open = open.slice(0, before);
    }
    open.push(corner);
  }
  return [...loops, open].filter(({ length }) => length > 2);
}

/** Where a rectangle of this shape has most room all round. */
function poleOf(seen: MultiPolygon, w: number, h: number): Point | null {
  // drawn so much higher a name is a square, and the circle that polylabel looks for fits it
  const stretch = w / h;
  const best = seen
    .map((polygon) => polylabel(stretched(polygon, stretch), w / 12))
    .toSorted((a, b) => b.distance - a.distance)[0];
  return best ? { x: best[0], y: best[1] / stretch } : null;
}

function stretched(polygon: Polygon, by: number): [number, number][][] {
  return polygon.map((ring) => ring.map(([x, y]) => [x, y * by]));
}

/** What may be missing of a name's room for rounding. */
const [ROUNDING_mm, ROUNDING_mm2] = [1e-6, 1e-6];

function isWithin(box: Box, seen: MultiPolygon): boolean {
  try {
    const out = polygonClipping.difference(polygonOf(corners(box)), seen);
    return out.reduce((sum, [ring]) => sum + areaOf(ring!), 0) < ROUNDING_mm2;
  } catch {
    // what can't be cut has no room for a name
    return false;
  }
}

function areaOf(ring: readonly (readonly [number, number])[]): number {
  const twice = ring.reduce((sum, [x, y], at) => {
    const [nextX, nextY] = ring[(at + 1) % ring.length]!;
    return sum + x * nextY - nextX * y;
  }, 0);
  return Math.abs(twice) / 2;
}

function boundsOf(ring: Ring): Box {
  const [xs, ys] = [ring.map(([x]) => x), ring.map(([, y]) => y)];
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  return { x, y, w: Math.max(...xs) - x, h: Math.max(...ys) - y };
}

/** Is it a rectangle that is as large as its bounds? */
function isUpright(ring: Ring, { x, y, w, h }: Box): boolean {
  const isAt = (at: number, from: number, size: number) =>
    Math.abs(at - from) < ROUNDING_mm || Math.abs(at - from - size) < ROUNDING_mm;
  return ring.length === 4 && ring.every(([cx, cy]) => isAt(cx, x, w) && isAt(cy, y, h));
}

function middleOf({ x, y, w, h }: Box): Point {
  return { x: x + w / 2, y: y + h / 2 };
}

function isAround(a: Box, b: Box): boolean {
  return b.x >= a.x && b.y >= a.y && b.x + b.w <= a.x + a.w && b.y + b.h <= a.y + a.h;
}

function meets(a: Box, b: Box): boolean {
  return a.x < b.x + b.w && b.x < a.x + a.w && a.y < b.y + b.h && b.y < a.y + a.h;
}
