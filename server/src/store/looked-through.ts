import Database from 'better-sqlite3';
import type { Db } from './database.ts';

/** What a bad disk has done to a database. */
export interface Look {
  /** as SQLite says it; empty where it is sound */
  readonly damage: readonly string[];
  /** repairs that entries name and that are not there, with how many they are */
  readonly strays: readonly { readonly job: string; readonly count: number }[];
}

/**
 * Looks a database through, in a thread beside the work: an index that no longer says what its table does hides what was
 * acknowledged, and entries may belong to no repair any more.
 */
export function lookThrough(path: string): Look {
  const db = new Database(path, { readonly: true, fileMustExist: true });
  try {
    const strays =
      'SELECT job, count(*) AS count FROM events WHERE job NOT IN (SELECT id FROM jobs) GROUP BY job LIMIT 20';
    return { damage: damageOf(db), strays: db.prepare(strays).all() as Look['strays'] };
  } finally {
    db.close();
  }
}

/** Makes the indexes anew from their tables, where anything is damaged. @returns what was found, in sentences */
export function mended({ $client: db }: Db, { damage, strays }: Look): string[] {
  const said = strays.map(
    ({ job, count }) =>
      `${count} ${count === 1 ? 'entry names a repair' : 'entries name a repair'} that is not there, ${job}: its own row is damaged. A backup has it (npm run restore).`,
  );
  if (damage.length === 0) return said;
  db.exec('REINDEX');
  const left = damageOf(db);
  const what =
    left.length === 0
      ? 'The database was damaged in its indexes. They were made anew from its tables: nothing of those is lost.'
      : `The database is damaged (${left.slice(0, 3).join('; ')}). What can be read is shown. Keep a copy of the folder, and restore a backup (npm run restore).`;
  return [what, ...said];
}

function damageOf(db: Database.Database): string[] {
  const rows = db.pragma('integrity_check(10)') as { integrity_check: string }[];
  return rows.flatMap(({ integrity_check: said }) => (said === 'ok' ? [] : [said]));
}
