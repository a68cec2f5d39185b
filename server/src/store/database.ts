import { existsSync, mkdirSync, statSync } from 'node:fs';
import { dirname, join } from 'node:path';
import Database from 'better-sqlite3';
import { type BetterSQLite3Database, drizzle } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import { DiskProblem } from '../disk/disk-problem.ts';
import { journal, migrationsFolder } from './expected-schema.ts';
import * as schema from './schema.ts';

export type Db = BetterSQLite3Database<typeof schema> & { $client: Database.Database };

/**
 * Opens the database of a data folder, made if it is missing. Every commit is on the disk before it is acknowledged.
 * @throws DiskProblem in one plain sentence, where it can't be used
 */
export function openDatabase(folder: string): Db {
  try {
    make(folder);
    const client = new Database(join(folder, 'nibrel.sqlite'));
    client.pragma('journal_mode = WAL');
    client.pragma('synchronous = FULL');
    client.pragma('foreign_keys = ON');
    client.pragma('busy_timeout = 5000');
    refuseNewer(client, folder);
    const db = drizzle(client, { schema });
    migrate(db, { migrationsFolder: migrationsFolder() });
    return db;
  } catch (error) {
    throw DiskProblem.of(error, folder);
  }
}

/** Makes the folders one by one: Node's recursive way never returns below a file system that makes none, as /proc. */
function make(folder: string): void {
  if (!existsSync(folder)) {
    make(dirname(folder));
    mkdirSync(folder);
  } else if (!statSync(folder).isDirectory()) {
    throw Object.assign(new Error(`${folder} is no folder`), { code: 'ENOTDIR' });
  }
}

/** A database that has seen migrations which this version does not know is left alone. */
function refuseNewer(client: Database.Database, folder: string): void {
  const hasAny = client
    .prepare("SELECT count(*) FROM sqlite_master WHERE type = 'table' AND name = '__drizzle_migrations'")
    .pluck()
    .get();
  if (!hasAny) return;
  const newest = client.prepare('SELECT max(created_at) FROM __drizzle_migrations').pluck().get() as number | null;
  const known = Math.max(...journal().map(({ when }) => when));
  if (newest === null || Number(newest) <= known) return;
  client.close();
  throw new DiskProblem(
    `The data in ${folder} was written by a newer Nibrel. Nothing was changed. Start that version, or another data folder (NIBREL_DATA).`,
  );
}
