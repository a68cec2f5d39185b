import type { DeviceMap, Joint, Part, Point } from '../../model/device-map/index.ts';
import type { Mechanism, StripOp } from '../holds/index.ts';

/** Where on the device an operation is done, as the map draws it. */
export function placeOf({ map, held }: Mechanism, op: StripOp): Point {
  if (op.kind !== 'release') return placeOfPart(map.parts[op.part]!);
  const joint = map.joints[op.joint]!;
  return joint.at ?? middle(pointsOf(joint)) ?? centre(map.parts[held[op.joint]![0]!]!);
}

/** Where a part is pried, else its middle. */
export function placeOfPart(part: Part): Point {
  return part.liftFrom ?? centre(part);
}

function pointsOf(joint: Joint): readonly Point[] {
  if (joint.type === 'bond') return (joint.segments ?? []).flatMap(({ from, to }) => [from, to]);
  return 'points' in joint ? (joint.points ?? []) : [];
}

function middle(points: readonly Point[]): Point | undefined {
  if (points.length === 0) return undefined;
  const sum = (of: (point: Point) => number) => points.reduce((total, each) => total + of(each), 0);
  return { x: sum((each) => each.x) / points.length, y: sum((each) => each.y) / points.length };
}

function centre({ box }: Part): Point {
  return { x: box.x + box.w / 2, y: box.y + box.h / 2 };
}

/** Where the hand is before anything was done. */
export function centreOf({ outline }: DeviceMap): Point {
  return { x: outline.width / 2, y: outline.height / 2 };
}

/** In hundredths of a millimetre, rounded: sums taken in another order are still equal. */
export function distance(a: Point, b: Point): number {
  return Math.round(Math.hypot(a.x - b.x, a.y - b.y) * 100);
}
