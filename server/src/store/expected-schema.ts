import { existsSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import Database from 'better-sqlite3';

/** A table, an index, a trigger or a view, as SQLite keeps it. */
interface SchemaObject {
  readonly type: string;
  readonly name: string;
  /** the table that it belongs to */
  readonly of: string;
  readonly sql: string | null;
}

/** The migrations lie beside src and dist, whatever file of those this code is built into. */
export function migrationsFolder(): string {
  const above = (folder: string): string => {
    const migrations = join(folder, 'drizzle');
    return existsSync(migrations) || dirname(folder) === folder ? migrations : above(dirname(folder));
  };
  return above(dirname(fileURLToPath(import.meta.url)));
}

export function journal(): readonly { readonly when: number; readonly tag: string }[] {
  const text = readFileSync(join(migrationsFolder(), 'meta/_journal.json'), 'utf8');
  return (JSON.parse(text) as { entries: { when: number; tag: string }[] }).entries;
}

/** From this migration on lines are a table like any other; before it the application made one beside them. */
const LINES = '0003_lines';

/**
 * What a database is made of, less what SQLite and its migrator keep for themselves.
 * @param seen how many migrations it has seen
 */
export function schemaOf(db: Database.Database, seen: number): SchemaObject[] {
  const sql = 'SELECT type, name, tbl_name AS "of", sql FROM sqlite_master ORDER BY type, name';
  const rows = db.prepare(sql).all() as SchemaObject[];
  const hasLines = journal().findIndex(({ tag }) => tag === LINES) < seen;
  return rows
    .filter((each) => !isBeside(each) && (hasLines || !isLines(each)))
    .map((each) => ({ ...each, sql: each.sql && each.sql.replaceAll(/\s+/g, ' ').trim() }));
}

/** Only a table and its indexes are beside: a trigger or a view is always looked at, whatever it is called. */
function isBeside({ type, name }: SchemaObject): boolean {
  if (type !== 'table' && type !== 'index') return false;
  return (type === 'table' && name === '__drizzle_migrations') || name.startsWith('sqlite_');
}

function isLines({ type, of }: SchemaObject): boolean {
  return (type === 'table' || type === 'index') && of === 'job_lines';
}

/** What a database is made of that has seen the first so many migrations. */
export function schemaAfter(count: number): SchemaObject[] {
  const db = new Database(':memory:');
  try {
    for (const { tag } of journal().slice(0, count)) {
      const sql = readFileSync(join(migrationsFolder(), `${tag}.sql`), 'utf8');
      for (const statement of sql.split('--> statement-breakpoint')) db.exec(statement);
    }
    return schemaOf(db, count);
  } finally {
    db.close();
  }
}

/** How many migrations a database has seen; null where it is none of Nibrel's, or of a newer one. */
export function migrationsSeen(db: Database.Database): number | null {
  const hasAny = db.prepare("SELECT 1 FROM sqlite_master WHERE name = '__drizzle_migrations' AND type = 'table'").get();
  if (!hasAny) return null;
  const newest = db.prepare('SELECT max(created_at) FROM __drizzle_migrations').pluck().get() as number | null;
  const at = journal().findIndex(({ when }) => when === newest);
  return at < 0 ? null : at + 1;
}
