import type { BondSegment } from '../../model/device-map/index.ts';
import type { Policy } from '../../model/policy/index.ts';

type Zone = BondSegment['zone'];

/** What is warmed first, then the other, where a bond is warmed in two halves that the map does not name. */
const HALVES = ['first half', 'second half'] as const;
const STARTING_EDGE = 'starting edge';

/**
 * The zones of a cut, one for each of its edges in their turn, after how much of the bond is warmed at once. Halves are
 * the map's own zones where it has two, else halves of the way round. Only the starting edge is a zone of its own: what
 * comes after it is pulled open along the seam, without heat of its own.
 */
export function zonesAlong(
  order: readonly Pick<BondSegment, 'from' | 'to' | 'zone'>[],
  warm: Policy['warm'],
): readonly Zone[] {
  switch (warm) {
    case 'as-mapped':
      return order.map(({ zone }) => zone);
    case 'all-round':
      return order.map(() => undefined);
    case 'start-edge':
      return order.map((_, index) => (index === 0 ? STARTING_EDGE : undefined));
    case 'halves':
      return new Set(order.map(({ zone }) => zone)).size === HALVES.length
        ? order.map(({ zone }) => zone)
        : halvesOf(order.map(length_mm));
  }
}

/** An edge belongs to the half in which its middle lies; the last one always to the second. */
function halvesOf(lengths: readonly number[]): Zone[] {
  const half = lengths.reduce((sum, each) => sum + each, 0) / 2;
  let way = 0;
  return lengths.map((own, index) => {
    const middle = way + own / 2;
    way += own;
    const isFirst = index === 0 || (middle < half && index < lengths.length - 1);
    return isFirst ? HALVES[0] : HALVES[1];
  });
}

/** A segment without a zone of its own, or with one that a way of warming gives it. */
export function withZone({ zone: _own, ...segment }: BondSegment, zone?: Zone): BondSegment {
  return zone === undefined ? segment : { ...segment, zone };
}

export function length_mm({ from, to }: Pick<BondSegment, 'from' | 'to'>): number {
  return Math.hypot(from.x - to.x, from.y - to.y);
}
