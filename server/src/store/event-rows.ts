import type { BenchEvent } from '@nibrel/core/job';
import type { Db } from './database.ts';

/** An event as it lies in its table, its data as text. */
export interface StoredEvent {
  readonly seq: number;
  readonly job: string;
  readonly id: string;
  readonly type: string;
  readonly at: string;
  readonly by: string;
  readonly data: string;
}

/** The events of jobs as rows: read in pages, so that nobody waits for a long job. */
export class EventRows {
  readonly #known;
  readonly #insert;
  readonly #page;
  readonly #undone;
  readonly #count;

  constructor({ $client: db }: Db) {
    this.#known = db.prepare<[string], StoredEvent>('SELECT * FROM events WHERE id = ?');
    this.#insert = db.prepare(`INSERT INTO events (job, id, type, at, "by", data, received_at)
      VALUES (@job, @id, @type, @at, @by, @data, @receivedAt)`);
    this.#page = db.prepare<[string, number, number], StoredEvent>(
      'SELECT seq, job, id, type, at, "by", data FROM events WHERE job = ? AND seq > ? ORDER BY seq LIMIT ?',
    );
    this.#undone = db.prepare<[string], { data: string }>("SELECT data FROM events WHERE job = ? AND type = 'undo'");
    this.#count = db.prepare<[string], number>('SELECT count(*) FROM events WHERE job = ?').pluck();
  }

  known(id: string): StoredEvent | null {
    return this.#known.get(id) ?? null;
  }

  insert(job: string, event: BenchEvent, receivedAt: string): void {
    const { id, type, at, by, data } = event;
    this.#insert.run({ job, id, type, at, by, data: JSON.stringify(data), receivedAt });
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

  /** What was undone in a job, over all of it. */
  undoneIn(job: string): ReadonlySet<string> {
    return new Set(
      this.#undone.all(job).flatMap(({ data }) => {
        const parsed = parsedOr<{ event?: string }>(data, {});
        return parsed.event === undefined ? [] : [parsed.event];
      }),
    );
  }
}

/** The event of a row; null where its data can't be read. */
export function eventOf({ id, type, at, by, data }: StoredEvent): BenchEvent | null {
  const parsed = parsedOr<object | null>(data, null);
  return parsed && typeof parsed === 'object' ? ({ id, type, at, by, data: parsed } as BenchEvent) : null;
}

function parsedOr<T>(text: string, otherwise: T): T {
  try {
    return JSON.parse(text) as T;
  } catch {
    return otherwise;
  }
}
