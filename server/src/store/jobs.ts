import {
  type BenchEvent,
  EVENT_DATA,
  eventEnvelope,
  type EventType,
  type Job,
  type JobState,
  newJob,
  withEvent,
} from '@nibrel/core/bench';
import { type Mechanism, mechanismOf } from '@nibrel/core/holds';
import { asc, desc, eq, sql } from 'drizzle-orm';
import type { Db } from './database.ts';
import type { DeviceMaps } from './device-maps.ts';
import { events, jobs } from './schema.ts';

export interface Appended {
  readonly accepted: string[];
  readonly duplicate: string[];
  readonly rejected: { readonly id: string; readonly problem: string }[];
  readonly revision: number;
}

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
  readonly #live = new Map<string, Live>();
  readonly #knownEvent;
  readonly #insertEvent;

  constructor(db: Db, maps: DeviceMaps) {
    this.#db = db;
    this.#maps = maps;
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
      .values({ ...job, targets: JSON.stringify(job.targets), policy: JSON.stringify(job.policy) })
      .run();
  }

  /** The job folded to now. */
  state(job: Job): JobState {
    return this.#folded(job).state;
  }

  eventsOf(id: string): BenchEvent[] {
    return this.#db.select().from(events).where(eq(events.job, id)).orderBy(asc(events.seq)).all().map(eventOf);
  }

  /**
   * Takes what can be taken, in order, in one transaction that is on the disk when this returns. What is known already
   * changes nothing; what can't be taken is said with its reason and keeps nothing else from being taken.
   */
  append(job: Job, incoming: readonly unknown[], now: string): Appended {
    const live = this.#folded(job);
    const before = live.state;
    const accepted: string[] = [];
    const duplicate: string[] = [];
    const rejected: Appended['rejected'] = [];
    try {
      this.#db.$client.transaction(() => {
        for (const each of incoming) {
          const checked = checkedEvent(each);
          if ('problem' in checked) {
            rejected.push(checked);
            continue;
          }
          const { event } = checked;
          const known = this.#knownEvent.get({ id: event.id });
          if (known) {
            if (known.job === job.id && sameContent(eventOf(known), event)) duplicate.push(event.id);
            else rejected.push({ id: event.id, problem: 'This id is taken by an event with other content.' });
            continue;
          }
          const outcome = withEvent(live.mechanism, live.state, event);
          if ('problem' in outcome) {
            rejected.push({ id: event.id, problem: outcome.problem });
            continue;
          }
          live.state = outcome.state;
          this.#insertEvent.run({ ...event, job: job.id, data: JSON.stringify(event.data), receivedAt: now });
          accepted.push(event.id);
        }
      })();
    } catch (error) {
      live.state = before;
      throw error;
    }
    return { accepted, duplicate, rejected, revision: live.state.events.length };
  }

  #folded(job: Job): Live {
    const known = this.#live.get(job.id);
    if (known) return known;
    const stored = this.#maps.find(job.map, job.revision);
    if (!stored) throw new Error(`Job ${job.id} has lost revision ${job.revision} of map ${job.map}.`);
    const mechanism = mechanismOf(stored.map);
    let state = newJob(mechanism, job);
    for (const event of this.eventsOf(job.id)) {
      const outcome = withEvent(mechanism, state, event);
      // accepted once is accepted for good, also where a later version would refuse it: it is kept in the record
      state = 'state' in outcome ? outcome.state : { ...state, events: [...state.events, event] };
    }
    const live = { mechanism, state };
    if (this.#live.size >= MOST_LIVE) this.#live.delete(this.#live.keys().next().value!);
    this.#live.set(job.id, live);
    return live;
  }
}

function checkedEvent(value: unknown): { event: BenchEvent } | { id: string; problem: string } {
  const id = givenId(value);
  const envelope = eventEnvelope.validate(value, { convert: false });
  if (envelope.error) return { id, problem: envelope.error.message };
  const event = value as BenchEvent;
  if (!Object.hasOwn(EVENT_DATA, event.type)) return { id, problem: `There is no event type "${event.type}".` };
  const data = EVENT_DATA[event.type as EventType].validate(event.data, { convert: false });
  return data.error ? { id, problem: `data: ${data.error.message}` } : { event };
}

function givenId(value: unknown): string {
  const id = typeof value === 'object' && value !== null && 'id' in value ? value.id : null;
  return typeof id === 'string' ? id.slice(0, 100) : '';
}

function sameContent(a: BenchEvent, b: BenchEvent): boolean {
  return canonical(a) === canonical(b);
}

/** The same text for the same content, whatever the order of its keys. */
function canonical(value: unknown): string {
  return JSON.stringify(value, (_, inner: unknown) =>
    inner && typeof inner === 'object' && !Array.isArray(inner)
      ? Object.fromEntries(Object.entries(inner).toSorted(([a], [b]) => (a < b ? -1 : 1)))
      : inner,
  );
}

function eventOf(row: typeof events.$inferSelect): BenchEvent {
  const { id, type, at, by } = row;
  return { id, type, at, by, data: JSON.parse(row.data) } as BenchEvent;
}

function jobOf(row: typeof jobs.$inferSelect): Job {
  const { owner, serial, colour, ...rest } = row;
  return {
    ...rest,
    targets: JSON.parse(row.targets),
    policy: JSON.parse(row.policy),
    ...(owner === null ? {} : { owner }),
    ...(serial === null ? {} : { serial }),
    ...(colour === null ? {} : { colour }),
  };
}
