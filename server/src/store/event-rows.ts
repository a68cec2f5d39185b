import { type BenchEvent, EVENTS } from '@nibrel/core/job/events';
import { toldIn } from '@nibrel/core/job/fold';
import type { Told } from '@nibrel/core/teardown/record';
import type { Db } from './database.ts';
import { isWhole, sumOf } from './sum.ts';

/** An event as it lies in its table, its data as text. */
export interface StoredEvent {
  readonly seq: number;
  readonly job: string;
  readonly id: string;
  readonly type: string;
  readonly at: string;
  readonly by: string;
  readonly data: string;
  readonly receivedAt: string;
  readonly sum: string | null;
}

const COLUMNS = 'seq, job, id, type, at, "by", data, received_at AS receivedAt, sum';

/** The events of jobs as rows: read in pages, so that nobody waits for a long job. */
export class EventRows {
  readonly #known;
  readonly #insert;
  readonly #page;
  readonly #undone;
  readonly #told;
  readonly #count;

  constructor({ $client: db }: Db) {
    this.#known = db.prepare<[string], StoredEvent>(`SELECT ${COLUMNS} FROM events WHERE id = ?`);
    this.#insert = db.prepare(`INSERT INTO events (job, id, type, at, "by", data, received_at, sum)
      VALUES (@job, @id, @type, @at, @by, @data, @receivedAt, @sum)`);
    this.#page = db.prepare<[string, number, number], StoredEvent>(
      `SELECT ${COLUMNS} FROM events WHERE job = ? AND seq > ? ORDER BY seq LIMIT ?`,
    );
    this.#undone = db.prepare<[string], StoredEvent>(`SELECT ${COLUMNS} FROM events WHERE job = ? AND type = 'undo'`);
    const told = Object.entries(EVENTS).flatMap(([type, { tellsMap }]) => (tellsMap ? [`'${type}'`] : []));
    this.#told = db.prepare<[string], StoredEvent>(
      `SELECT ${COLUMNS} FROM events WHERE job = ? AND type IN (${told.join(', ')}) ORDER BY seq`,
    );
    this.#count = db.prepare<[string], number>('SELECT count(*) FROM events WHERE job = ?').pluck();
  }

  known(id: string): StoredEvent | null {
    return this.#known.get(id) ?? null;
  }

  insert(job: string, event: BenchEvent, receivedAt: string): void {
    const { id, type, at, by } = event;
    const data = JSON.stringify(event.data);
    this.#insert.run({ job, id, type, at, by, data, receivedAt, sum: sumOf(job, id, type, at, by, data, receivedAt) });
  }

  count(job: string): number {
    return this.#count.get(job) ?? 0;
  }

  /** In order, so many at a time; `after` leaves out as many of the first. */
  *pages(job: string, size: number, after = 0): Generator<StoredEvent[]> {
    let last = 0;
    let left = after;
    for (;;) {
      const page = this.#page.all(job, last, size);
      if (page.length === 0) return;
      last = page.at(-1)!.seq;
      if (left < page.length) yield page.slice(left);
      left = Math.max(0, left - page.length);
    }
  }

  /** What was told in a job of a device without a map, in order, what was undone left out. */
  toldIn(job: string): readonly Told[] {
    return toldIn([...this.#undone.all(job), ...this.#told.all(job)].map(eventOf));
  }

  /** What was undone in a job, over all of it. */
  undoneIn(job: string): ReadonlySet<string> {
    return new Set(
      this.#undone.all(job).flatMap((row) => {
        const event = eventOf(row);
        return event.type === 'undo' && !event.unreadable ? [event.data.event] : [];
      }),
    );
  }
}

/**
 * The event of a row. One of which something was changed on the disk, or whose data can't be read, has no data and says so:
 * it is left out by name, and the rest stands.
 */
export function eventOf(row: StoredEvent): BenchEvent {
  const { id, type, by } = row;
  const received = isDate(row.receivedAt) ? { receivedAt: row.receivedAt } : {};
  const data = isSound(row) ? parsed(row.data) : null;
  if (data) return { id, type, at: row.at, by, data, ...received } as BenchEvent;
  const at = [row.at, row.receivedAt].find(isDate) ?? new Date(0).toISOString();
  return { id, type, at, by, data: {}, ...received, unreadable: true } as unknown as BenchEvent;
}

function isDate(text: string): boolean {
  return !Number.isNaN(Date.parse(text));
}

function isSound({ job, id, type, at, by, data, receivedAt, sum }: StoredEvent): boolean {
  return isWhole(sum, job, id, type, at, by, data, receivedAt);
}

function parsed(text: string): object | null {
  try {
    const value: unknown = JSON.parse(text);
    return value !== null && typeof value === 'object' && !Array.isArray(value) ? value : null;
  } catch {
    return null;
  }
}
