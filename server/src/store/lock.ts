import { join } from 'node:path';
import Database from 'better-sqlite3';
import { DiskProblem } from '../disk/disk-problem.ts';

/** Held while a server uses a data folder. */
export interface FolderLock {
  release(): void;
}

/**
 * One server for one data folder. It is a lock of SQLite on a file of its own, and so of the operating system, which
 * releases it when the process is gone, however it ends.
 * @throws DiskProblem where another holds it
 */
export function lockFolder(folder: string): FolderLock {
  let lock: Database.Database | undefined;
  try {
    lock = new Database(join(folder, 'lock.sqlite'), { timeout: 0 });
    // no journal on the disk: nothing is ever written but the lock
    lock.pragma('journal_mode = MEMORY');
    lock.exec('BEGIN EXCLUSIVE');
    const held = lock;
    return { release: () => held.close() };
  } catch (error) {
    lock?.close();
    if ((error as { code?: string }).code?.startsWith('SQLITE_BUSY')) {
      throw new DiskProblem(
        `Another Nibrel server holds the data folder ${folder}. Nothing was changed: use that one, end it, or name another folder (NIBREL_DATA).`,
      );
    }
    throw DiskProblem.of(error, folder);
  }
}
