import type { JobState } from '../../job/state/index.ts';
import type { Wait } from '../question/index.ts';

/** A clock that runs beside a question, whose main answer stays; null where none does. */
export function waitLeftOfClock({ timers }: JobState, step: string, now: number): Wait | null {
  const timer = timers.find((each) => each.step === step);
  if (!timer) return null;
  const left_s = timer.seconds - (now - Date.parse(timer.startedAt)) / 1000;
  const share = Math.min(1, Math.max(0, 1 - left_s / Math.max(1, timer.seconds)));
  return { label: left_s > 0 ? 'By the clock' : 'Time is up: read it again', left_s: Math.max(0, left_s), share };
}
