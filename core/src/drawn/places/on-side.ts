import {
  type DeviceMap,
  type Edge,
  type Joint,
  jointById,
  type Part,
  partById,
  type Point,
  seenX,
} from '../../model/device-map/index.ts';

export type Side = 'front' | 'back';

/** The back lies mirrored: what is right on the map is left on the bench. */
export function onSide(map: DeviceMap, side: Side, x: number): number {
  return seenX(map.outline.width, x, side);
}

/** An upright rectangle, mm. */
export interface Box {
  readonly x: number;
  readonly y: number;
  readonly w: number;
  readonly h: number;
}

/** Corners of a shape, one after the other, mm. */
export type Ring = readonly (readonly [number, number])[];

/** A rectangle of the map, as it lies on a side. */
export function boxOn(map: DeviceMap, side: Side, { x, y, w, h }: Box): Box {
  return { x: Math.min(onSide(map, side, x), onSide(map, side, x + w)), y, w, h };
}

/** The shape of a part as it lies on a side; round corners are left square. */
export function ringOf(map: DeviceMap, side: Side, part: Part): Ring {
  if (part.outline) return part.outline.map(([x, y]) => [onSide(map, side, x), y] as const);
  return corners(boxOn(map, side, part.box));
}

/** The edge of a rectangle that another in it is nearest to. */
export function nearestEdge(inner: Box, outer: Box): Edge {
  const far: readonly (readonly [number, Edge])[] = [
    [inner.x - outer.x, 'left'],
    [outer.x + outer.w - inner.x - inner.w, 'right'],
    [inner.y - outer.y, 'top'],
    [outer.y + outer.h - inner.y - inner.h, 'bottom'],
  ];
  return far.toSorted(([a], [b]) => a - b)[0]![1];
}

export function corners({ x, y, w, h }: Box): Ring {
  return [
    [x, y],
    [x + w, y],
    [x + w, y + h],
    [x, y + h],
  ];
}

export function centreOf(part: Part): Point {
  if (!part.outline) return { x: part.box.x + part.box.w / 2, y: part.box.y + part.box.h / 2 };
  const count = part.outline.length;
  const [x, y] = part.outline.reduce(([sx, sy], [px, py]) => [sx + px, sy + py], [0, 0]);
  return { x: x / count, y: y / count };
}

/** Where a joint is, as far as the map says; otherwise the middle of what it holds. */
export function placesOf(map: DeviceMap, joint: Joint): readonly Point[] {
  if ('points' in joint && joint.points && joint.points.length > 0) return joint.points;
  if (joint.at) return [joint.at];
  if (joint.type === 'bond' && joint.segments && joint.segments.length > 0) {
    return joint.segments.map(({ from, to }) => ({ x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 }));
  }
  const part = partById(map, joint.holds[0]);
  return part ? [centreOf(part)] : [];
}

/** The shape of a part as an SVG path, in mm, mirrored for the back. One that covers the face has the device's corners. */
export function outlinePath(map: DeviceMap, side: Side, part: Part): string {
  if (part.outline) return `M${part.outline.map(([x, y]) => `${onSide(map, side, x)} ${y}`).join('L')}Z`;
  const { x, y, w, h } = boxOn(map, side, part.box);
  const { width, height, corner } = map.outline;
  const coversFace = w > 0.8 * width && h > 0.8 * height;
  const r = coversFace ? Math.max(0, corner - (width - w) / 2) : Math.min(0.8, w / 4, h / 4);
  const [right, bottom] = [x + w, y + h];
  return (
    `M${x + r} ${y}H${right - r}A${r} ${r} 0 0 1 ${right} ${y + r}V${bottom - r}A${r} ${r} 0 0 1 ${right - r} ${bottom}` +
    `H${x + r}A${r} ${r} 0 0 1 ${x} ${bottom - r}V${y + r}A${r} ${r} 0 0 1 ${x + r} ${y}Z`
  );
}

/** The side from which a device is taken apart: most of its parts face it. */
export function mainSide(map: DeviceMap): Side {
  const facing = (side: Side) => map.parts.filter((part) => !part.base && part.face === side).length;
  return facing('back') > facing('front') ? 'back' : 'front';
}

/** Parts that can be seen on a side, the one nearest to the eye first. The base is drawn apart. */
export function fromTheTop(map: DeviceMap, side: Side): Part[] {
  const seen = map.parts.filter((part) => !part.base && (part.face === side || part.face === 'edge'));
  const nearness = (part: Part) => (side === 'front' ? part.z.top : -part.z.bottom);
  return seen.toSorted((a, b) => nearness(a) - nearness(b) || b.box.w * b.box.h - a.box.w * a.box.h);
}

export function contains(part: Part, { x, y }: Point): boolean {
  const { box } = part;
  return x > box.x && x < box.x + box.w && y > box.y && y < box.y + box.h;
}

/** Where a part or joint is: its middle, or the first of its places. */
export function placeOf(map: DeviceMap, id: string): Point | undefined {
  const part = partById(map, id);
  if (part) return centreOf(part);
  const joint = jointById(map, id);
  return joint ? placesOf(map, joint)[0] : undefined;
}
