import { createHash, randomUUID } from 'node:crypto';
import { createReadStream, mkdirSync, readdirSync, rmSync, statSync } from 'node:fs';
import { type FileHandle, mkdir, open, readFile, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { type PhotoFacts, typeOf } from '@nibrel/core/model/photos';
import { and, eq } from 'drizzle-orm';
import type { Db } from './database.ts';
import { photos } from './schema.ts';

export interface StoredPhoto extends PhotoFacts {
  readonly hash: string;
  readonly bytes: number;
}

/** A picture as it is to be kept, with the hash of its content. */
export interface ReadyPhoto extends PhotoFacts {
  readonly hash: string;
  readonly content: Uint8Array;
}

/** Photographs by the hash of their content: the same picture twice is stored once. */
export class Photos {
  readonly #db: Db;
  readonly #folder: string;

  constructor(db: Db, folder: string) {
    this.#db = db;
    this.#folder = folder;
    mkdirSync(folder, { recursive: true });
    this.#sweep();
  }

  /** Stores a picture for a job; it is on the disk, whole, when this is answered. */
  async add(job: string, photo: ReadyPhoto, now: string): Promise<StoredPhoto> {
    const { hash, content, type, width, height } = photo;
    await this.#write(hash, content);
    const facts = { hash, type, width, height, bytes: content.byteLength };
    this.#db
      .insert(photos)
      .values({ job, ...facts, receivedAt: now })
      .onConflictDoNothing()
      .run();
    return facts;
  }

  has(job: string, hash: string): boolean {
    return this.#find(job, hash) !== undefined;
  }

  async read(job: string, hash: string): Promise<{ type: string; content: Uint8Array<ArrayBuffer> } | null> {
    const row = this.#find(job, hash);
    if (!row) return null;
    const content = await readFile(this.#path(hash)).catch(() => null);
    if (!content) return null;
    // by what it is, whatever a row says that was changed on the disk
    return { type: typeOf(content) ?? row.type, content: new Uint8Array(content) };
  }

  list(job: string): { hash: string; type: string }[] {
    return this.#db
      .select({ hash: photos.hash, type: photos.type })
      .from(photos)
      .where(eq(photos.job, job))
      .orderBy(photos.hash)
      .all();
  }

  #find(job: string, hash: string) {
    return this.#db
      .select({ type: photos.type })
      .from(photos)
      .where(and(eq(photos.job, job), eq(photos.hash, hash)))
      .get();
  }

  /** Written beside its place, read back, and only then put there: a name is never on something else. */
  async #write(hash: string, content: Uint8Array): Promise<void> {
    const path = this.#path(hash);
    if (await holds(path, hash)) return;
    const folder = join(path, '..');
    await mkdir(folder, { recursive: true });
    const half = `${path}.${randomUUID()}.part`;
    try {
      const file = await open(half, 'wx');
      try {
        await writeAll(file, content);
        await file.sync();
      } finally {
        await file.close();
      }
      if (!(await holds(half, hash))) throw new ShortWrite();
      await rename(half, path);
    } catch (error) {
      await rm(half, { force: true });
      throw error;
    }
    const named = await open(folder, 'r');
    await named.sync().finally(() => named.close());
  }

  /** What a server that was killed while it wrote has left. */
  #sweep(): void {
    for (const shelf of readdirSync(this.#folder)) {
      const folder = join(this.#folder, shelf);
      if (!statSync(folder).isDirectory()) continue;
      for (const name of readdirSync(folder)) if (name.endsWith('.part')) rmSync(join(folder, name), { force: true });
    }
  }

  #path(hash: string): string {
    return join(this.#folder, hash.slice(0, 2), hash);
  }
}

/** A disk may take less than it was given and say so only in the count. */
async function writeAll(file: FileHandle, content: Uint8Array): Promise<void> {
  for (let at = 0; at < content.byteLength;) {
    const { bytesWritten } = await file.write(content, at);
    if (bytesWritten === 0) throw new ShortWrite();
    at += bytesWritten;
  }
}

/** What was written is not what was to be written: the disk is full, or lies. */
class ShortWrite extends Error {
  readonly code = 'ENOSPC';
  constructor() {
    super('The photograph is not on the disk as it was sent.');
  }
}

/** Is there a file, and does it have this content? Hashed as it is read: nobody waits for a large one. */
async function holds(path: string, hash: string): Promise<boolean> {
  const sum = createHash('sha256');
  try {
    for await (const chunk of createReadStream(path)) sum.update(chunk as Buffer);
  } catch {
    return false;
  }
  return sum.digest('hex') === hash;
}
