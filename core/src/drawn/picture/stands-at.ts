import { type DeviceMap, type Edge, partById, type Point, seenEdge } from '../../model/device-map/index.ts';
import { type Box, boxOn, nearestEdge, onSide, placeOf, type Ring, type Side } from '../places/index.ts';

/**
 * The edge of a part that stays down while it stands open, as the map has it: the one that it says, that of its hinge, or
 * the one that its tethers are nearest to; null where nothing tells.
 */
function stayingEdge(map: DeviceMap, id: string, tethers: readonly string[]): Edge | null {
  const part = partById(map, id);
  if (!part) return null;
  if (part.opens) return part.opens.edge;
  const hinge = map.joints.find((each) => each.type === 'hinge' && each.holds.includes(id));
  if (hinge?.type === 'hinge') return hinge.edge;
  const places = tethers.flatMap((each) => placeOf(map, each) ?? []);
  if (places.length === 0) return null;
  const mean = (of: (at: Point) => number) => places.reduce((sum, at) => sum + of(at), 0) / places.length;
  return nearestEdge({ x: mean((at) => at.x), y: mean((at) => at.y), w: 0, h: 0 }, part.box);
}

/** Something that stands open, as it is drawn beside the device. */
export interface Standing {
  readonly part: string;
  /** where it stays down, as it is seen */
  readonly edge: Edge;
  /** its outline, the near side as long as its own, the far one a little shorter */
  readonly ring: Ring;
  /** each flex or wire that still ties it, from its place in the device to the near side */
  readonly tethers: readonly (readonly Point[])[];
}

/** How much shorter the far side is drawn, of its length: it stands up from the page. */
const FAR_SHORTER = 0.07;

export function standingIn(
  map: DeviceMap,
  side: Side,
  { part: id, tethers }: { readonly part: string; readonly tethers: readonly string[] },
  edge: Edge,
  room: Box,
): Standing {
  const own = boxOn(map, side, partById(map, id)!.box);
  const isBeside = edge === 'left' || edge === 'right';
  // as long as it is, where nothing else stands at that edge
  const [from, to] = isBeside
    ? fitted(own.y, own.y + own.h, room.y, room.y + room.h)
    : fitted(own.x, own.x + own.w, room.x, room.x + room.w);
  const near = { left: room.x + room.w, right: room.x, top: room.y + room.h, bottom: room.y }[edge];
  const deep =
    Math.min(isBeside ? room.w : room.h, isBeside ? own.w : own.h) * (edge === 'left' || edge === 'top' ? -1 : 1);
  const inset = (to - from) * FAR_SHORTER;
  const flat: Ring = [
    [near, from],
    [near, to],
    [near + deep, to - inset],
    [near + deep, from + inset],
  ];
  const lines = tethers.flatMap((tether) => {
    const at = placeOf(map, tether);
    if (!at) return [];
    const start = { x: onSide(map, side, at.x), y: at.y };
    const along = isBeside ? start.y : start.x;
    const end = Math.min(to - 2, Math.max(from + 2, along));
    return [[start, isBeside ? { x: near, y: end } : { x: end, y: near }]];
  });
  return {
    part: id,
    edge,
    ring: isBeside ? flat : flat.map(([across, along]) => [along, across] as const),
    tethers: lines,
  };
}

function fitted(from: number, to: number, least: number, most: number): readonly [number, number] {
  const isRoom = from >= least && to <= most;
  return isRoom ? [from, to] : [least, Math.min(most, least + (to - from))];
}

/** The staying edge as it is seen on a side. */
export function seenAt(map: DeviceMap, side: Side, id: string, tethers: readonly string[]): Edge {
  return seenEdge(stayingEdge(map, id, tethers) ?? 'right', side);
}
