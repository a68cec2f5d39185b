import { countdown } from '../../planner/words/index.ts';
import type { JobState } from './job-state.ts';

/** A wait that was ended before its time. */
export interface CutShort {
  /** the event that ended it */
  readonly event: string;
  readonly step: string;
  readonly waited_s: number;
  readonly of_s: number;
}

/** A hand that is a moment early cuts nothing short (guess). */
const EARLY_S = 3;

/** Waits that were ended before their time, of each step the last. What was waited for in full since then is none. */
export function cutShort({ inForce }: Pick<JobState, 'inForce'>): CutShort[] {
  const running = new Map<string, { readonly at: number; readonly seconds: number }>();
  const short = new Map<string, CutShort>();
  for (const event of inForce) {
    const at = Date.parse(event.at);
    if (event.type === 'timer') running.set(event.data.step, { at, seconds: event.data.seconds });
    if (event.type !== 'did') continue;
    for (const { id } of event.data.steps) {
      const timer = running.get(id);
      if (!timer) continue;
      running.delete(id);
      short.delete(id);
      const waited_s = Math.max(0, (at - timer.at) / 1000);
      if (waited_s < timer.seconds - EARLY_S)
        short.set(id, { event: event.id, step: id, waited_s, of_s: timer.seconds });
    }
  }
  return [...short.values()];
}

/** *0:40 of 2:00* */
export function shortWords({ waited_s, of_s }: CutShort): string {
  return `${countdown(Math.floor(waited_s))} of ${countdown(of_s)}`;
}
