import { createHash, randomBytes } from 'node:crypto';
import { EventEmitter } from 'node:events';
import { LRUCache } from 'lru-cache';

/** A working day; whoever is still here after it signs in again. */
const LASTS_ms = 12 * 3600 * 1000;

/** Who is signed in over the network. Tokens are kept hashed, and not past the end of the server. */
export class Sessions {
  readonly #ended = new EventEmitter().setMaxListeners(1000);
  readonly #people = new LRUCache<string, string>({
    max: 500,
    ttl: LASTS_ms,
    ttlAutopurge: true,
    dispose: (_, hash) => this.#ended.emit(hash),
  });

  /** @returns the token for the cookie */
  begin(person: string): string {
    const token = randomBytes(32).toString('base64url');
    this.#people.set(hashOf(token), person);
    return token;
  }

  personOf(token: string | undefined): string | null {
    return token === undefined ? null : (this.#people.get(hashOf(token)) ?? null);
  }

  /** Tells once when a session ends: signed out, too long ago, or one too many. @returns how to stop listening */
  onEnd(token: string | undefined, told: () => void): () => void {
    if (token === undefined) return () => undefined;
    const hash = hashOf(token);
    this.#ended.once(hash, told);
    return () => this.#ended.off(hash, told);
  }

  end(token: string | undefined): void {
    if (token !== undefined) this.#people.delete(hashOf(token));
  }

  static readonly seconds = LASTS_ms / 1000;
}

function hashOf(token: string): string {
  return createHash('sha256').update(token).digest('base64url');
}
