import type { DeviceMap } from '@nibrel/core/device-map';
import { and, eq, max } from 'drizzle-orm';
import { LRUCache } from 'lru-cache';
import type { Db } from './database.ts';
import { deviceMaps, jobs } from './schema.ts';

export interface MapLine {
  readonly id: string;
  readonly name: string;
  readonly kind: string;
  readonly revision: number;
}

/** A map as it came in, and what lists show of it. */
export interface MapText {
  readonly id: string;
  readonly name: string;
  readonly kind: string;
  /** JSON, unknown fields and all */
  readonly body: string;
}

export interface StoredMap {
  readonly revision: number;
  readonly map: DeviceMap;
  readonly body: string;
}

/** Device maps with all their revisions. */
export class DeviceMaps {
  readonly #db: Db;
  readonly #told: (map: string, revision: number) => void;
  /** parsed, by id and revision: a revision never changes */
  readonly #read = new LRUCache<string, StoredMap>({ max: 60 });

  constructor(db: Db, told: (map: string, revision: number) => void = () => undefined) {
    this.#db = db;
    this.#told = told;
  }

  list(): MapLine[] {
    const newest = this.#db
      .select({ id: deviceMaps.id, revision: max(deviceMaps.revision).as('newest') })
      .from(deviceMaps)
      .groupBy(deviceMaps.id)
      .as('latest');
    return this.#db
      .select({ id: deviceMaps.id, name: deviceMaps.name, kind: deviceMaps.kind, revision: deviceMaps.revision })
      .from(deviceMaps)
      .innerJoin(newest, and(eq(newest.id, deviceMaps.id), eq(newest.revision, deviceMaps.revision)))
      .orderBy(deviceMaps.name)
      .all();
  }

  /** The newest revision, or the one named. @throws SyntaxError where what is stored is no JSON */
  find(id: string, revision?: number): StoredMap | null {
    const number = revision ?? this.#newest(id);
    if (number === null) return null;
    const known = this.#read.get(`${number} ${id}`);
    if (known) return known;
    const where = and(eq(deviceMaps.id, id), eq(deviceMaps.revision, number));
    const row = this.#db.select().from(deviceMaps).where(where).get();
    if (!row) return null;
    const stored = { revision: row.revision, map: JSON.parse(row.body) as DeviceMap, body: row.body };
    this.#read.set(`${number} ${id}`, stored);
    return stored;
  }

  #newest(id: string): number | null {
    const row = this.#db
      .select({ revision: max(deviceMaps.revision) })
      .from(deviceMaps)
      .where(eq(deviceMaps.id, id))
      .get();
    return row?.revision ?? null;
  }

  has(id: string): boolean {
    return this.#newest(id) !== null;
  }

  /** Adds a revision; the first of an id is 1. */
  add({ id, name, kind, body }: MapText, now: string): number {
    const revision = (this.#newest(id) ?? 0) + 1;
    this.#db.insert(deviceMaps).values({ id, revision, name, kind, body, createdAt: now }).run();
    this.#told(id, revision);
    return revision;
  }

  isUsed(id: string): boolean {
    return this.#db.select({ id: jobs.id }).from(jobs).where(eq(jobs.map, id)).limit(1).get() !== undefined;
  }

  remove(id: string): void {
    this.#db.delete(deviceMaps).where(eq(deviceMaps.id, id)).run();
    this.#read.clear();
    this.#told(id, 0);
  }
}
