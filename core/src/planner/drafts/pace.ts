import type { BondJoint } from '../../model/device-map/index.ts';

/** A bond that is wider than this is cut slower, in proportion (guess). */
const WIDE_mm = 2;

/** How much longer a pick takes along a bond than along a thin one. */
export function cutPace({ width }: Pick<BondJoint, 'width'>): number {
  return Math.max(1, (width ?? 0) / WIDE_mm);
}
