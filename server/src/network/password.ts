import { randomBytes, randomInt, scrypt, timingSafeEqual } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { promisify } from 'node:util';

const derive = promisify<string, Buffer, number, Buffer>(scrypt);
const BYTES = 32;
const LEAST = 10;

/** A password that is too short to keep anybody out. */
export class PasswordError extends Error {
  override readonly name = 'PasswordError';
}

/** The workshop's password: its salted hash in the data folder, never itself. */
export class Password {
  readonly #salt: Buffer;
  readonly #hash: Buffer;

  private constructor(salt: Buffer, hash: Buffer) {
    this.#salt = salt;
    this.#hash = hash;
  }

  /**
   * The one that was set before; else the one given, else one made up, which is told once.
   * @throws PasswordError where the given one is too short
   */
  static async in(folder: string, given: string | undefined): Promise<{ password: Password; made: string | null }> {
    const file = join(folder, 'network', 'password.json');
    if (existsSync(file) && given === undefined) {
      const { salt, hash } = JSON.parse(readFileSync(file, 'utf8')) as { salt: string; hash: string };
      return { password: new Password(Buffer.from(salt, 'base64'), Buffer.from(hash, 'base64')), made: null };
    }
    if (given !== undefined && given.length < LEAST) {
      throw new PasswordError(`NIBREL_PASSWORD has to have ${LEAST} characters at least. Nothing was changed.`);
    }
    const made = given ?? madeUp();
    const salt = randomBytes(16);
    const hash = await derive(made, salt, BYTES);
    mkdirSync(join(folder, 'network'), { recursive: true, mode: 0o700 });
    const kept = { salt: salt.toString('base64'), hash: hash.toString('base64') };
    writeFileSync(file, JSON.stringify(kept), { mode: 0o600 });
    return { password: new Password(salt, hash), made: given === undefined ? made : null };
  }

  async is(text: string): Promise<boolean> {
    return timingSafeEqual(await derive(text, this.#salt, BYTES), this.#hash);
  }
}

/** Letters and digits that nobody mistakes for others. */
const LETTERS = 'abcdefghjkmnpqrstuvwxyz23456789';

/** In groups that can be read aloud: 20 letters of 31, some 99 bits. */
function madeUp(): string {
  const letters = Array.from({ length: 20 }, () => LETTERS[randomInt(LETTERS.length)]!);
  return [0, 5, 10, 15].map((at) => letters.slice(at, at + 5).join('')).join('-');
}
