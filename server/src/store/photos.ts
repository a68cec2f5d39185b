import { createHash } from 'node:crypto';
import { closeSync, existsSync, fsyncSync, mkdirSync, openSync, renameSync, writeSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { checkPhoto, type PhotoFacts } from '@nibrel/core/photos';
import { and, eq } from 'drizzle-orm';
import type { Db } from './database.ts';
import { photos } from './schema.ts';

export interface StoredPhoto extends PhotoFacts {
  readonly hash: string;
  readonly bytes: number;
}

/** Photographs by the hash of their content: the same picture twice is stored once. */
export class Photos {
  readonly #db: Db;
  readonly #folder: string;

  constructor(db: Db, folder: string) {
    this.#db = db;
    this.#folder = folder;
    mkdirSync(folder, { recursive: true });
  }

  /**
   * Stores a picture for a job; it is on the disk when this returns.
   * @throws PhotoError where it is none
   */
  add(job: string, content: Uint8Array, now: string): StoredPhoto {
    const facts = checkPhoto(content);
    const hash = createHash('sha256').update(content).digest('hex');
    this.#write(hash, content);
    const row = { job, hash, ...facts, bytes: content.byteLength, receivedAt: now };
    this.#db.insert(photos).values(row).onConflictDoNothing().run();
    return { hash, ...facts, bytes: content.byteLength };
  }

  has(job: string, hash: string): boolean {
    return this.#find(job, hash) !== undefined;
  }

  async read(job: string, hash: string): Promise<{ type: string; content: Uint8Array<ArrayBuffer> } | null> {
    const row = this.#find(job, hash);
    return row ? { type: row.type, content: new Uint8Array(await readFile(this.#path(hash))) } : null;
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

  #write(hash: string, content: Uint8Array): void {
    const path = this.#path(hash);
    if (existsSync(path)) return;
    const folder = join(path, '..');
    mkdirSync(folder, { recursive: true });
    const half = `${path}.${process.pid}.part`;
    const file = openSync(half, 'w');
    try {
      writeSync(file, content);
      fsyncSync(file);
    } finally {
      closeSync(file);
    }
    renameSync(half, path);
    const named = openSync(folder, 'r');
    fsyncSync(named);
    closeSync(named);
  }

  #path(hash: string): string {
    return join(this.#folder, hash.slice(0, 2), hash);
  }
}
