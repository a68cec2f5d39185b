import { createHash, randomBytes } from 'node:crypto';
import type { Context } from 'hono';
import { getCookie } from 'hono/cookie';
import { LRUCache } from 'lru-cache';

/** A lead who has shown a secret is believed for so long, in the browser where it was shown: long enough for what is said together. */
const LASTS_ms = 60_000;
export const LEAD_COOKIE = 'nibrel-lead';

interface Confirmed {
  readonly person: string;
  /** ISO 8601 */
  readonly until: string;
}

/** Which browser a lead has shown a secret in. Tokens are kept hashed, and not past the end of the server. */
export class Confirmations {
  readonly #shown = new LRUCache<string, Confirmed>({ max: 500, ttl: LASTS_ms });
  static readonly seconds = LASTS_ms / 1000;

  /** @returns the token for the cookie */
  begin(person: string): string {
    const token = randomBytes(32).toString('base64url');
    this.#shown.set(hashOf(token), { person, until: new Date(Date.now() + LASTS_ms).toISOString() });
    return token;
  }

  of(context: Context): Confirmed | null {
    const token = getCookie(context, LEAD_COOKIE);
    return token === undefined ? null : (this.#shown.get(hashOf(token)) ?? null);
  }

  end(context: Context): void {
    const token = getCookie(context, LEAD_COOKIE);
    if (token !== undefined) this.#shown.delete(hashOf(token));
  }
}

function hashOf(token: string): string {
  return createHash('sha256').update(token).digest('base64url');
}
