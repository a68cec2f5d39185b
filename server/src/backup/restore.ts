import {
  createWriteStream,
  existsSync,
  mkdirSync,
  readdirSync,
  renameSync,
  rmdirSync,
  rmSync,
  statfsSync,
  statSync,
} from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { text } from 'node:stream/consumers';
import Database from 'better-sqlite3';
import { type Entry, openPromise, type ZipFile } from 'yauzl';
import { migrationsSeen, schemaAfter, schemaOf } from '../store/expected-schema.ts';
import {
  BackupError,
  type BackupFile,
  countsIn,
  DATABASE_NAME,
  hashOf,
  type Manifest,
  MANIFEST_NAME,
  manifestSchema,
  unsoundness,
} from './manifest.ts';

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
  mkdirSync(half, { recursive: true, mode: 0o700 });
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

/** A manifest is no larger: it names a million photographs in so many bytes. */
const MOST_MANIFEST_BYTES = 200_000_000;
/** SQLite's pages shrink by less than this; what would unfold farther was made to fill a disk. */
const MOST_UNFOLDED = 200;
/** So small a file may unfold as it likes. */
const HARMLESS_BYTES = 10_000_000;

async function unpacked(file: string, into: string): Promise<Manifest> {
  const zip = await openPromise(file, { lazyEntries: true, autoClose: false });
  try {
    const entries: Entry[] = [];
    for await (const entry of zip.eachEntry()) entries.push(entry);
    const manifest = await manifestOf(file, zip, entries);
    const promised = new Map(manifest.files.map((each) => [each.name, each]));
    const seen = new Set<string>();
    const refuse = (what: string) => new BackupError(`${file} ${what}. Nothing was put back.`);
    for (const { fileName, uncompressedSize, compressedSize } of entries) {
      if (fileName === MANIFEST_NAME) continue;
      const known = promised.get(fileName);
      if (!known) throw refuse(`holds “${fileName}”, which is none of Nibrel's or is not in its manifest`);
      if (seen.has(fileName)) throw refuse(`holds “${fileName}” twice`);
      if (uncompressedSize !== known.bytes) throw refuse(`has another length of “${fileName}” than it promises`);
      if (uncompressedSize > HARMLESS_BYTES && uncompressedSize > compressedSize * MOST_UNFOLDED) {
        throw refuse(`would unfold “${fileName}” to more than ${MOST_UNFOLDED} times its size`);
      }
      seen.add(fileName);
    }
    const missing = manifest.files.find(({ name }) => !seen.has(name));
    if (missing)
      throw new BackupError(`“${missing.name}” is missing in this backup. Nothing was put back: take another one.`);
    const bytes = manifest.files.reduce((sum, each) => sum + each.bytes, 0);
    if (bytes > HARMLESS_BYTES && bytes > statSync(file).size * MOST_UNFOLDED) {
      throw refuse(`would unfold to more than ${MOST_UNFOLDED} times its size`);
    }
    hasRoom(into, bytes);
    for (const entry of entries) if (entry.fileName !== MANIFEST_NAME) await unpack(zip, entry, into);
    return manifest;
  } finally {
    zip.close();
  }
}

function hasRoom(into: string, bytes: number): void {
  const { bavail, bsize } = statfsSync(into);
  if (bytes <= bavail * bsize) return;
  throw new BackupError(
    `This backup needs ${Math.ceil(bytes / 1e6)} MB, and the disk has not so much left. Nothing was put back.`,
  );
}

async function manifestOf(file: string, zip: ZipFile, entries: readonly Entry[]): Promise<Manifest> {
  const entry = entries.find(({ fileName }) => fileName === MANIFEST_NAME);
  const none = new BackupError(`${file} is no backup of Nibrel. Nothing was put back.`);
  if (!entry || entry.uncompressedSize > MOST_MANIFEST_BYTES) throw none;
  const json = JSON.parse(await text(await zip.openReadStreamPromise(entry))) as unknown;
  const { error, value } = manifestSchema.validate(json, { convert: false });
  if (error) throw none;
  return value;
}

async function unpack(zip: ZipFile, entry: Entry, into: string): Promise<void> {
  const path = join(into, entry.fileName);
  mkdirSync(dirname(path), { recursive: true, mode: 0o700 });
  // yauzl ends a stream that gives more than its entry says
  await pipeline(await zip.openReadStreamPromise(entry), createWriteStream(path, { flush: true, mode: 0o600 }));
}

/** Every file that the backup says it has, with its hash; and a database of Nibrel's that is sound and as it is counted. */
async function looked(folder: string, { files, counts }: Manifest): Promise<void> {
  for (const { name, sha256 } of files) {
    if ((await hashOf(join(folder, name))) !== sha256) {
      throw new BackupError(`“${name}” is damaged in this backup. Nothing was put back: take another one.`);
    }
  }
  const path = join(folder, DATABASE_NAME);
  if (!existsSync(path)) throw new BackupError('There is no database in this backup. Nothing was put back.');
  const db = new Database(path);
  try {
    db.pragma('trusted_schema = OFF');
    ofNibrel(db);
    counted(db, counts);
    photographs(db, files);
    // derived: made again from the events, whatever it said
    const hasLines = db.prepare("SELECT 1 FROM sqlite_master WHERE type = 'table' AND name = 'job_lines'").get();
    if (hasLines) db.exec('DELETE FROM job_lines');
  } finally {
    db.close();
  }
}

/** Sound, and made of exactly what its version is made of: no trigger, no view, no column more or less. */
function ofNibrel(db: Database.Database): void {
  const seen = migrationsSeen(db);
  if (seen === null) {
    throw new BackupError(
      'The database in this backup is none of this Nibrel, or of a newer one. Nothing was put back.',
    );
  }
  const key = ({ type, name, sql }: { type: string; name: string; sql: string | null }) => `${type} ${name} ${sql}`;
  const [is, wanted] = [schemaOf(db, seen), schemaAfter(seen)];
  const [has, asks] = [new Set(is.map(key)), new Set(wanted.map(key))];
  const strange = is.find((each) => !asks.has(key(each))) ?? wanted.find((each) => !has.has(key(each)));
  if (strange) {
    throw new BackupError(
      `The database in this backup is not made as Nibrel makes it: ${strange.type} “${strange.name}”. Nothing was put back.`,
    );
  }
  const unsound = unsoundness(db);
  if (unsound !== null) {
    throw new BackupError(
      `The database in this backup is damaged (${unsound}). Nothing was put back: take another one.`,
    );
  }
}

function counted(db: Database.Database, counts: Manifest['counts']): void {
  const found = countsIn(db);
  const wrong = Object.entries(counts ?? found).find(([table, count]) => found[table] !== count);
  if (!wrong) return;
  const [table, count] = wrong;
  throw new BackupError(
    `This backup promises ${count} rows of ${table} and has ${found[table] ?? 'none'}. Nothing was put back: take another one.`,
  );
}

/** Every photograph that the database knows, and none besides. */
function photographs(db: Database.Database, files: readonly BackupFile[]): void {
  const hasPhotos = db.prepare("SELECT 1 FROM sqlite_master WHERE name = 'photos'").get() !== undefined;
  const known = new Set(hasPhotos ? (db.prepare('SELECT hash FROM photos').pluck().all() as string[]) : []);
  const packed = new Set(files.filter(({ name }) => name !== DATABASE_NAME).map(({ sha256 }) => sha256));
  const lost = [...known].find((hash) => !packed.has(hash)) ?? [...packed].find((hash) => !known.has(hash));
  if (lost === undefined) return;
  throw new BackupError(
    `The photograph ${lost} is ${known.has(lost) ? 'missing in' : 'not known to the database of'} this backup. Nothing was put back.`,
  );
}
