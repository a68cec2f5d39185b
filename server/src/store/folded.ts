import { setImmediate } from 'node:timers/promises';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { foldOn, type Going, mechanismAsTold } from '@nibrel/core/job/fold';
import { type Job } from '@nibrel/core/job/events';
import { type JobState, newJob } from '@nibrel/core/job/state';
import { LRUCache } from 'lru-cache';
import type { DeviceMaps } from './device-maps.ts';
import { eventOf, type EventRows } from './event-rows.ts';

/** A job that is open here: its map ready for asking what holds what, and where it stands. */
export interface Live {
  /** with the map that it was taken in with, and the one that it goes by */
  going: Going;
  /** why neither map nor plan can be had, where that is so; then it stands stopped, with what its events tell without a map */
  readonly unreadable: string | null;
}

/** A job as it lies in its table; `unreadable`: why what it was taken in as is not to be believed. */
export type KeptJob = Job & { readonly unreadable?: string };

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
    sizeCalculation: ({ going }) => going.state.events.length + 1,
  });
  readonly #pending = new Map<string, Promise<Live>>();

  constructor(maps: DeviceMaps, rows: EventRows) {
    this.#maps = maps;
    this.#rows = rows;
  }

  async of(job: KeptJob): Promise<Live> {
    const known = this.#live.get(job.id);
    if (known) return known;
    const pending = this.#pending.get(job.id) ?? this.#fold(job).finally(() => this.#pending.delete(job.id));
    this.#pending.set(job.id, pending);
    return pending;
  }

  forget(job: string): void {
    this.#live.delete(job);
  }

  async #fold(job: KeptJob): Promise<Live> {
    const { base, unreadable } = this.#base(job);
    const mechanism = mechanismAsTold(base, this.#rows.toldIn(job.id));
    const undone = this.#rows.undoneIn(job.id);
    let state = newJob(mechanism, job);
    let since = performance.now();
    for (const page of this.#rows.pages(job.id, PAGE)) {
      for (let from = 0; from < page.length; from += AT_ONCE) {
        state = foldOn(mechanism, state, page.slice(from, from + AT_ONCE).map(eventOf), undone);
        if (performance.now() - since < TURN_ms) continue;
        await setImmediate();
        since = performance.now();
      }
    }
    const held = unreadable === null ? state : heldUp(state, unreadable);
    const live = { going: { base, mechanism, state: held }, unreadable };
    this.#live.set(job.id, live);
    return live;
  }

  #base(job: KeptJob): { readonly base: DeviceMap; readonly unreadable: string | null } {
    if (job.unreadable) return { base: NO_MAP, unreadable: job.unreadable };
    try {
      const stored = this.#maps.find(job.map, job.revision);
      if (stored) return { base: stored.map, unreadable: null };
    } catch (error) {
      const unreadable = `Revision ${job.revision} of its map "${job.map}" can not be read: ${(error as Error).message}`;
      return { base: NO_MAP, unreadable };
    }
    return {
      base: NO_MAP,
      unreadable: `Revision ${job.revision} of its map "${job.map}" is not there.`,
    };
  }
}

/** Stands for a map that can't be read: stops, solvent and words are told without one. */
const NO_MAP: DeviceMap = {
  format: 'nibrel.device-map',
  version: 1,
  id: 'unreadable',
  name: 'Unreadable',
  kind: 'other',
  outline: { width: 1, height: 1, thickness: 1, corner: 0 },
  battery: null,
  fasteners: [],
  parts: [
    {
      id: 'base',
      name: 'Base',
      kind: 'frame',
      face: 'front',
      box: { x: 0, y: 0, w: 1, h: 1 },
      z: { top: 0, bottom: 1 },
      base: true,
    },
  ],
  joints: [],
  functions: [],
};

/** Nobody goes on with what can't be read; a lead ends it. */
function heldUp(state: JobState, why: string): JobState {
  const stop = { id: state.job.id, reason: 'other', text: why, at: state.job.createdAt, by: 'Nibrel' };
  return { ...state, stops: [...state.stops, stop], stopped: state.stopped ?? stop };
}
