import { createWriteStream, existsSync, mkdirSync, readdirSync, renameSync, rmdirSync, rmSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { text } from 'node:stream/consumers';
import Database from 'better-sqlite3';
import { type Entry, openPromise, type ZipFile } from 'yauzl';
import { BackupError, DATABASE_NAME, hashOf, isOwnName, type Manifest, MANIFEST_NAME } from './manifest.ts';

/**
 * Puts a backup into a data folder that is empty or not there. It is unpacked beside it and looked through; the folder
 * gets its name only once every file is whole, so that a restore that was ended half way has changed nothing.
 * @throws BackupError
 */
export async function restore(file: string, folder: string): Promise<Manifest> {
  const target = resolve(folder);
  if (existsSync(target) && readdirSync(target).length > 0) {
    throw new BackupError(`${target} is not empty, and was left as it is. Name an empty folder with NIBREL_DATA.`);
  }
  const half = `${target}.${process.pid}.restoring`;
  mkdirSync(half, { recursive: true });
  try {
    const manifest = await unpacked(file, half);
    await looked(half, manifest);
    mkdirSync(dirname(target), { recursive: true });
    if (existsSync(target)) rmdirSync(target);
    renameSync(half, target);
    return manifest;
  } catch (error) {
    rmSync(half, { recursive: true, force: true });
    if (error instanceof BackupError) throw error;
    throw new BackupError(`${file} is no whole backup: ${(error as Error).message}. Nothing was put back.`);
  }
}

async function unpacked(file: string, into: string): Promise<Manifest> {
  const zip = await openPromise(file, { lazyEntries: true });
  let manifest: Manifest | null = null;
  try {
    for await (const entry of zip.eachEntry()) {
      if (entry.fileName === MANIFEST_NAME) manifest = await manifestOf(zip, entry);
      else if (isOwnName(entry.fileName)) await unpack(zip, entry, into);
      else throw new BackupError(`${file} holds “${entry.fileName}”, which is none of Nibrel's. Nothing was put back.`);
    }
  } finally {
    zip.close();
  }
  if (manifest?.format !== 'nibrel.backup')
    throw new BackupError(`${file} is no backup of Nibrel. Nothing was put back.`);
  return manifest;
}

async function manifestOf(zip: ZipFile, entry: Entry): Promise<Manifest> {
  return JSON.parse(await text(await zip.openReadStreamPromise(entry))) as Manifest;
}

async function unpack(zip: ZipFile, entry: Entry, into: string): Promise<void> {
  const path = join(into, entry.fileName);
  mkdirSync(dirname(path), { recursive: true });
  await pipeline(await zip.openReadStreamPromise(entry), createWriteStream(path, { flush: true }));
}

/** Every file that the backup says it has, with its hash; and a database that SQLite finds sound. */
async function looked(folder: string, { files }: Manifest): Promise<void> {
  for (const { name, sha256 } of files) {
    const path = join(folder, name);
    if (!isOwnName(name) || !existsSync(path) || (await hashOf(path)) !== sha256) {
      throw new BackupError(`“${name}” is missing in this backup, or damaged. Nothing was put back: take another one.`);
    }
  }
  const db = new Database(join(folder, DATABASE_NAME), { readonly: true });
  try {
    if (db.pragma('integrity_check', { simple: true }) !== 'ok') {
      throw new BackupError('The database in this backup is damaged. Nothing was put back: take another one.');
    }
  } finally {
    db.close();
  }
}
