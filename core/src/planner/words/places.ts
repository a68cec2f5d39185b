import {
  type BondJoint,
  type BondSegment,
  type DeviceMap,
  type Face,
  type Joint,
  partById,
  type Point,
  seenX,
} from '../../model/device-map/index.ts';
/** Names by where a thing is, as it is seen on its own face: a back is turned over, so its left is the map's right. */

/** *upper left*, *middle*, *lower right* */
export function placeWords(
  { outline }: { readonly outline: { readonly width: number; readonly height: number } },
  { x, y }: Point,
  face: Face,
): string {
  const across = seenX(outline.width, x, face) / outline.width;
  const side = across < 1 / 3 ? 'left' : across > 2 / 3 ? 'right' : '';
  const along = y / outline.height;
  const height = along < 1 / 3 ? 'upper' : along > 2 / 3 ? 'lower' : '';
  if (!side && !height) return 'middle';
  if (!side) return `${height} middle`;
  return height ? `${height} ${side}` : `middle ${side}`;
}

/** Where a joint is: its own place, else the middle of its points or segments, else of what it holds first. */
export function placeOfJoint(map: DeviceMap, joint: Joint): Point {
  if (joint.at) return joint.at;
  const points: readonly Point[] = 'points' in joint && joint.points ? joint.points : [];
  const ends = joint.type === 'bond' ? (joint.segments ?? []).flatMap(({ from, to }) => [from, to]) : [];
  const all = points.length > 0 ? points : ends;
  if (all.length > 0) return { x: mean(all.map(({ x }) => x)), y: mean(all.map(({ y }) => y)) };
  const { box } = partById(map, joint.holds[0])!;
  return { x: box.x + box.w / 2, y: box.y + box.h / 2 };
}

function mean(values: readonly number[]): number {
  return values.reduce((sum, each) => sum + each, 0) / values.length;
}

/** An edge of a bond by where it runs: *bottom*, *lower right*; with a number where two would be called the same. */
export function edgeName(bond: BondJoint, segment: string): string {
  const names = named.get(bond) ?? namesOf(bond);
  named.set(bond, names);
  return names.get(segment) ?? segment.replaceAll('-', ' ');
}

/** *lower left tab*, *strap 2*: one of several that are pulled. */
export function tabName(bond: BondJoint, segment: string): string {
  return `${edgeName(bond, segment)} ${bond.style === 'strap' ? 'strap' : 'tab'}`;
}

const named = new WeakMap<BondJoint, ReadonlyMap<string, string>>();

/** An edge that is shorter than so much of its side is told by which end of it it is (guess). */
const WHOLE = 0.6;

function namesOf(bond: BondJoint): ReadonlyMap<string, string> {
  const segments = bond.segments ?? [];
  const ends = segments.flatMap(({ from, to }) => [from, to]);
  const [xs, ys] = [ends.map(({ x }) => x), ends.map(({ y }) => y)];
  const bounds = { left: Math.min(...xs), right: Math.max(...xs), top: Math.min(...ys), bottom: Math.max(...ys) };
  const plain = segments.map((each) => plainName(each, bounds, bond.face));
  return new Map(
    segments.map(({ id }, index) => {
      const name = plain[index]!;
      const same = plain.flatMap((each, at) => (each === name ? [at] : []));
      return [id, same.length > 1 ? `${name} ${same.indexOf(index) + 1}` : name];
    }),
  );
}

interface Bounds {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

function plainName({ from, to }: BondSegment, bounds: Bounds, face: Face): string {
  const [x, y] = [(from.x + to.x) / 2, (from.y + to.y) / 2];
  const [width, height] = [bounds.right - bounds.left, bounds.bottom - bounds.top];
  const isLeft = seenX(width, x - bounds.left, face) < width / 2;
  const side = isLeft ? 'left' : 'right';
  const end = y < (bounds.top + bounds.bottom) / 2 ? 'top' : 'bottom';
  const runsAlong = Math.abs(to.y - from.y) > Math.abs(to.x - from.x);
  if (runsAlong) {
    if (Math.abs(to.y - from.y) >= WHOLE * height) return side;
    return `${end === 'top' ? 'upper' : 'lower'} ${side}`;
  }
  return Math.abs(to.x - from.x) >= WHOLE * width ? end : `${end} ${side}`;
}
