import { createHash } from 'node:crypto';

type Field = string | number | null;

/**
 * What a row says, as one short text that changes with any letter of it: SQLite finds a page that is torn, and not a byte
 * that another program or a bad disk has changed within a text. 96 bits of SHA-256.
 */
export function sumOf(...fields: readonly Field[]): string {
  return createHash('sha256').update(JSON.stringify(fields)).digest('base64url').slice(0, 16);
}

/** Does a row say what it said when it was written? Rows of an older version have no sum, and are believed. */
export function isWhole(sum: string | null, ...fields: readonly Field[]): boolean {
  return sum === null || sum === sumOf(...fields);
}
