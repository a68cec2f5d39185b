import type { JobsQuery } from '@nibrel/core/api';
import { setImmediate } from 'node:timers/promises';
import { asClosed, type BenchEvent, EVENT_DATA, type Job, type Surroundings, withEvent } from '@nibrel/core/job';
import { usedIn } from '@nibrel/core/kit';
import { samplesOf, type TimeSample } from '@nibrel/core/own-times';
import type { DeskPart } from '@nibrel/core/parts';
import { hasLead, roleOf, type Shop, type Used } from '@nibrel/core/shop';
import { desc, eq } from 'drizzle-orm';
import { Traffic } from '../http/traffic.ts';
import { type Appended, appendedInTurns } from './append.ts';
import { Benches } from './benches.ts';
import type { Db } from './database.ts';
import type { DeviceMaps } from './device-maps.ts';
import { eventOf, EventRows, type StoredEvent } from './event-rows.ts';
import { FoldedJobs, type Live, UnreadableJob } from './folded.ts';
import { jobLine, lastStopOf, standingOf, unreadable, usesOf } from './line.ts';
import { Lines } from './lines.ts';
import type { Photos } from './photos.ts';
import { jobs } from './schema.ts';

/** What is known of a call beside its events: their shapes checked before, and who is signed in. */
interface Call {
  readonly checked?: readonly (string | null)[] | undefined;
  readonly signedIn?: string | null;
}

/** Repair jobs and their events. Lists come from the lines kept beside them; only a job that is asked for is folded. */
export class Jobs {
  readonly lines: Lines;
  readonly benches = new Benches();
  readonly #db: Db;
  readonly #photos: Photos;
  readonly #rows: EventRows;
  readonly #folded: FoldedJobs;
  readonly #shop: () => Shop;
  readonly #turns = new Map<string, Promise<unknown>>();
  readonly #told: (job: string, revision: number) => void;
  readonly #traffic: Traffic;

  constructor(
    db: Db,
    maps: DeviceMaps,
    photos: Photos,
    shop: () => Shop,
    told: (job: string, revision: number) => void = () => undefined,
    traffic = new Traffic(),
  ) {
    this.#traffic = traffic;
    this.#db = db;
    this.#photos = photos;
    this.#shop = shop;
    this.#told = told;
    this.#rows = new EventRows(db);
    this.#folded = new FoldedJobs(maps, this.#rows);
    this.lines = new Lines(db);
    for (const { job, uses } of this.lines.uses()) this.benches.set(job, uses);
  }

  /** Makes the lines that are missing: all of them where the table was deleted. */
  async readAgain(onProgress: (count: number) => void = () => undefined): Promise<void> {
    const missing = this.lines.missing();
    if (missing.length > 0) onProgress(missing.length);
    for (const id of missing) {
      const job = this.find(id)!;
      const live = await this.#folded.of(job).catch((error: Error) => error);
      if (live instanceof Error) this.#putUnreadable(job, live);
      else this.#putLine(job, live, true);
      if (missing.length > MANY) this.#folded.forget(id);
      await setImmediate();
    }
  }

  /** Lines as JSON. */
  list(query: JobsQuery = {}): string[] {
    return this.lines.list(query);
  }

  find(id: string): Job | null {
    const row = this.#db.select().from(jobs).where(eq(jobs.id, id)).get();
    return row ? jobOf(row) : null;
  }

  /** Ids and what they were taken in as, the newest first. */
  all(): Job[] {
    return this.#db.select().from(jobs).orderBy(desc(jobs.createdAt)).all().map(jobOf);
  }

  async add(job: Job): Promise<void> {
    this.#db.$client.transaction(() => {
      this.#db
        .insert(jobs)
        .values({
          ...job,
          targets: JSON.stringify(job.targets),
          policy: JSON.stringify(job.policy),
          limits: job.limits ? JSON.stringify(job.limits) : null,
        })
        .run();
    })();
    this.#putLine(job, await this.#folded.of(job), true);
    this.#told(job.id, 0);
  }

  /** A job's line, as JSON. */
  line(job: Job): string {
    return this.lines.get(job.id)!;
  }

  /** The job folded to now. @throws UnreadableJob */
  live(job: Job): Promise<Live> {
    return this.#folded.of(job);
  }

  parts(): { job: string; parts: DeskPart[] }[] {
    return this.lines.parts();
  }

  /** How long steps took in finished repairs. */
  times(): readonly TimeSample[] {
    return this.lines.times();
  }

  used(): Used[] {
    return this.lines.used();
  }

  /** All events in order, so many at a time. */
  pages(id: string, after = 0): Generator<StoredEvent[]> {
    return this.#rows.pages(id, PAGE, after);
  }

  count(id: string): number {
    return this.#rows.count(id);
  }

  /** The events that can be read, in order. */
  eventsOf(id: string): BenchEvent[] {
    return [...this.#rows.pages(id, PAGE)].flat().flatMap((row) => eventOf(row) ?? []);
  }

  /**
   * Takes what can be taken, in order. It is worked in short turns, each a transaction of its own, so that nobody else
   * waits; what is answered as accepted is on the disk.
   */
  append(job: Job, incoming: readonly unknown[], now: string, call: Call = {}): Promise<Appended> {
    const before = this.#turns.get(job.id) ?? Promise.resolve();
    const turn = before.catch(() => undefined).then(() => this.#append(job, incoming, now, call));
    const kept = turn
      .catch(() => undefined)
      .finally(() => {
        if (this.#turns.get(job.id) === kept) this.#turns.delete(job.id);
      });
    this.#turns.set(job.id, kept);
    return turn;
  }

  async #append(job: Job, incoming: readonly unknown[], now: string, call: Call): Promise<Appended> {
    const live = await this.#folded.of(job);
    const around = this.#surroundings(job, Date.parse(now));
    const told = await this.#traffic.long((letPass) =>
      appendedInTurns<BenchEvent>(incoming, {
        letPass,
        schemas: EVENT_DATA,
        ...call,
        known: (id) => {
          const row = this.#rows.known(id);
          if (!row) return null;
          return row.job === job.id ? (eventOf(row) ?? 'elsewhere') : 'elsewhere';
        },
        take: (event) => {
          if (this.#lacksPhoto(job, event)) return { problem: 'Send the photograph itself first, then this event.' };
          const outcome = withEvent(live.mechanism, live.state, event, around);
          if ('problem' in outcome) return outcome;
          live.state = outcome.state;
          return null;
        },
        insert: (event) => this.#rows.insert(job.id, event, now),
        inTurn: (work) => {
          const before = live.state;
          try {
            const more = this.#db.$client.transaction(() => {
              const worked = work();
              if (live.state !== before) this.#putLine(job, live, worked.changesSupplies);
              return worked.isMore;
            })();
            if (live.state !== before) this.#told(job.id, live.state.events.length);
            return more;
          } catch (error) {
            live.state = before;
            throw error;
          }
        },
      }),
    );
    return { ...told, revision: live.state.events.length };
  }

  #surroundings(job: Job, now: number): Surroundings {
    const { people } = this.#shop();
    return {
      roleOf: (name) => roleOf(people, name),
      hasLead: hasLead(people),
      othersAt: (bench) => this.benches.others(job.id, bench),
      now,
    };
  }

  #putLine(job: Job, { mechanism, state }: Live, changesSupplies: boolean): void {
    const standing = standingOf(mechanism, state);
    const uses = usesOf(state);
    const before = this.lines.before(job.serial, job.createdAt, job.id);
    const used = changesSupplies ? usedIn(asClosed(mechanism, state), state.standing) : this.lines.usedIn(job.id);
    this.lines.put(job, {
      isOpen: standing.status !== 'finished' && standing.status !== 'ended',
      line: JSON.stringify(jobLine(job, standing, before)),
      lastAt: standing.lastAt,
      parts: state.parts,
      used,
      times: state.finished ? samplesOf(mechanism.map, state.events) : [],
      uses,
      lastStop: lastStopOf(state),
    });
    this.benches.set(job.id, uses);
  }

  #putUnreadable(job: Job, error: Error): void {
    const reason = error instanceof UnreadableJob ? error.message : `It can not be read: ${error.message}`;
    const line = JSON.stringify(jobLine(job, unreadable(reason, this.#rows.count(job.id)), null));
    this.lines.put(job, { isOpen: true, line, lastAt: null, parts: [], used: [], times: [], uses: [], lastStop: null });
  }

  #lacksPhoto(job: Job, event: BenchEvent): boolean {
    if (event.type !== 'photo') return false;
    const { shown, thumb, original = shown } = event.data;
    return [shown, thumb, original].some((hash) => !this.#photos.has(job.id, hash));
  }
}

const PAGE = 400;
/** More than these are read once and not kept folded. */
const MANY = 50;

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
