import type { ScrewJoint, ScrewPoint } from '../../model/device-map/index.ts';

/**
 * The order in which the screws of a joint are tightened: as the map numbers them, and the rest crosswise. Crosswise, here: the
 * first is the one farthest from the middle of them all; each next one is the one that brings the middle of those that are down
 * nearest to the middle of all, so that what is clamped is never drawn to one side; among equals the one farthest from the last,
 * then the upper, then the left one. Their order in the map means nothing.
 */
export function tighteningOrder({ points }: Pick<ScrewJoint, 'points'>): ScrewPoint[] {
  const numbered = points
    .filter(({ order }) => order !== undefined)
    .toSorted((a, b) => a.order! - b.order! || byPlace(a, b));
  const rest = points.filter(({ order }) => order === undefined);
  return [...numbered, ...crosswise(rest, points, numbered)];
}

function crosswise(free: readonly ScrewPoint[], all: readonly ScrewPoint[], down: readonly ScrewPoint[]): ScrewPoint[] {
  const middle = middleOf(all);
  const left = [...free];
  const done = [...down];
  const order: ScrewPoint[] = [];
  while (left.length > 0) {
    const last = done.at(-1);
    const next = left.toSorted(
      (a, b) =>
        compared(pull(done, a, middle), pull(done, b, middle)) ||
        compared(-away(a, last ?? middle), -away(b, last ?? middle)) ||
        byPlace(a, b),
    )[0]!;
    left.splice(left.indexOf(next), 1);
    order.push(next);
    done.push(next);
  }
  return order;
}

/** How far the middle of those that are down would be from the middle of all; of the first screw it says nothing. */
function pull(done: readonly ScrewPoint[], next: ScrewPoint, middle: Place): number {
  return done.length === 0 ? 0 : away(middleOf([...done, next]), middle);
}

interface Place {
  readonly x: number;
  readonly y: number;
}

function middleOf(places: readonly Place[]): Place {
  const sum = places.reduce((all, { x, y }) => ({ x: all.x + x, y: all.y + y }), { x: 0, y: 0 });
  return { x: sum.x / places.length, y: sum.y / places.length };
}

function away(a: Place, b: Place): number {
  return Math.hypot(a.x - b.x, a.y - b.y);
}

/** Places that differ by less than a hair are the same: sums of decimals are never quite. */
function compared(a: number, b: number): number {
  return Math.abs(a - b) < 1e-6 ? 0 : a - b;
}

function byPlace(a: ScrewPoint, b: ScrewPoint): number {
  return a.y - b.y || a.x - b.x || (a.id < b.id ? -1 : 1);
}
