import {
  type BondJoint,
  type BondSegment,
  type DeviceMap,
  type Face,
  type Joint,
  jointById,
  partById,
  type Point,
  seenX,
} from '../../model/device-map/index.ts';
import { heldName } from './thing-names.ts';

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

interface PointAt {
  readonly place: string;
  /** where several of a joint would be called the same: which, from the top down; else 0 */
  readonly nth: number;
}

/** Where one screw or clip of several is among them, as a person sees them. */
function pointAt(map: DeviceMap, jointId: string, pointId: string): PointAt | null {
  const joint = jointById(map, jointId);
  const points = joint?.type === 'screw' || joint?.type === 'clip' ? (joint.points ?? []) : [];
  if (!joint || !points.some(({ id }) => id === pointId)) return null;
  const placed = points.map((point) => ({ ...point, place: placeAmong(map, points, point, joint.face) }));
  const own = placed.find(({ id }) => id === pointId)!;
  const same = placed.filter(({ place }) => place === own.place).toSorted((a, b) => a.y - b.y || a.x - b.x);
  return { place: own.place, nth: same.length > 1 ? same.indexOf(own) + 1 : 0 };
}

/** Nearer than this two screws are beside each other, mm (guess). */
const APART_MM = 4;

/** Of several: *upper left* of them, *left* where they lie in a row. Of one by itself, where it is on the device. */
function placeAmong(map: DeviceMap, points: readonly Point[], { x, y }: Point, face: Face): string {
  if (points.length === 1) return placeWords(map, { x, y }, face);
  const [xs, ys] = [points.map((each) => each.x), points.map((each) => each.y)];
  const [left, top] = [Math.min(...xs), Math.min(...ys)];
  const [wide, high] = [Math.max(...xs) - left, Math.max(...ys) - top];
  const outline = { width: Math.max(wide, 1), height: Math.max(high, 1) };
  const at = { x: wide < APART_MM ? outline.width / 2 : x - left, y: high < APART_MM ? outline.height / 2 : y - top };
  const said = placeWords({ outline }, at, face);
  // in a row nothing is said of the other way
  return high < APART_MM ? said.replace('middle ', '') : wide < APART_MM ? said.replace(' middle', '') : said;
}

/** Where a screw or clip is among those of its joint: *upper left*; empty where the map has none such. */
export function pointPlace(map: DeviceMap, jointId: string, pointId: string): string {
  const at = pointAt(map, jointId, pointId);
  return at ? `${at.place}${at.nth > 0 ? ` ${at.nth}` : ''}` : '';
}

/** *upper left screw of Connector lid*; of one by itself, or that the map does not have, *screw of Connector lid*. */
export function pointName(map: DeviceMap, jointId: string, pointId: string): string {
  const joint = jointById(map, jointId);
  const isOnly = joint !== undefined && 'points' in joint && joint.points?.length === 1;
  const at = isOnly ? null : pointAt(map, jointId, pointId);
  const thing = `${joint?.type === 'clip' ? 'clip' : 'screw'}${at && at.nth > 0 ? ` ${at.nth}` : ''}`;
  return `${at ? `${at.place} ` : ''}${thing} of ${heldName(map, jointId)}`;
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
