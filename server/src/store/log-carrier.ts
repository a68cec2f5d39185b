import Database from 'better-sqlite3';
import type { Db } from './database.ts';

/** So often what was written is carried from the log into the database itself. */
const EVERY_ms = 2000;

/**
 * SQLite's log grows with every commit and is carried into the database now and then, which takes long and syncs twice.
 * Left to itself it does so within somebody's commit; here a thread does it beside the work.
 * @param carry runs `carryOver` in a thread
 * @returns how to stop
 */
export function carryBesideWork({ $client: db }: Db, carry: (path: string) => Promise<unknown>): () => void {
  // a log that nobody carries over still ends somewhere: some 80 MB
  db.pragma('wal_autocheckpoint = 20000');
  const written = db.prepare('SELECT total_changes()').pluck();
  let before = written.get();
  let isBusy = false;
  const timer = setInterval(() => {
    const now = written.get();
    if (isBusy || now === before) return;
    before = now;
    isBusy = true;
    // what fails now is done the next time, or by SQLite itself
    void carry(db.name)
      .catch(() => undefined)
      .finally(() => (isBusy = false));
  }, EVERY_ms);
  timer.unref();
  return () => clearInterval(timer);
}

/** Carries the log over into the database as far as that is possible without waiting for a reader or a writer. */
export function carryOver(path: string): void {
  const db = new Database(path, { fileMustExist: true });
  try {
    db.pragma('wal_checkpoint(PASSIVE)');
  } finally {
    db.close();
  }
}
