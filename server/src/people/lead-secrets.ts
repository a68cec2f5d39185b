import {
  chmodSync,
  closeSync,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readFileSync,
  renameSync,
  writeSync,
} from 'node:fs';
import { dirname } from 'node:path';
import { nameKey } from '@nibrel/core/model/names';
import { hashed, type Hashed, isHashOf } from './hashed.ts';
import { DiskProblem } from '../disk/disk-problem.ts';

/** The secrets of leads, each set once by its owner: salted hashes in a file of the data folder, in no backup. */
export class LeadSecrets {
  readonly #file: string | null;
  #kept: ReadonlyMap<string, Hashed>;
  /** in a demonstration everybody is everybody, and so they are shown */
  readonly #shown = new Map<string, string>();

  private constructor(file: string | null, kept: Map<string, Hashed>) {
    this.#file = file;
    this.#kept = kept;
  }

  /** @throws DiskProblem where the file is damaged */
  static in(file: string): LeadSecrets {
    if (!existsSync(file)) return new LeadSecrets(file, new Map());
    try {
      const kept = JSON.parse(readFileSync(file, 'utf8')) as Record<string, Hashed>;
      for (const each of Object.values(kept)) {
        if (typeof each.salt !== 'string' || typeof each.hash !== 'string') throw new Error('no hash');
      }
      return new LeadSecrets(file, new Map(Object.entries(kept)));
    } catch (error) {
      const said = `The file of the leads' secrets, ${file}, is damaged and was left as it is. Move it away: each lead then sets a secret again.`;
      throw new DiskProblem(said, { cause: error });
    }
  }

  /** For a server that keeps none beyond its end. */
  static inMemory(): LeadSecrets {
    return new LeadSecrets(null, new Map());
  }

  has(person: string): boolean {
    return this.#kept.has(nameKey(person));
  }

  /** @returns false where one was set before: it is set once */
  async set(person: string, secret: string, isShown = false): Promise<boolean> {
    if (this.has(person)) return false;
    const kept = await hashed(secret);
    // somebody else may have been quicker
    if (this.has(person)) return false;
    this.#keep(new Map(this.#kept).set(nameKey(person), kept));
    if (isShown) this.#shown.set(nameKey(person), secret);
    return true;
  }

  async is(person: string, secret: string): Promise<boolean> {
    const kept = this.#kept.get(nameKey(person));
    return kept !== undefined && isHashOf(kept, secret);
  }

  shownFor(person: string): string | undefined {
    return this.#shown.get(nameKey(person));
  }

  /** A lead who has forgotten it sets another; whoever starts the server says so. */
  forget(person: string): void {
    const left = new Map(this.#kept);
    if (left.delete(nameKey(person))) this.#keep(left);
  }

  /** On the disk first: a secret that could not be written was not set. */
  #keep(next: ReadonlyMap<string, Hashed>): void {
    if (this.#file !== null) write(this.#file, next);
    this.#kept = next;
  }
}

function write(path: string, secrets: ReadonlyMap<string, Hashed>): void {
  mkdirSync(dirname(path), { recursive: true, mode: 0o700 });
  const half = `${path}.part`;
  const file = openSync(half, 'w', 0o600);
  try {
    writeSync(file, JSON.stringify(Object.fromEntries(secrets)));
    fsyncSync(file);
  } finally {
    closeSync(file);
  }
  chmodSync(half, 0o600);
  renameSync(half, path);
}
