/** An acrylic foam tape at room temperature (a data sheet, from memory): seconds, and the share of its strength. */
const STRENGTH = [
  [1200, 0.5],
  [86_400, 0.9],
  [259_200, 1],
] as const;

/** Read between the points on the logarithm of time; from nothing straight to the first of them. */
export function strengthAfter(dwell_s: number): number {
  const [first, ...rest] = STRENGTH;
  if (dwell_s <= first[0]) return (dwell_s / first[0]) * first[1];
  let [t0, s0]: readonly [number, number] = first;
  for (const [t1, s1] of rest) {
    if (dwell_s <= t1) return s0 + ((s1 - s0) * Math.log(dwell_s / t0)) / Math.log(t1 / t0);
    [t0, s0] = [t1, s1];
  }
  return 1;
}

/** Seconds until a tape has this share of its strength, 0 to 1: the same read the other way. */
export function secondsToStrength(share: number): number {
  const [first, ...rest] = STRENGTH;
  if (share <= first[1]) return (Math.max(0, share) / first[1]) * first[0];
  let [t0, s0]: readonly [number, number] = first;
  for (const [t1, s1] of rest) {
    if (share <= s1) return t0 * Math.exp((Math.log(t1 / t0) * (share - s0)) / (s1 - s0));
    [t0, s0] = [t1, s1];
  }
  return STRENGTH.at(-1)![0];
}
