import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import type Database from 'better-sqlite3';
import Joi from 'joi';

/** What a backup holds: every file with its length and hash, so that it can be told whether it is whole. */
export interface Manifest {
  readonly format: 'nibrel.backup';
  readonly version: 1;
  /** ISO 8601 */
  readonly at: string;
  readonly files: readonly BackupFile[];
  /** rows of each table; none in backups of an older version */
  readonly counts?: Readonly<Record<string, number>>;
}

export interface BackupFile {
  readonly name: string;
  readonly bytes: number;
  /** SHA-256, hexadecimal */
  readonly sha256: string;
}

export const MANIFEST_NAME = 'manifest.json';
export const DATABASE_NAME = 'nibrel.sqlite';

/** The tables whose rows are counted. */
const COUNTED = ['device_maps', 'jobs', 'events', 'shop_events', 'photos'] as const;

export function countsIn(db: Database.Database): Record<string, number> {
  const has = db.prepare("SELECT 1 FROM sqlite_master WHERE type = 'table' AND name = ?").pluck();
  const tables = COUNTED.filter((table) => has.get(table) !== undefined);
  return Object.fromEntries(
    tables.map((table) => [table, db.prepare(`SELECT count(*) FROM ${table}`).pluck().get() as number]),
  );
}

/** What is wrong with a database as SQLite sees it; null where nothing is. */
export function unsoundness(db: Database.Database): string | null {
  const whole = db.pragma('integrity_check(1)', { simple: true }) as string;
  if (whole !== 'ok') return whole;
  const stray = db.pragma('foreign_key_check') as { table: string }[];
  return stray.length > 0 ? `${stray.length} rows of ${stray[0]!.table} belong to nothing` : null;
}

export const manifestSchema = Joi.object<Manifest>({
  format: Joi.string().valid('nibrel.backup').required(),
  version: Joi.number().valid(1).required(),
  at: Joi.string().required(),
  files: Joi.array()
    .min(1)
    .max(1_000_000)
    .unique('name')
    .items(
      Joi.object({
        name: Joi.string()
          .custom((name: string, helpers) => (isOwnName(name) ? name : helpers.error('any.invalid')))
          .required(),
        bytes: Joi.number().integer().min(0).required(),
        sha256: Joi.string()
          .pattern(/^[0-9a-f]{64}$/)
          .required(),
      }),
    )
    .required(),
  counts: Joi.object().pattern(Joi.string(), Joi.number().integer().min(0)),
});

/** Why there is no backup, or why it is not put back: a sentence, with what is safe and what to do. */
export class BackupError extends Error {
  override readonly name = 'BackupError';
}

export async function hashOf(path: string): Promise<string> {
  const sum = createHash('sha256');
  for await (const chunk of createReadStream(path)) sum.update(chunk as Buffer);
  return sum.digest('hex');
}

/** A name in the archive that stays within the folder it is put into. */
function isOwnName(name: string): boolean {
  return name === DATABASE_NAME || /^photos\/[0-9a-f]{2}\/[0-9a-f]{64}$/.test(name);
}
