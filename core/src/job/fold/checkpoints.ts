import type { JobState } from '../state/index.ts';

/**
 * Earlier states of a job, to fold on from when something is undone. Kept beside the states, which are plain values.
 */
const checkpoints = new WeakMap<JobState, readonly JobState[]>();

/** One state in so many is kept as events come in, and from a fold those so many events before its end. */
const EVERY = 32;
const BACK: ReadonlySet<number> = new Set([16, 128, 1024, 8192]);

/** The oldest first. */
export function checkpointsOf(state: JobState): readonly JobState[] {
  return checkpoints.get(state) ?? [];
}

export function withCheckpoints(state: JobState, earlier: readonly JobState[]): JobState {
  checkpoints.set(state, earlier);
  return state;
}

/** The state after one more event, with the checkpoints of the one before, and that itself where its turn has come. */
export function afterOneMore(before: JobState, state: JobState): JobState {
  const earlier = checkpointsOf(before);
  return withCheckpoints(state, state.inForce.length % EVERY === 0 ? thinned([...earlier, before]) : earlier);
}

/** In a fold: is the state with so many events to come kept? */
export function isCheckpoint(toCome: number): boolean {
  return BACK.has(toCome);
}

/**
 * Keeps fewer of them the farther back they are, so that a long job holds a few dozen states and not thousands: an
 * undo is nearly always of something recent.
 */
function thinned(all: readonly JobState[]): readonly JobState[] {
  const last = all.at(-1)!.inForce.length;
  const kept: JobState[] = [];
  let gap = 0;
  for (const each of all.toReversed()) {
    const back = last - each.inForce.length;
    if (kept.length > 0 && back < gap) continue;
    kept.push(each);
    gap = Math.max(back + EVERY, back * 1.25);
  }
  return kept.toReversed();
}
