import { createWriteStream, existsSync, openSync, fsyncSync, closeSync, renameSync, rmSync, statSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { pipeline } from 'node:stream/promises';
import Database from 'better-sqlite3';
import { ZipFile } from 'yazl';
import {
  type BackupFile,
  BackupError,
  countsIn,
  DATABASE_NAME,
  hashOf,
  type Manifest,
  MANIFEST_NAME,
  unsoundness,
} from './manifest.ts';

/**
 * Writes all of a data folder's data into one zip, also while a server works on it: SQLite's own online copy of the
 * database, and the photographs that it knows. The file has its name only once it is whole and on the disk.
 * @throws BackupError
 */
export async function backUp(folder: string, file: string, now: Date): Promise<Manifest> {
  const target = resolve(file);
  const source = join(folder, DATABASE_NAME);
  if (!existsSync(source))
    throw new BackupError(`There is no Nibrel data in ${folder}. Name the folder with NIBREL_DATA.`);
  if (existsSync(target)) throw new BackupError(`${target} is there already and was left as it is. Name another file.`);
  const copy = `${target}.${process.pid}.sqlite.part`;
  const half = `${target}.${process.pid}.part`;
  try {
    const { photos, counts } = await copied(source, copy);
    const files = await listed(folder, copy, photos);
    const manifest: Manifest = { format: 'nibrel.backup', version: 1, at: now.toISOString(), files, counts };
    await zipped(manifest, half, (name) => (name === DATABASE_NAME ? copy : join(folder, name)));
    onDisk(half);
    renameSync(half, target);
    onDisk(dirname(target));
    return manifest;
  } finally {
    rmSync(copy, { force: true });
    rmSync(half, { force: true });
  }
}

/** Copies the database page by page, as it stands, and looks it through. @returns the photographs that the copy knows */
async function copied(source: string, copy: string) {
  const db = new Database(source, { readonly: true });
  try {
    await db.backup(copy);
  } finally {
    db.close();
  }
  const made = new Database(copy);
  try {
    // one file, whatever the journal of the original was
    made.pragma('journal_mode = DELETE');
    const unsound = unsoundness(made);
    if (unsound !== null) {
      throw new BackupError(
        `The database in ${source} is damaged (${unsound}). Nothing was written: keep the backup that you have, and a copy of the folder.`,
      );
    }
    const photos = made.prepare('SELECT DISTINCT hash FROM photos ORDER BY hash').pluck().all() as string[];
    return { photos, counts: countsIn(made) };
  } finally {
    made.close();
  }
}

async function listed(folder: string, copy: string, photos: readonly string[]): Promise<BackupFile[]> {
  const database = { name: DATABASE_NAME, bytes: statSync(copy).size, sha256: await hashOf(copy) };
  const pictures: BackupFile[] = [];
  for (const sha256 of photos) {
    const name = `photos/${sha256.slice(0, 2)}/${sha256}`;
    const path = join(folder, name);
    if (!existsSync(path) || (await hashOf(path)) !== sha256) {
      throw new BackupError(
        `The photograph ${path} is missing or damaged. Nothing was written: look after the disk first.`,
      );
    }
    pictures.push({ name, bytes: statSync(path).size, sha256 });
  }
  return [database, ...pictures];
}

async function zipped(manifest: Manifest, half: string, pathOf: (name: string) => string): Promise<void> {
  const zip = new ZipFile();
  zip.addBuffer(Buffer.from(JSON.stringify(manifest, null, 2)), MANIFEST_NAME);
  for (const { name } of manifest.files) zip.addFile(pathOf(name), name, { compress: name === DATABASE_NAME });
  zip.end();
  await pipeline(zip.outputStream, createWriteStream(half, { flags: 'wx' }));
}

function onDisk(path: string): void {
  const file = openSync(path, 'r');
  try {
    fsyncSync(file);
  } finally {
    closeSync(file);
  }
}
