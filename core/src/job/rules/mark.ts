import { type JobState, withKey } from '../state/index.ts';

/** Marks a step of the plan as done once more: its clock is over, and trouble that had added it is answered. */
export function withMark(state: JobState, step: string): JobState {
  return {
    ...state,
    steps: withKey(state.steps, step, (state.steps.get(step) ?? 0) + 1),
    added: withoutFirst(state.added, step),
    timers: withoutTimer(state, step),
  };
}

function withoutTimer({ timers }: JobState, step: string): JobState['timers'] {
  return timers.some((each) => each.step === step) ? timers.filter((each) => each.step !== step) : timers;
}

/**
 * Adds a clock. Only so many are kept: nobody waits for more at once, and the oldest is likeliest to have been
 * forgotten.
 */
export function withTimer(state: JobState, timer: JobState['timers'][number]): JobState['timers'] {
  return [...withoutTimer(state, timer.step), timer].slice(-MOST_TIMERS);
}

const MOST_TIMERS = 50;

function withoutFirst(added: JobState['added'], step: string): JobState['added'] {
  const index = added.findIndex((each) => each.step === step);
  return index < 0 ? added : added.toSpliced(index, 1);
}
