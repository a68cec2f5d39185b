import type { DeviceMap } from '@nibrel/core/device-map';
import { and, desc, eq, max } from 'drizzle-orm';
import type { Db } from './database.ts';
import { deviceMaps, jobs } from './schema.ts';

export interface MapLine {
  readonly id: string;
  readonly name: string;
  readonly kind: string;
  readonly revision: number;
}

export interface StoredMap {
  readonly revision: number;
  readonly map: DeviceMap;
}

/** Device maps with all their revisions. */
export class DeviceMaps {
  readonly #db: Db;

  constructor(db: Db) {
    this.#db = db;
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

  /** The newest revision, or the one named. */
  find(id: string, revision?: number): StoredMap | null {
    const where =
      revision === undefined ? eq(deviceMaps.id, id) : and(eq(deviceMaps.id, id), eq(deviceMaps.revision, revision));
    const row = this.#db.select().from(deviceMaps).where(where).orderBy(desc(deviceMaps.revision)).limit(1).get();
    return row ? { revision: row.revision, map: JSON.parse(row.body) as DeviceMap } : null;
  }

  /** Adds a revision; the first of an id is 1. */
  add(map: DeviceMap, now: string): number {
    const revision = (this.find(map.id)?.revision ?? 0) + 1;
    const { id, name, kind } = map;
    this.#db
      .insert(deviceMaps)
      .values({ id, revision, name, kind, body: JSON.stringify(map), createdAt: now })
      .run();
    return revision;
  }

  isUsed(id: string): boolean {
    return this.#db.select({ id: jobs.id }).from(jobs).where(eq(jobs.map, id)).limit(1).get() !== undefined;
  }

  remove(id: string): void {
    this.#db.delete(deviceMaps).where(eq(deviceMaps.id, id)).run();
  }
}
