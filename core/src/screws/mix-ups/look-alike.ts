import type { Fastener } from '../../model/device-map/index.ts';
import type { Limits } from '../../model/limits/index.ts';

/** What a person tells apart: the scatter of a judged length and of a judged head, mm. */
export type Tells = Pick<Limits, 'tellLength_mm' | 'tellHead_mm'>;

/** A caliper's, for whoever measures each screw (common practice). */
export const BY_CALIPER: Tells = { tellLength_mm: 0.05, tellHead_mm: 0.05 };

/** So often a bit that does not fit is not noticed before it is driven (guess). */
const WRONG_BIT = 0.02;
/** Another colour is seen as easily as a length that differs by so many scatters (guess). */
const COLOUR_APART = 2;

/**
 * The chance that one of two kinds that lie together is taken for the other, 0 to ½. Length and head are each judged with a
 * normal scatter; they are told apart where the judged difference comes out on the right side: Φ(−D/√2), where D is the
 * difference in scatters, both features together. Alike in all, it is a coin that is tossed.
 */
export function takenFor(
  a: Pick<Fastener, 'drive' | 'length' | 'head' | 'colour'>,
  b: Pick<Fastener, 'drive' | 'length' | 'head' | 'colour'>,
  { tellLength_mm, tellHead_mm }: Tells,
): number {
  const apart = Math.hypot(
    (a.length - b.length) / tellLength_mm,
    (a.head - b.head) / tellHead_mm,
    (a.colour ?? '') === (b.colour ?? '') ? 0 : COLOUR_APART,
  );
  return normalBelow(-apart / Math.SQRT2) * (a.drive === b.drive ? 1 : WRONG_BIT);
}

/** Φ, by Abramowitz & Stegun 7.1.26 (within 1.5e-7; from memory). */
function normalBelow(z: number): number {
  const x = Math.abs(z) / Math.SQRT2;
  const t = 1 / (1 + 0.3275911 * x);
  const poly = t * (0.254829592 + t * (-0.284496736 + t * (1.421413741 + t * (-1.453152027 + t * 1.061405429))));
  const tail = 0.5 * poly * Math.exp(-x * x);
  return z < 0 ? tail : 1 - tail;
}
