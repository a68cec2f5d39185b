import { chmodSync, existsSync, readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';

/** What a data folder holds, and what SQLite lays beside it. */
const FILES = ['nibrel.sqlite', 'nibrel.sqlite-wal', 'nibrel.sqlite-shm', 'lock.sqlite'];
const FOLDERS = ['photos', 'network', 'people'];

/**
 * Owners' names and pictures of their devices are nobody else's to read: folders and files of the data folder are for its
 * owner alone, also those that an earlier version has made otherwise.
 */
export function ownerOnly(folder: string): void {
  // whatever is made from here on as well
  process.umask(0o077);
  only(folder, 0o700);
  for (const name of FILES) only(join(folder, name), 0o600);
  for (const name of FOLDERS) only(join(folder, name), 0o700);
  const photos = join(folder, 'photos');
  if (!existsSync(photos)) return;
  for (const shelf of readdirSync(photos)) only(join(photos, shelf), 0o700);
}

function only(path: string, mode: number): void {
  if (!existsSync(path) || (statSync(path).mode & 0o777) === mode) return;
  try {
    chmodSync(path, mode);
  } catch {
    // a file system without modes, or somebody else's: reading and writing it tells soon enough
  }
}
