import type { BondJoint } from '../../model/device-map/index.ts';

/** A strip of tape to be cut. */
export interface Strip {
  readonly id: string;
  readonly length_mm: number;
}

/** An edge that tape is laid along, with the gaps that it had: for a microphone, a vent, a hook. */
export interface TapedEdge extends Strip {
  readonly gaps?: readonly { readonly from_mm: number; readonly to_mm: number }[];
}

/** The strips between the gaps of an edge, each by the edge's id and, where there are several, its turn: *left 2*. */
export function stripsOf({ id, length_mm, gaps = [] }: TapedEdge): Strip[] {
  const ordered = gaps.toSorted((a, b) => a.from_mm - b.from_mm);
  const runs: number[] = [];
  let at = 0;
  for (const { from_mm, to_mm } of ordered) {
    runs.push(from_mm - at);
    at = Math.max(at, to_mm);
  }
  runs.push(length_mm - at);
  const left = runs.filter((run) => run > 0);
  return left.map((run, index) => ({ id: left.length > 1 ? `${id} ${index + 1}` : id, length_mm: run }));
}

/** The strips of a bond as its map draws it: a segment each, so that what lies between them stays a gap. */
export function stripsOfBond({ segments = [] }: BondJoint): Strip[] {
  return segments
    .map(({ id, from, to }) => ({ id, length_mm: Math.ceil(Math.hypot(to.x - from.x, to.y - from.y)) }))
    .filter(({ length_mm }) => length_mm > 0);
}

/** Volume of a bead of liquid adhesive along a bond, in microlitres (mm³): a round of this diameter. */
export function beadVolume_uL(length_mm: number, diameter_mm: number): number {
  return (length_mm * Math.PI * diameter_mm ** 2) / 4;
}
