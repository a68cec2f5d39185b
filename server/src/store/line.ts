import type { JobLine, JobSummary, StoppedBefore } from '@nibrel/core/api';
import type { Mechanism } from '@nibrel/core/planner/holds';
import { type BenchUse, benchUses, mayGoFrom, type JobState } from '@nibrel/core/job/state';
import { counts } from '@nibrel/core/screws/screws';
import type { KeptJob } from './folded.ts';

/** A line tells so many stops; what holds a repair is told whole in its events. */
const MOST_STOPS = 50;

/** @param unreadable why it can't be read, where it can't */
export function summaryOf(mechanism: Mechanism, state: JobState, unreadable: string | null): JobSummary {
  const { handedOver } = state;
  return {
    status: unreadable !== null && !state.ended ? 'unreadable' : statusOf(state),
    stopped: state.stopped,
    stops: state.stops.slice(0, MOST_STOPS),
    stopCount: state.stops.length,
    ended: state.ended,
    finishedAt: state.finished,
    mayGoFrom: state.finished ? mayGoFrom(mechanism, state) : null,
    handedOver: handedOver && { to: handedOver.to, at: handedOver.at },
    lastAt: state.events.at(-1)?.at ?? null,
    screws: counts(state.ledger),
    revision: state.events.length,
    ...(unreadable === null ? {} : { unreadable }),
  };
}

function statusOf(state: JobState): JobSummary['status'] {
  if (state.ended) return 'ended';
  if (state.finished) return 'finished';
  if (state.stopped) return 'stopped';
  if (state.paused) return 'paused';
  return state.events.length > 0 ? 'under-way' : 'new';
}

export function jobLine(job: KeptJob, summary: JobSummary, before: StoppedBefore | null): Omit<JobLine, 'next'> {
  return { ...job, ...summary, mapRevision: job.revision, before };
}

/** What other repairs at the same benches have to know; nothing where there is nothing. */
export function usesOf(state: JobState): readonly (readonly [string, BenchUse])[] {
  return [...benchUses(state)];
}

/** The last stop of a job, whether it holds or was cleared. */
export function lastStopOf(state: JobState): Omit<StoppedBefore, 'job' | 'title'> | null {
  const holds = state.stops.at(-1);
  const cleared = state.cleared.at(-1);
  const last = holds ?? cleared;
  if (!last) return null;
  const { reason, text, at } = last;
  return { reason, text, at, clearedBy: holds ? null : cleared!.clearedBy };
}
