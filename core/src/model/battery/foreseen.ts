/** What a meter, or a person, read. */
export interface ChargeReading {
  /** seconds on any clock */
  readonly at_s: number;
  /** 0 to 1 */
  readonly charge: number;
}

/** Readings older than this before the last one say little about how fast it falls now. */
const WINDOW_S = 900;

/**
 * Seconds from the last reading until the charge is at the target, by the straight line through the readings (least
 * squares); null where they do not tell: fewer than two, no time between them, or the charge does not fall.
 */
export function foreseen(readings: readonly ChargeReading[], target: number): number | null {
  const last = readings.at(-1);
  if (!last) return null;
  if (last.charge <= target) return 0;
  const recent = readings.filter((each) => last.at_s - each.at_s <= WINDOW_S && each.at_s <= last.at_s);
  if (recent.length < 2) return null;
  const mean = (of: (each: ChargeReading) => number) => recent.reduce((sum, each) => sum + of(each), 0) / recent.length;
  const [t, c] = [mean((each) => each.at_s), mean((each) => each.charge)];
  const spread = recent.reduce((sum, each) => sum + (each.at_s - t) ** 2, 0);
  if (spread === 0) return null;
  const slope = recent.reduce((sum, each) => sum + (each.at_s - t) * (each.charge - c), 0) / spread;
  if (!(slope < 0)) return null;
  const now = c + slope * (last.at_s - t);
  return Math.max(0, (target - now) / slope);
}
