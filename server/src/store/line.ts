import { type BenchUse, benchUses, type Job, type JobState, type Stop } from '@nibrel/core/job';
import { counts, type Counts } from '@nibrel/core/screws';

/** Where a job stands, as its events tell: what lists show of it. */
export interface Standing {
  readonly status: 'new' | 'under-way' | 'paused' | 'stopped' | 'finished' | 'ended' | 'unreadable';
  readonly stopped: Stop | null;
  readonly stops: readonly Stop[];
  readonly ended: JobState['ended'];
  readonly finishedAt: string | null;
  readonly lastAt: string | null;
  readonly screws: Counts;
  /** how many events it has */
  readonly revision: number;
  /** why it can't be read, where it can't */
  readonly unreadable?: string;
}

export function standingOf(state: JobState): Standing {
  return {
    status: statusOf(state),
    stopped: state.stopped,
    stops: state.stops,
    ended: state.ended,
    finishedAt: state.finished,
    lastAt: state.events.at(-1)?.at ?? null,
    screws: counts(state.ledger),
    revision: state.events.length,
  };
}

/** A job of which nothing can be told but that it is there. */
export function unreadable(reason: string, revision: number): Standing {
  return {
    status: 'unreadable',
    stopped: null,
    stops: [],
    ended: null,
    finishedAt: null,
    lastAt: null,
    screws: { out: 0, onMat: 0, back: 0, lost: 0 },
    revision,
    unreadable: reason,
  };
}

function statusOf(state: JobState): Standing['status'] {
  if (state.ended) return 'ended';
  if (state.finished) return 'finished';
  if (state.stopped) return 'stopped';
  if (state.paused) return 'paused';
  return state.events.length > 0 ? 'under-way' : 'new';
}

/** A job as it is answered: what it was taken in as, and where it stands. */
export type JobLine = Omit<Job, 'revision'> &
  Standing & { readonly mapRevision: number; readonly before: Before | null };

/** The last repair of the same device, where it was stopped. */
export interface Before {
  readonly job: string;
  readonly title: string;
  readonly reason: string;
  readonly text: string;
  readonly at: string;
  /** by whom it was cleared, or null: it ended stopped, or still is */
  readonly clearedBy: string | null;
}

export function jobLine(job: Job, standing: Standing, before: Before | null): JobLine {
  return { ...job, ...standing, mapRevision: job.revision, before };
}

/** What other repairs at the same benches have to know; nothing where there is nothing. */
export function usesOf(state: JobState): readonly (readonly [string, BenchUse])[] {
  return [...benchUses(state)];
}

/** The last stop of a job, whether it holds or was cleared. */
export function lastStopOf(state: JobState): Omit<Before, 'job' | 'title'> | null {
  const holds = state.stops.at(-1);
  const cleared = state.cleared.at(-1);
  const last = holds ?? cleared;
  if (!last) return null;
  const { reason, text, at } = last;
  return { reason, text, at, clearedBy: holds ? null : cleared!.clearedBy };
}
