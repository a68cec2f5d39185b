import { type Problem, wrong } from '@nibrel/core/model/refusal';
import type { Appended, JobsQuery } from '@nibrel/core/api';
import { randomUUID } from 'node:crypto';
import { setImmediate } from 'node:timers/promises';
import { asClosed, type BenchUse, type Surroundings } from '@nibrel/core/job/state';
import { type BenchEvent, EVENT_DATA, EVENTS, type Job } from '@nibrel/core/job/events';
import { goingOn } from '@nibrel/core/job/fold';
import { isSameName } from '@nibrel/core/model/names';
import { usedIn } from '@nibrel/core/after/kit';
import { samplesOf, type TimeSample } from '@nibrel/core/after/own-times';
import type { DeskPart } from '@nibrel/core/workshop/parts';
import { hasLead, hasOthers, roleOf, type Shop, type Used } from '@nibrel/core/workshop/shop';
import { desc, eq } from 'drizzle-orm';
import { Calls } from './calls.ts';
import type { Acknowledged } from './acknowledged.ts';
import { appendedInTurns } from './append.ts';
import { Benches } from './benches.ts';
import type { Db } from './database.ts';
import type { DeviceMaps } from './device-maps.ts';
import { keepMap } from './kept-map.ts';
import { eventOf, EventRows, type StoredEvent } from './event-rows.ts';
import { FoldedJobs, type KeptJob, type Live } from './folded.ts';
import { jobOf, rowOf } from './job-rows.ts';
import { jobLine, lastStopOf, summaryOf, usesOf } from './line.ts';
import { Lines } from './lines.ts';
import type { Photos } from './photos.ts';
import { jobs } from './schema.ts';

/** What is known of a call beside its events: their shapes checked before, who is signed in, which lead has confirmed. */
interface Call {
  readonly checked?: readonly (Problem | null)[] | undefined;
  readonly signedIn?: string | null;
  /** the lead who has shown their secret here */
  readonly confirmed?: string | null;
}

interface JobsOptions {
  shop(): Shop;
  /** is this a demonstration? */
  readonly hasStandIns: boolean;
  told?(job: string, revision: number): void;
  /** told of what is on the disk now */
  acknowledge?(entries: readonly Acknowledged[]): void;
  readonly calls?: Calls;
}

/** Repair jobs and their events. Lists come from the lines kept beside them; only a job that is asked for is folded. */
export class Jobs {
  readonly lines: Lines;
  readonly benches = new Benches();
  readonly #db: Db;
  readonly #photos: Photos;
  readonly #rows: EventRows;
  readonly #maps: DeviceMaps;
  readonly #folded: FoldedJobs;
  readonly #shop: () => Shop;
  readonly #turns = new Map<string, Promise<unknown>>();
  readonly #told: (job: string, revision: number) => void;
  readonly #calls: Calls;
  readonly #hasStandIns: boolean;
  readonly #acknowledge: (entries: readonly Acknowledged[]) => void;

  constructor(
    db: Db,
    maps: DeviceMaps,
    photos: Photos,
    { shop, hasStandIns, told = () => undefined, acknowledge = () => undefined, calls = new Calls() }: JobsOptions,
  ) {
    this.#calls = calls;
    this.#hasStandIns = hasStandIns;
    this.#acknowledge = acknowledge;
    this.#db = db;
    this.#photos = photos;
    this.#shop = shop;
    this.#told = told;
    this.#rows = new EventRows(db);
    this.#maps = maps;
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
      this.#putLine(job, await this.#folded.of(job), true);
      if (missing.length > MANY) this.#folded.forget(id);
      await setImmediate();
    }
  }

  /**
   * What was acknowledged and is not there any more is said in the record of its repair, as a stop: whoever goes on by what is there
   * would go on from an earlier state than that of the device.
   * @returns sentences for the log
   */
  async nameLost(lost: readonly Acknowledged[], now: Date): Promise<string[]> {
    const at = now.toISOString();
    const said = lost
      .filter(({ what }) => what !== 'event')
      .map(
        ({ what, id, at: told }) => `What was acknowledged at ${told} is not in the database any more: ${what} ${id}.`,
      );
    for (const id of new Set(lost.flatMap(({ job }) => (job === undefined ? [] : [job])))) {
      const own = lost.filter(({ job }) => job === id);
      const entries = own.slice(0, MOST_NAMED).map(({ type, at: told }) => `${type} of ${told}`);
      const more = own.length > MOST_NAMED ? `, and ${own.length - MOST_NAMED} more` : '';
      const text = `${own.length} of its last entries were acknowledged and are lost (${entries.join(', ')}${more}): look at the device before anything else`;
      said.push(`Repair ${id}: ${text}.`);
      const job = this.find(id);
      const stop = { id: randomUUID(), type: 'stop', at, by: 'Nibrel', data: { reason: 'other', text } };
      if (job) await this.append(job, [stop], at);
    }
    return said;
  }

  /** Lines as JSON. */
  list(query: JobsQuery = {}): string[] {
    return this.lines.list(query);
  }

  find(id: string): KeptJob | null {
    const row = this.#db.select().from(jobs).where(eq(jobs.id, id)).get();
    return row ? jobOf(row) : null;
  }

  /** Ids and what they were taken in as, the newest first. */
  all(): KeptJob[] {
    return this.#db.select().from(jobs).orderBy(desc(jobs.createdAt)).all().map(jobOf);
  }

  async add(job: Job): Promise<void> {
    this.#db.$client.transaction(() => {
      this.#db.insert(jobs).values(rowOf(job)).run();
    })();
    this.#acknowledge([{ what: 'job', id: job.id, at: job.createdAt }]);
    this.#putLine(job, await this.#folded.of(job), true);
    this.#told(job.id, 0);
  }

  /** A job's line, as JSON. */
  line(job: Job): string {
    return this.lines.get(job.id)!;
  }

  /** The job folded to now. */
  live(job: KeptJob): Promise<Live> {
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

  /** All of them in order; what is damaged has no data and says so. */
  eventsOf(id: string): BenchEvent[] {
    return [...this.#rows.pages(id, PAGE)].flat().map(eventOf);
  }

  /**
   * Takes what can be taken, in order. It is worked in short turns, each a transaction of its own, so that nobody else
   * waits; what is answered as accepted is on the disk.
   */
  append(job: KeptJob, incoming: readonly unknown[], now: string, call: Call = {}): Promise<Appended> {
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

  async #append(job: KeptJob, incoming: readonly unknown[], now: string, call: Call): Promise<Appended> {
    const live = await this.#folded.of(job);
    const around = this.#surroundings(job, Date.parse(now), call);
    const inserted: Acknowledged[] = [];
    let tells: BenchEvent | null = null;
    const told = await this.#calls.long((letPass) =>
      appendedInTurns<BenchEvent>(incoming, {
        letPass,
        schemas: EVENT_DATA,
        ...call,
        receivedAt: now,
        usesSupplies: (type) => EVENTS[type].usesSupplies,
        known: (id) => {
          const row = this.#rows.known(id);
          if (!row) return null;
          const event = eventOf(row);
          return row.job === job.id && !event.unreadable ? event : 'elsewhere';
        },
        take: (event) => {
          if (this.#lacksPhoto(job, event))
            return {
              problem: wrong(
                'photo',
                'There is no such photograph yet.',
                'Send the photograph itself first, then this event.',
              ),
            };
          if (live.unreadable !== null && !isForUnreadable(event, job)) return { problem: notAdded(live.unreadable) };
          const outcome = goingOn(live.going, event, around);
          if ('problem' in outcome) return outcome;
          live.going = outcome;
          return null;
        },
        insert: (event) => {
          this.#rows.insert(job.id, event, now);
          inserted.push({ what: 'event', id: event.id, job: job.id, type: event.type, at: now });
          if (EVENTS[event.type].tellsMap || event.type === 'finish') tells = event;
        },
        inTurn: (work) => {
          const before = live.going;
          try {
            const more = this.#db.$client.transaction(() => {
              const worked = work();
              if (live.going !== before) this.#putLine(job, live, worked.changesSupplies);
              return worked.isMore;
            })();
            this.#acknowledge(inserted.splice(0));
            if (live.going !== before) this.#told(job.id, live.going.state.events.length);
            return more;
          } catch (error) {
            live.going = before;
            inserted.length = 0;
            throw error;
          }
        },
      }),
    );
    if (tells !== null) keepMap(this.#maps, live.going, tells, now);
    return { ...told, revision: live.going.state.events.length, receivedAt: now };
  }

  #surroundings(job: Job, now: number, { confirmed = null }: Call): Surroundings {
    const { people } = this.#shop();
    return {
      roleOf: (name) => roleOf(people, name),
      hasLead: hasLead(people),
      isConfirmed: (name) => !hasOthers(people, name) || (confirmed !== null && isSameName(confirmed, name)),
      othersAt: (bench) => this.benches.others(job.id, bench, now),
      now,
      hasStandIns: this.#hasStandIns,
      unit: 'C',
    };
  }

  #putLine(job: KeptJob, { going: { mechanism, state }, unreadable }: Live, changesSupplies: boolean): void {
    const summary = summaryOf(mechanism, state, unreadable);
    // what an unreadable repair did at its benches is known from before, less a source that nobody leaves on at its end
    const before = unreadable === null ? null : this.lines.usesOf(job.id);
    const uses = before
      ? before.map(([bench, use]) => [bench, overIf(summary.ended !== null, use)] as const)
      : usesOf(state);
    const stoppedBefore = this.lines.before(job.serial, job.createdAt, job.id);
    const used =
      changesSupplies && unreadable === null
        ? usedIn(asClosed(mechanism, state), state.inForce)
        : this.lines.usedIn(job.id);
    this.lines.put(job, {
      isOpen: summary.status !== 'finished' && summary.status !== 'ended',
      line: JSON.stringify(jobLine(job, summary, stoppedBefore)),
      lastAt: summary.lastAt,
      parts: state.parts,
      used,
      times: state.finished ? samplesOf(mechanism.map, state.events) : [],
      uses,
      lastStop: lastStopOf(state),
    });
    this.benches.set(job.id, uses);
  }

  #lacksPhoto(job: Job, event: BenchEvent): boolean {
    if (event.type !== 'photo') return false;
    const { shown, thumb, original = shown } = event.data;
    return [shown, thumb, original].some((hash) => !this.#photos.has(job.id, hash));
  }
}

const PAGE = 400;
/** So many of what is lost are named one by one. */
const MOST_NAMED = 8;
/** More than these are read once and not kept folded. */
const MANY = 50;

function overIf(isOver: boolean, use: BenchUse): BenchUse {
  return isOver ? { ...use, sourceOn: null } : use;
}

/** What is told of a repair whose map can't be read: words, stops, its end. */
function isForUnreadable({ type, data }: BenchEvent, { id }: Job): boolean {
  if (type === 'clear') return data.stop !== undefined && data.stop !== id;
  return type === 'end' || EVENTS[type].ended;
}

function notAdded(why: string): Problem {
  const cure = 'Only notes and stops are taken, and a lead ends it. Its raw rows can be exported.';
  return wrong('', `This repair can not be read: ${why}`, cure);
}
