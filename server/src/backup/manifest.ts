import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';

/** What a backup holds: every file with its length and hash, so that it can be told whether it is whole. */
export interface Manifest {
  readonly format: 'nibrel.backup';
  readonly version: 1;
  /** ISO 8601 */
  readonly at: string;
  readonly files: readonly BackupFile[];
}

export interface BackupFile {
  readonly name: string;
  readonly bytes: number;
  /** SHA-256, hexadecimal */
  readonly sha256: string;
}

export const MANIFEST_NAME = 'manifest.json';
export const DATABASE_NAME = 'nibrel.sqlite';

/** Why there is no backup, or why it is not put back: a sentence, with what is safe and what to do. */
export class BackupError extends Error {
  override readonly name = 'BackupError';
}

export async function hashOf(path: string): Promise<string> {
  const sum = createHash('sha256');
  for await (const chunk of createReadStream(path)) sum.update(chunk as Buffer);
  return sum.digest('hex');
}

/** A name in the archive that stays within the folder it is put into. */
export function isOwnName(name: string): boolean {
  return name === DATABASE_NAME || /^photos\/[0-9a-f]{2}\/[0-9a-f]{64}$/.test(name);
}
