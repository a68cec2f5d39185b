import type { OwnTime } from '../../planner/plan/index.ts';
import type { TimeSample } from './samples.ts';

/** So many of its own weigh as much as the guess (a guess itself). */
const WEIGHT = 5;
/** Farther from the middle than this, either way, is an outlier. */
const OUTLIER = 4;
/** The tenth and the ninetieth percent of what it took; of a guess, so much less and more of it. */
const [LOW, HIGH] = [0.1, 0.9];
const [GUESS_LOW, GUESS_HIGH] = [0.6, 1.8];

/**
 * A workshop's own times: for every kind of operation and type of joint the low, likely and high seconds, from its finished
 * work, drawn to the guess while there is little of it (on the scale of ratios).
 */
export function ownTimes(samples: readonly TimeSample[]): OwnTime[] {
  const byKind = new Map<string, TimeSample[]>();
  for (const sample of samples) {
    const key = [sample.kind, sample.type, sample.style, sample.each].join();
    byKind.set(key, [...(byKind.get(key) ?? []), sample]);
  }
  return [...byKind.values()].map((group) => timeOf(group)).toSorted((a, b) => (nameOf(a) < nameOf(b) ? -1 : 1));
}

function nameOf({ kind, type = '', style = '' }: OwnTime): string {
  return [kind, type, style].join();
}

function timeOf(group: readonly TimeSample[]): OwnTime {
  const ratios = group.map(({ seconds, guess }) => seconds / guess).toSorted((a, b) => a - b);
  const middle = quantile(ratios, 0.5);
  const kept = ratios.filter((each) => each <= middle * OUTLIER && each >= middle / OUTLIER);
  const guess = quantile(
    group.map((each) => each.guess).toSorted((a, b) => a - b),
    0.5,
  );
  const share = kept.length / (kept.length + WEIGHT);
  const drawn = (own: number, guessed: number) => tenths(guess * own ** share * guessed ** (1 - share));
  const { kind, type, style, each } = group[0]!;
  return {
    kind,
    ...(type === undefined ? {} : { type }),
    ...(style === undefined ? {} : { style }),
    ...(each ? { each } : {}),
    low: drawn(quantile(kept, LOW), GUESS_LOW),
    likely: drawn(quantile(kept, 0.5), 1),
    high: drawn(quantile(kept, HIGH), GUESS_HIGH),
    from: kept.length,
  };
}

/** Between the values on either side of it. @param sorted the smallest first */
function quantile(sorted: readonly number[], share: number): number {
  const at = (sorted.length - 1) * share;
  const [below, above] = [sorted[Math.floor(at)]!, sorted[Math.ceil(at)]!];
  return below + (above - below) * (at - Math.floor(at));
}

function tenths(value: number): number {
  return Math.max(0.1, Math.round(value * 10) / 10);
}
