/** Something that can be looked at again: what that costs, and the chance that it is the fault. */
export interface Look {
  readonly cost_s: number;
  readonly p: number;
}

/**
 * The order in which suspects are looked at again, so that the time until the fault is found is least to be expected: by the cost
 * of each for its chance, the cheapest chance first. Exact where one of them is at fault and every look is its own (an exchange
 * of two neighbours that stand otherwise never gains; Smith's rule of 1956, from memory).
 */
export function searchOrder<T extends Look>(looks: readonly T[]): T[] {
  const rate = ({ cost_s, p }: Look) => (p > 0 ? cost_s / p : Number.POSITIVE_INFINITY);
  return looks.toSorted((a, b) => compared(rate(a), rate(b)) || b.p - a.p);
}

function compared(a: number, b: number): number {
  return a === b ? 0 : a < b ? -1 : 1;
}

/** Seconds to be expected until the fault is found in this order. */
export function expectedSeconds(looks: readonly Look[]): number {
  let spent = 0;
  return looks.reduce((sum, { cost_s, p }) => {
    spent += cost_s;
    return sum + p * spent;
  }, 0);
}
