import { randomBytes, scrypt, timingSafeEqual } from 'node:crypto';
import { promisify } from 'node:util';

const derive = promisify<string, Buffer, number, Buffer>(scrypt);
const BYTES = 32;

/** What is kept of something secret: salt and hash (scrypt), base64. */
export interface Hashed {
  readonly salt: string;
  readonly hash: string;
}

export async function hashed(secret: string): Promise<Hashed> {
  const salt = randomBytes(16);
  const hash = await derive(secret, salt, BYTES);
  return { salt: salt.toString('base64'), hash: hash.toString('base64') };
}

export async function isHashOf({ salt, hash }: Hashed, secret: string): Promise<boolean> {
  const kept = Buffer.from(hash, 'base64');
  const given = await derive(secret, Buffer.from(salt, 'base64'), BYTES);
  return kept.length === given.length && timingSafeEqual(given, kept);
}
