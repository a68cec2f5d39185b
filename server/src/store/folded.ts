import { setImmediate } from 'node:timers/promises';
import { type BenchEvent, foldOn, type Job, type JobState, newJob } from '@nibrel/core/job';
import { type Mechanism, mechanismOf } from '@nibrel/core/holds';
import { LRUCache } from 'lru-cache';
import type { DeviceMaps } from './device-maps.ts';
import { eventOf, type EventRows, type StoredEvent } from './event-rows.ts';

/** A job that is open here: its map ready for asking what holds what, and where it stands. */
export interface Live {
  readonly mechanism: Mechanism;
  state: JobState;
}

/** A job whose events or map can't be read; nothing of it is lost, and nothing is added. */
export class UnreadableJob extends Error {
  override readonly name = 'UnreadableJob';
}

/** So many events, over all jobs that are kept folded. */
const MOST_EVENTS = 200_000;
/** Events read in one go, folded in one go, and for how long before others get their turn. */
const PAGE = 400;
const AT_ONCE = 20;
const TURN_ms = 10;

/** Jobs folded to now. The events on disk are the truth; this only saves folding them again. */
export class FoldedJobs {
  readonly #maps: DeviceMaps;
  readonly #rows: EventRows;
  readonly #live = new LRUCache<string, Live>({
    max: 100,
    maxSize: MOST_EVENTS,
    // it grows while it is held; what it was when it came in is near enough
    sizeCalculation: ({ state }) => state.events.length + 1,
  });
  readonly #pending = new Map<string, Promise<Live>>();

  constructor(maps: DeviceMaps, rows: EventRows) {
    this.#maps = maps;
    this.#rows = rows;
  }

  /** @throws UnreadableJob */
  async of(job: Job): Promise<Live> {
    const known = this.#live.get(job.id);
    if (known) return known;
    const pending = this.#pending.get(job.id) ?? this.#fold(job).finally(() => this.#pending.delete(job.id));
    this.#pending.set(job.id, pending);
    return pending;
  }

  forget(job: string): void {
    this.#live.delete(job);
  }

  async #fold(job: Job): Promise<Live> {
    const mechanism = this.#mechanism(job);
    const undone = this.#rows.undoneIn(job.id);
    let state = newJob(mechanism, job);
    let since = performance.now();
    for (const page of this.#rows.pages(job.id, PAGE)) {
      for (let from = 0; from < page.length; from += AT_ONCE) {
        state = foldOn(mechanism, state, page.slice(from, from + AT_ONCE).map(readable), undone);
        if (performance.now() - since < TURN_ms) continue;
        await setImmediate();
        since = performance.now();
      }
    }
    const live = { mechanism, state };
    this.#live.set(job.id, live);
    return live;
  }

  #mechanism(job: Job): Mechanism {
    try {
      const stored = this.#maps.find(job.map, job.revision);
      if (stored) return mechanismOf(stored.map);
    } catch (error) {
      throw new UnreadableJob(
        `Revision ${job.revision} of its map "${job.map}" can not be read: ${(error as Error).message}`,
      );
    }
    throw new UnreadableJob(`Revision ${job.revision} of its map "${job.map}" is not there.`);
  }
}

function readable(row: StoredEvent): BenchEvent {
  const event = eventOf(row);
  if (event) return event;
  throw new UnreadableJob(`Its event ${row.seq} (${row.type}, ${row.at}) is no JSON.`);
}
