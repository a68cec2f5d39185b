import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import Database from 'better-sqlite3';
import { type BetterSQLite3Database, drizzle } from 'drizzle-orm/better-sqlite3';
import { migrate } from 'drizzle-orm/better-sqlite3/migrator';
import * as schema from './schema.ts';

export type Db = BetterSQLite3Database<typeof schema> & { $client: Database.Database };

/** Opens the database of a data folder, made if it is missing. Every commit is on the disk before it is acknowledged. */
export function openDatabase(folder: string): Db {
  mkdirSync(folder, { recursive: true });
  const client = new Database(join(folder, 'nibrel.sqlite'));
  client.pragma('journal_mode = WAL');
  client.pragma('synchronous = FULL');
  client.pragma('foreign_keys = ON');
  client.pragma('busy_timeout = 5000');
  const db = drizzle(client, { schema });
  migrate(db, { migrationsFolder: fileURLToPath(new URL(migrationsPath(), import.meta.url)) });
  return db;
}

/** The migrations lie beside src and dist alike. */
function migrationsPath(): string {
  return import.meta.url.endsWith('.ts') ? '../../drizzle' : '../drizzle';
}
