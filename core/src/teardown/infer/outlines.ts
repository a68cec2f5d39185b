import polygonClipping, { type Polygon } from 'polygon-clipping';
import type { Point } from '../../model/device-map/index.ts';
import type { SeenPart } from '../record/index.ts';

type Box = SeenPart['box'];

/** Of the box of a part without points so much has to be covered. */
const QUARTER = 0.25;

/** Does the outline of a part, else its box, contain a point of these, or, where there are none, a quarter of the box? */
export function coversThem(part: SeenPart, points: readonly Point[], box: Box | undefined): boolean {
  if (points.length > 0) return points.some((point) => isOver(part, point));
  if (!box) return false;
  const shared = part.outline ? sharedArea(part.outline, box) : overlap(part.box, box);
  return shared >= QUARTER * box.w * box.h;
}

/** Does a box contain more than half of these points, or of this box? */
export function holdsMost(box: Box, points: readonly Point[], held: Box | undefined): boolean {
  if (points.length > 0) return points.filter((point) => isInBox(box, point)).length > points.length / 2;
  return held !== undefined && overlap(box, held) > (held.w * held.h) / 2;
}

/** From a part's outline to the nearest of these points, mm; 0 where it covers one. */
export function away_mm({ box }: SeenPart, points: readonly Point[]): number {
  const far = points.map(({ x, y }) => {
    const dx = Math.max(box.x - x, 0, x - box.x - box.w);
    const dy = Math.max(box.y - y, 0, y - box.y - box.h);
    return Math.hypot(dx, dy);
  });
  return Math.min(Infinity, ...far);
}

function isOver({ outline, box }: SeenPart, { x, y }: Point): boolean {
  if (!outline) return isInBox(box, { x, y });
  let inside = false;
  outline.forEach(([ax, ay], at) => {
    const [bx, by] = outline[(at + 1) % outline.length]!;
    if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) inside = !inside;
  });
  return inside;
}

function isInBox(box: Box, { x, y }: Point): boolean {
  return x >= box.x && x <= box.x + box.w && y >= box.y && y <= box.y + box.h;
}

function overlap(a: Box, b: Box): number {
  const w = Math.min(a.x + a.w, b.x + b.w) - Math.max(a.x, b.x);
  const h = Math.min(a.y + a.h, b.y + b.h) - Math.max(a.y, b.y);
  return w > 0 && h > 0 ? w * h : 0;
}

function sharedArea(outline: readonly (readonly [number, number])[], { x, y, w, h }: Box): number {
  const ring: Polygon = [outline.map(([px, py]) => [px, py])];
  const box: Polygon = [
    [
      [x, y],
      [x + w, y],
      [x + w, y + h],
      [x, y + h],
    ],
  ];
  try {
    return polygonClipping
      .intersection(ring, box)
      .reduce((sum, [outer = [], ...holes]) => sum + area(outer) - holes.reduce((all, hole) => all + area(hole), 0), 0);
  } catch {
    // an outline that crosses itself covers nothing
    return 0;
  }
}

function area(ring: readonly (readonly [number, number])[]): number {
  const twice = ring.reduce((sum, [x, y], at) => {
    const [nextX, nextY] = ring[(at + 1) % ring.length]!;
    return sum + x * nextY - nextX * y;
  }, 0);
  return Math.abs(twice) / 2;
}
