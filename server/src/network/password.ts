import { randomInt } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { hashed, type Hashed, isHashOf } from '../people/hashed.ts';
import { DiskProblem } from '../disk/disk-problem.ts';

const LEAST = 10;

/** A password that is too short to keep anybody out. */
export class PasswordError extends Error {
  override readonly name = 'PasswordError';
}

/** The workshop's password: its salted hash in the data folder, never itself. */
export class Password {
  readonly #kept: Hashed;

  private constructor(kept: Hashed) {
    this.#kept = kept;
  }

  /**
   * The one that was set before; else the one given, else one made up, which is told once.
   * @throws PasswordError where the given one is too short, DiskProblem where the kept one is damaged
   */
  static async in(folder: string, given: string | undefined): Promise<{ password: Password; made: string | null }> {
    const file = join(folder, 'network', 'password.json');
    if (existsSync(file) && given === undefined) return { password: new Password(keptIn(file)), made: null };
    if (given !== undefined && given.length < LEAST) {
      throw new PasswordError(`NIBREL_PASSWORD has to have ${LEAST} characters at least. Nothing was changed.`);
    }
    const made = given ?? madeUp();
    const kept = await hashed(made);
    try {
      mkdirSync(join(folder, 'network'), { recursive: true, mode: 0o700 });
      writeFileSync(file, JSON.stringify(kept), { mode: 0o600 });
    } catch (error) {
      throw DiskProblem.of(error, join(folder, 'network'));
    }
    return { password: new Password(kept), made: given === undefined ? made : null };
  }

  async is(text: string): Promise<boolean> {
    return isHashOf(this.#kept, text);
  }
}

/** @throws DiskProblem */
function keptIn(file: string): Hashed {
  try {
    const { salt, hash } = JSON.parse(readFileSync(file, 'utf8')) as Partial<Hashed>;
    if (typeof salt === 'string' && typeof hash === 'string' && Buffer.from(hash, 'base64').length === 32)
      return { salt, hash };
  } catch {
    // said below
  }
  throw new DiskProblem(
    `The file of the workshop's password, ${file}, is damaged and was left as it is. Set a password again with NIBREL_PASSWORD.`,
  );
}

/** Letters and digits that nobody mistakes for others. */
const LETTERS = 'abcdefghjkmnpqrstuvwxyz23456789';

/** In groups that can be read aloud: 20 letters of 31, some 99 bits. */
function madeUp(): string {
  const letters = Array.from({ length: 20 }, () => LETTERS[randomInt(LETTERS.length)]!);
  return [0, 5, 10, 15].map((at) => letters.slice(at, at + 5).join('')).join('-');
}
