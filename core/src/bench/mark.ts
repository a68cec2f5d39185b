import type { JobState } from './state.ts';

/** Marks a step of the plan as done once more: its clock is over, and trouble that had added it is answered. */
export function withMark(state: JobState, step: string): JobState {
  return {
    ...state,
    steps: new Map(state.steps).set(step, (state.steps.get(step) ?? 0) + 1),
    added: withoutFirst(state.added, step),
    timers: withoutTimer(state, step),
  };
}

export function withoutTimer(state: JobState, step: string): JobState['timers'] {
  return state.timers.filter((each) => each.step !== step);
}

function withoutFirst(added: JobState['added'], step: string): JobState['added'] {
  const index = added.findIndex((each) => each.step === step);
  return index < 0 ? added : added.toSpliced(index, 1);
}
