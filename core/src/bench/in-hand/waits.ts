import type { Op } from '../../planner/drafts/index.ts';
import { airingLeft_s, benchUses, dropsOf, type JobState } from '../../job/state/index.ts';

/** Is the bench of this repair aired now? Then no clock is asked: the air is clear so long after the last drops. */
export function isAiring({ opening }: JobState, op: Op | undefined): boolean {
  return op?.name === 'vent' && dropsOf(opening) > 0;
}

/** Seconds until the wait of the operation in hand is over, none or fewer where it is; null where nobody waits. */
export function waitLeft_s(state: JobState, op: Op | undefined, now: number): number | null {
  if (isAiring(state, op)) {
    return Math.max(0, ...[...benchUses(state).values()].map((use) => airingLeft_s(use, state.limits, now)));
  }
  const timer = state.timers.find((each) => each.step === op?.id);
  return timer ? timer.seconds - (now - Date.parse(timer.startedAt)) / 1000 : null;
}

/** Does anything run down that has to be seen running? */
export function isWatched({ timers, opening }: JobState, now: number): boolean {
  const justWarm = opening.warmed.some(({ offAt }) => now - Date.parse(offAt) < WATCHED_MS);
  return timers.length > 0 || opening.solvent.size > 0 || opening.heating !== null || justWarm;
}

/** A device that was warmed is shown cooling for so long (guess). */
const WATCHED_MS = 15 * 60_000;
