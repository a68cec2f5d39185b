import { type Job, targetSchema } from '../job/events/index.ts';
import { type JobState, type Stop } from '../job/state/index.ts';
import { limitsSchema } from '../model/limits/index.ts';
import { policySchema } from '../model/policy/index.ts';
import type { Counts } from '../screws/screws/index.ts';
import { count, figure, listOf, moment, oneOf, shape, text } from './shape.ts';

const id = text.min(1);

/** Where a job stands, as its events tell: what lists show of it. */
export interface JobSummary {
  readonly status: 'new' | 'under-way' | 'paused' | 'stopped' | 'finished' | 'ended' | 'unreadable';
  /** the first of the stops */
  readonly stopped: Stop | null;
  /** so many of them are told here; all are in its events */
  readonly stops: readonly Stop[];
  readonly stopCount: number;
  readonly ended: JobState['ended'];
  readonly finishedAt: string | null;
  /** what was glued or locked in it is strong enough from then on; null where nothing cures */
  readonly mayGoFrom: string | null;
  readonly handedOver: { readonly to: string; readonly at: string } | null;
  readonly lastAt: string | null;
  readonly screws: Counts;
  /** how many events it has */
  readonly revision: number;
  /** why it can't be read, where it can't */
  readonly unreadable?: string;
}

/** The last repair of the same device, where it was stopped. */
export interface StoppedBefore {
  readonly job: string;
  readonly title: string;
  readonly reason: string;
  readonly text: string;
  readonly at: string;
  /** by whom it was cleared, or null: it ended stopped, or still is */
  readonly clearedBy: string | null;
}

/** What comes next in a job, for lists. */
export interface NextInJob {
  /** the operation in hand; null where nothing is left but to finish, or where there is no plan */
  readonly op: string | null;
  readonly title: string;
  readonly handsOn_s: number;
  readonly waiting_s: number;
}

/** A job as it is answered: what it was taken in as, and where it stands. */
export type JobLine = Omit<Job, 'revision'> &
  JobSummary & {
    readonly mapRevision: number;
    readonly before: StoppedBefore | null;
    /** null until a thread has found it out */
    readonly next: NextInJob | null;
  };

const read = shape<NonNullable<Stop['read']>>({ what: text, temp_C: figure, max_C: figure });
const stop = shape<Stop>({ id, reason: text, text, at: moment, by: text }, { read });
const before = shape<StoppedBefore>({
  job: id,
  title: text,
  reason: text,
  text,
  at: moment,
  clearedBy: text.allow(null),
});
const next = shape<NextInJob>({ op: text.allow(null), title: text, handsOn_s: figure, waiting_s: figure });
const ended = shape<NonNullable<JobState['ended']>>({ text, lead: text, at: moment });

export const jobLine = shape<JobLine>(
  {
    id,
    map: id,
    mapRevision: count,
    targets: listOf(targetSchema),
    policy: policySchema,
    title: text,
    createdAt: moment,
    status: oneOf('new', 'under-way', 'paused', 'stopped', 'finished', 'ended', 'unreadable'),
    stopped: stop.allow(null),
    stops: listOf(stop),
    stopCount: count,
    ended: ended.allow(null),
    finishedAt: moment.allow(null),
    mayGoFrom: moment.allow(null),
    handedOver: shape<NonNullable<JobSummary['handedOver']>>({ to: text, at: moment }).allow(null),
    lastAt: moment.allow(null),
    screws: shape<Counts>({ out: count, onMat: count, back: count, lost: count }),
    revision: count,
    before: before.allow(null),
    next: next.allow(null),
  },
  { owner: text, serial: text, colour: text, by: text, limits: limitsSchema, unreadable: text },
);
export const jobList = shape<{ readonly jobs: readonly JobLine[] }>({ jobs: listOf(jobLine) });
