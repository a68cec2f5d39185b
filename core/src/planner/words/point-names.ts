import { type DeviceMap, type Face, jointById, type Point } from '../../model/device-map/index.ts';
import { placeWords } from './places.ts';
import { heldName } from './thing-names.ts';

/** Screws and clips have no names: each is told by where it is among those of its joint. */

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
