import type { JobLine, JobStanding, StoppedBefore } from '@nibrel/core/api';
import type { Mechanism } from '@nibrel/core/holds';
import { type BenchUse, benchUses, mayGoFrom, type Job, type JobState } from '@nibrel/core/job';
import { counts } from '@nibrel/core/screws';

export function standingOf(mechanism: Mechanism, state: JobState): JobStanding {
  const { handedOver } = state;
  return {
    status: statusOf(state),
    stopped: state.stopped,
    stops: state.stops,
    ended: state.ended,
    finishedAt: state.finished,
    mayGoFrom: state.finished ? mayGoFrom(mechanism, state) : null,
    handedOver: handedOver && { to: handedOver.to, at: handedOver.at },
    lastAt: state.events.at(-1)?.at ?? null,
    screws: counts(state.ledger),
    revision: state.events.length,
  };
}

/** A job of which nothing can be told but that it is there. */
export function unreadable(reason: string, revision: number): JobStanding {
  return {
    status: 'unreadable',
    stopped: null,
    stops: [],
    ended: null,
    finishedAt: null,
    mayGoFrom: null,
    handedOver: null,
    lastAt: null,
    screws: { out: 0, onMat: 0, back: 0, lost: 0 },
    revision,
    unreadable: reason,
  };
}

function statusOf(state: JobState): JobStanding['status'] {
  if (state.ended) return 'ended';
  if (state.finished) return 'finished';
  if (state.stopped) return 'stopped';
  if (state.paused) return 'paused';
  return state.events.length > 0 ? 'under-way' : 'new';
}

export function jobLine(job: Job, standing: JobStanding, before: StoppedBefore | null): Omit<JobLine, 'next'> {
  return { ...job, ...standing, mapRevision: job.revision, before };
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
