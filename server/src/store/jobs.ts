import { type BenchEvent, EVENT_DATA, foldJob, type Job, type JobState, withEvent } from '@nibrel/core/bench';
import { type Mechanism, mechanismOf } from '@nibrel/core/holds';
import { usedIn } from '@nibrel/core/kit';
import type { Used } from '@nibrel/core/shop';
import { asc, desc, eq, sql } from 'drizzle-orm';
import { type Appended, appended } from './append.ts';
import type { Db } from './database.ts';
import type { DeviceMaps } from './device-maps.ts';
import type { Photos } from './photos.ts';
import { events, jobs } from './schema.ts';

interface Live {
  readonly mechanism: Mechanism;
  state: JobState;
}

/** Folded jobs kept at hand; the events on disk are the truth, this only saves folding them again. */
const MOST_LIVE = 50;

/** Repair jobs and their events. */
export class Jobs {
  readonly #db: Db;
  readonly #maps: DeviceMaps;
  readonly #photos: Photos;
  readonly #used = new Map<string, readonly Used[]>();
  readonly #live = new Map<string, Live>();
  readonly #knownEvent;
  readonly #insertEvent;

  constructor(db: Db, maps: DeviceMaps, photos: Photos) {
    this.#db = db;
    this.#maps = maps;
    this.#photos = photos;
    // written once, run for every event
    this.#knownEvent = db
      .select()
      .from(events)
      .where(eq(events.id, sql.placeholder('id')))
      .prepare();
    const columns = ['job', 'id', 'type', 'at', 'by', 'data', 'receivedAt'] as const;
    const values = Object.fromEntries(columns.map((column) => [column, sql.placeholder(column)]));
    this.#insertEvent = db
      .insert(events)
      .values(values as unknown as typeof events.$inferInsert)
      .prepare();
  }

  list(): Job[] {
    return this.#db.select().from(jobs).orderBy(desc(jobs.createdAt)).all().map(jobOf);
  }

  find(id: string): Job | null {
    const row = this.#db.select().from(jobs).where(eq(jobs.id, id)).get();
    return row ? jobOf(row) : null;
  }

  add(job: Job): void {
    this.#db
      .insert(jobs)
      .values({
        ...job,
        targets: JSON.stringify(job.targets),
        policy: JSON.stringify(job.policy),
        limits: job.limits ? JSON.stringify(job.limits) : null,
      })
      .run();
  }

  /** The job folded to now. */
  state(job: Job): JobState {
    return this.#folded(job).state;
  }

  /** What all jobs have used up. */
  used(): Used[] {
    return this.list().flatMap((job) => {
      const known = this.#used.get(job.id);
      if (known) return known;
      const { mechanism, state } = this.#folded(job);
      const used = usedIn(mechanism.map, state.standing);
      this.#used.set(job.id, used);
      return used;
    });
  }

  eventsOf(id: string): BenchEvent[] {
    return this.#db.select().from(events).where(eq(events.job, id)).orderBy(asc(events.seq)).all().map(eventOf);
  }

  /**
   * Takes what can be taken, in order, in one transaction that is on the disk when this returns.
   */
  append(job: Job, incoming: readonly unknown[], now: string): Appended {
    const live = this.#folded(job);
    const before = live.state;
    try {
      const told = this.#db.$client.transaction(() =>
        appended<BenchEvent>(incoming, {
          schemas: EVENT_DATA,
          known: (id) => {
            const row = this.#knownEvent.get({ id });
            if (!row) return null;
            return row.job === job.id ? eventOf(row) : 'elsewhere';
          },
          take: (event) => {
            if (this.#lacksPhoto(job, event)) return { problem: 'Send the photograph itself first, then this event.' };
            const outcome = withEvent(live.mechanism, live.state, event);
            if ('problem' in outcome) return outcome;
            live.state = outcome.state;
            return null;
          },
          insert: (event) => {
            this.#insertEvent.run({ ...event, job: job.id, data: JSON.stringify(event.data), receivedAt: now });
          },
        }),
      )();
      return { ...told, revision: live.state.events.length };
    } catch (error) {
      live.state = before;
      throw error;
    } finally {
      this.#used.delete(job.id);
    }
  }

  #lacksPhoto(job: Job, event: BenchEvent): boolean {
    if (event.type !== 'photo') return false;
    const { shown, thumb, original = shown } = event.data;
    return [shown, thumb, original].some((hash) => !this.#photos.has(job.id, hash));
  }

  #folded(job: Job): Live {
    const known = this.#live.get(job.id);
    if (known) return known;
    const stored = this.#maps.find(job.map, job.revision);
    if (!stored) throw new Error(`Job ${job.id} has lost revision ${job.revision} of map ${job.map}.`);
    const mechanism = mechanismOf(stored.map);
    const live = { mechanism, state: foldJob(mechanism, job, this.eventsOf(job.id)) };
    if (this.#live.size >= MOST_LIVE) this.#live.delete(this.#live.keys().next().value!);
    this.#live.set(job.id, live);
    return live;
  }
}

function eventOf(row: typeof events.$inferSelect): BenchEvent {
  const { id, type, at, by } = row;
  return { id, type, at, by, data: JSON.parse(row.data) } as BenchEvent;
}

function jobOf(row: typeof jobs.$inferSelect): Job {
  const { owner, serial, colour, limits, ...rest } = row;
  return {
    ...rest,
    targets: JSON.parse(row.targets),
    policy: JSON.parse(row.policy),
    ...(owner === null ? {} : { owner }),
    ...(serial === null ? {} : { serial }),
    ...(colour === null ? {} : { colour }),
    ...(limits === null ? {} : { limits: JSON.parse(limits) }),
  };
}
