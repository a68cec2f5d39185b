import type { BondJoint } from '../../model/device-map/index.ts';
import type { Reach } from '../../model/sources/index.ts';

/** Where an open seam drags, with its spread, and how often that was told of this bond in this workshop. */
export interface Drag extends Reach {
  readonly from: number;
}

/** An open seam is cut on down to so much below softening, where neither map nor workshop says better (guess). */
const BELOW_C = 20;
/** The reach of what nobody has told yet, and the least that a few words leave, °C (guess). */
const SPREAD_C = 5;
const LEAST_SPREAD_C = 2;

/**
 * What a workshop has felt goes before what the map says: the mean of where it was told to drag, with the standard
 * deviation between them. Never above where the bond softens.
 * @param told °C, one for each time that it dragged
 */
export function dragsBelow(
  { dragBelow_C }: Pick<BondJoint, 'dragBelow_C'>,
  soften_C: number,
  told: readonly number[] = [],
): Drag {
  const from = told.length;
  const mean = told.reduce((sum, each) => sum + each, 0) / from;
  const likely = Math.min(soften_C, from > 0 ? mean : (dragBelow_C ?? soften_C - BELOW_C));
  const squares = told.reduce((sum, each) => sum + (each - mean) ** 2, 0);
  const spread = from > 1 ? Math.max(LEAST_SPREAD_C, Math.sqrt(squares / (from - 1))) : SPREAD_C;
  return { low: likely - spread, likely, high: Math.min(soften_C, likely + spread), from };
}
