import type { Heating } from '@nibrel/core/job';

/** Seconds since the source was put on, by its own clock: a stand-in's may run faster. The page's may tick a little behind. */
export function elapsedOf({ startedAt, pace = 1 }: Pick<Heating, 'startedAt' | 'pace'>, now: number): number {
  return (Math.max(0, now - Date.parse(startedAt)) / 1000) * pace;
}

/** The same at this very moment, for what is written down. */
export function elapsedNow(heating: Pick<Heating, 'startedAt' | 'pace'>): number {
  return elapsedOf(heating, Date.now());
}
