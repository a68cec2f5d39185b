import { closeSync, existsSync, fstatSync, openSync, readFileSync, renameSync, rmSync, writeSync } from 'node:fs';
import { join } from 'node:path';
import type { Db } from './database.ts';

/** Something that a client was told is on the disk. */
export interface Acknowledged {
  readonly what: 'event' | 'shop' | 'job' | 'map' | 'map-deleted';
  /** of the event, the job; of a map that was added with its revision */
  readonly id: string;
  /** the repair of an event */
  readonly job?: string;
  readonly type?: string;
  /** ISO 8601, by the server's clock */
  readonly at: string;
}

const NAME = 'acknowledged.log';
/** So many bytes are kept, and as many of before: some thousand entries. */
const MOST_BYTES = 512_000;

/**
 * The last that was acknowledged, beside the database: SQLite leaves out the end of a log that is cut short and says nothing, so
 * a second place says what was there. Written after the commit and not synced on its own, so that nobody waits for it.
 */
export class AcknowledgedLog {
  readonly #path: string;
  #file: number;

  constructor(folder: string) {
    this.#path = join(folder, NAME);
    this.#file = openSync(this.#path, 'a', 0o600);
  }

  add(entries: readonly Acknowledged[]): void {
    if (entries.length === 0) return;
    try {
      writeSync(this.#file, entries.map((each) => `${JSON.stringify(each)}\n`).join(''));
      if (fstatSync(this.#file).size > MOST_BYTES) this.#turnOver();
    } catch {
      // a full disk: what was acknowledged is in the database all the same
    }
  }

  close(): void {
    closeSync(this.#file);
  }

  #turnOver(): void {
    closeSync(this.#file);
    renameSync(this.#path, `${this.#path}.before`);
    this.#file = openSync(this.#path, 'a', 0o600);
  }
}

/** What was acknowledged and is not in the database any more, the oldest first. It is told once: the log begins anew. */
export function lostSince(folder: string, { $client: db }: Db): Acknowledged[] {
  const has = {
    event: db.prepare('SELECT 1 FROM events WHERE id = ?').pluck(),
    shop: db.prepare('SELECT 1 FROM shop_events WHERE id = ?').pluck(),
    job: db.prepare('SELECT 1 FROM jobs WHERE id = ?').pluck(),
    map: db.prepare("SELECT 1 FROM device_maps WHERE id || ' ' || revision = ?").pluck(),
  };
  const paths = [`${join(folder, NAME)}.before`, join(folder, NAME)];
  const lost: Acknowledged[] = [];
  for (const entry of paths.flatMap(entriesIn)) {
    const { what, id } = entry;
    if (what !== 'map-deleted') {
      if (has[what].get(id) === undefined) lost.push(entry);
      continue;
    }
    // what somebody has deleted is not lost
    const isOf = (each: Acknowledged) => each.what === 'map' && each.id.startsWith(`${id} `);
    for (let at = lost.findIndex(isOf); at >= 0; at = lost.findIndex(isOf)) lost.splice(at, 1);
  }
  if (lost.length > 0) for (const path of paths) rmSync(path, { force: true });
  return lost;
}

const KINDS: readonly Acknowledged['what'][] = ['event', 'shop', 'job', 'map', 'map-deleted'];

function entriesIn(path: string): Acknowledged[] {
  if (!existsSync(path)) return [];
  return readFileSync(path, 'utf8')
    .split('\n')
    .flatMap((line) => {
      try {
        const entry = JSON.parse(line) as Acknowledged;
        return typeof entry.id === 'string' && KINDS.includes(entry.what) ? [entry] : [];
      } catch {
        // the last line of a server that was killed
        return [];
      }
    });
}
