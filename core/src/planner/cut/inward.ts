import type { BondSegment, DeviceMap } from '../../model/device-map/index.ts';

/** How an edge lies on its device, and the way from it to the middle; a unit vector along x or y. */
export interface Lie {
  readonly runs: 'along' | 'across';
  readonly inward: { readonly x: -1 | 0 | 1; readonly y: -1 | 0 | 1 };
}

/** Taken by where the middle of the edge is; the device seen from the front, or mirrored with its segment. */
export function lieOf({ from, to }: Pick<BondSegment, 'from' | 'to'>, { width, height }: DeviceMap['outline']): Lie {
  const [x, y] = [(from.x + to.x) / 2, (from.y + to.y) / 2];
  return Math.abs(to.y - from.y) > Math.abs(to.x - from.x)
    ? { runs: 'along', inward: { x: x < width / 2 ? 1 : -1, y: 0 } }
    : { runs: 'across', inward: { x: 0, y: y < height / 2 ? 1 : -1 } };
}
