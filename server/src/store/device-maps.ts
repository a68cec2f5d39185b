import type { DeviceMap } from '@nibrel/core/model/device-map';
import { and, eq, max } from 'drizzle-orm';
import { LRUCache } from 'lru-cache';
import type { Acknowledged } from './acknowledged.ts';
import type { Db } from './database.ts';
import { deviceMaps, jobs } from './schema.ts';
import { sumOf } from './sum.ts';

export interface MapLine {
  readonly id: string;
  readonly name: string;
  readonly kind: string;
  readonly revision: number;
  readonly by: string | null;
  readonly at: string;
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
  readonly #acknowledge: (entries: readonly Acknowledged[]) => void;
  /** parsed, by id and revision: a revision never changes */
  readonly #read = new LRUCache<string, StoredMap>({ max: 60 });

  constructor(
    db: Db,
    told: (map: string, revision: number) => void = () => undefined,
    acknowledge: (entries: readonly Acknowledged[]) => void = () => undefined,
  ) {
    this.#db = db;
    this.#told = told;
    this.#acknowledge = acknowledge;
  }

  list(): MapLine[] {
    const newest = this.#db
      .select({ id: deviceMaps.id, revision: max(deviceMaps.revision).as('newest') })
      .from(deviceMaps)
      .groupBy(deviceMaps.id)
      .as('latest');
    return this.#db
      .select({
        id: deviceMaps.id,
        name: deviceMaps.name,
        kind: deviceMaps.kind,
        revision: deviceMaps.revision,
        by: deviceMaps.by,
        at: deviceMaps.createdAt,
      })
      .from(deviceMaps)
      .innerJoin(newest, and(eq(newest.id, deviceMaps.id), eq(newest.revision, deviceMaps.revision)))
      .orderBy(deviceMaps.name)
      .all();
  }

  /** The newest revision, or the one named. @throws DamagedMap */
  find(id: string, revision?: number): StoredMap | null {
    const number = revision ?? this.#newest(id);
    if (number === null) return null;
    const known = this.#read.get(`${number} ${id}`);
    if (known) return known;
    const where = and(eq(deviceMaps.id, id), eq(deviceMaps.revision, number));
    const row = this.#db.select().from(deviceMaps).where(where).get();
    if (!row) return null;
    const stored = { revision: row.revision, map: mapOf(row), body: row.body };
    this.#read.set(`${number} ${id}`, stored);
    return stored;
  }

  /** A revision that can be read; null where it is not there, or damaged. */
  readable(id: string, revision: number): DeviceMap | null {
    try {
      return this.find(id, revision)?.map ?? null;
    } catch (error) {
      if (error instanceof DamagedMap) return null;
      throw error;
    }
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

  /** Adds a revision; the first of an id is 1. @param by who made it; null where nobody said */
  add({ id, name, kind, body }: MapText, now: string, by: string | null): number {
    const revision = (this.#newest(id) ?? 0) + 1;
    const row = { id, revision, name, kind, body, createdAt: now, by };
    this.#db
      .insert(deviceMaps)
      .values({ ...row, sum: sumOfMap(row) })
      .run();
    this.#acknowledge([{ what: 'map', id: `${id} ${revision}`, at: now }]);
    this.#told(id, revision);
    return revision;
  }

  /** The revisions that open repairs go by, the oldest first. */
  underWay(id: string): number[] {
    const sql = `SELECT DISTINCT jobs.revision FROM jobs JOIN job_lines ON job_lines.job = jobs.id
      WHERE jobs.map = ? AND is_open = 1 ORDER BY jobs.revision`;
    return this.#db.$client.prepare(sql).pluck().all(id) as number[];
  }

  isUsed(id: string): boolean {
    return this.#db.select({ id: jobs.id }).from(jobs).where(eq(jobs.map, id)).limit(1).get() !== undefined;
  }

  remove(id: string): void {
    this.#db.delete(deviceMaps).where(eq(deviceMaps.id, id)).run();
    this.#read.clear();
    this.#acknowledge([{ what: 'map-deleted', id, at: new Date().toISOString() }]);
    this.#told(id, 0);
  }
}

type Row = typeof deviceMaps.$inferSelect;

function sumOfMap({ id, revision, name, kind, body, createdAt, by }: Omit<Row, 'sum'>): string {
  return sumOf(id, revision, name, kind, body, createdAt, by);
}

/** A revision that was changed on the disk; the others are as they were. */
export class DamagedMap extends Error {
  override readonly name = 'DamagedMap';
  constructor({ id, revision }: Pick<Row, 'id' | 'revision'>) {
    super(`Revision ${revision} of device map "${id}" is damaged on the disk. PUT it again as a new revision.`);
  }
}

/** @throws DamagedMap */
function mapOf(row: Row): DeviceMap {
  try {
    if (row.sum === null || row.sum === sumOfMap(row)) return JSON.parse(row.body) as DeviceMap;
  } catch {
    // said below
  }
  throw new DamagedMap(row);
}
