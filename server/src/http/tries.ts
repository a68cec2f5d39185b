import type { Context } from 'hono';
import { LRUCache } from 'lru-cache';
import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible';
import { HttpProblem } from './http-problem.ts';

/** In a minute: wrong tries from one address, and from all that nobody knows yet, together. */
const TRIES = 5;
const TRIES_OF_STRANGERS = 60;
/** An address from which somebody came in is known for so long, and the last so many of them are. */
const KNOWN_ms = 30 * 24 * 3600 * 1000;
const MOST_KNOWN = 10_000;

/**
 * How often something secret may be guessed. Only wrong tries count. Addresses from which somebody has come in before have
 * a count of their own, so that guesses from many others never keep them out.
 */
export class Tries {
  readonly #each = new RateLimiterMemory({ points: TRIES, duration: 60 });
  readonly #strangers = new RateLimiterMemory({ points: TRIES_OF_STRANGERS, duration: 60 });
  readonly #known = new LRUCache<string, true>({ max: MOST_KNOWN, ttl: KNOWN_ms });
  readonly #underWay = new Map<string, number>();

  /** @throws HttpProblem 429 */
  async guess(context: Context, isRight: () => Promise<boolean>): Promise<boolean> {
    const address = addressOf(context);
    // tries at the same time count before they are known to be wrong
    const more = this.#underWay.get(address) ?? 0;
    this.#underWay.set(address, more + 1);
    try {
      await this.#mayTry(address, more);
      if (await isRight()) {
        this.#known.set(address, true);
        return true;
      }
      await this.#wrong(address);
      return false;
    } finally {
      const left = this.#underWay.get(address)! - 1;
      if (left > 0) this.#underWay.set(address, left);
      else this.#underWay.delete(address);
    }
  }

  async #mayTry(address: string, more: number): Promise<void> {
    const own = await this.#each.get(address);
    const all = this.#known.has(address) ? null : await this.#strangers.get('all');
    const isOver = (own?.consumedPoints ?? 0) + more >= TRIES;
    const areOver = (all?.consumedPoints ?? 0) >= TRIES_OF_STRANGERS;
    if (!isOver && !areOver) return;
    const wait_ms = Math.max(isOver ? (own?.msBeforeNext ?? 1000) : 0, areOver ? all!.msBeforeNext : 0);
    const seconds = Math.max(1, Math.ceil(wait_ms / 1000));
    throw new HttpProblem(429, `Too many tries. Wait ${seconds} s.`, [], { 'retry-after': String(seconds) });
  }

  async #wrong(address: string): Promise<void> {
    const counted = [this.#each.consume(address)];
    if (!this.#known.has(address)) counted.push(this.#strangers.consume('all'));
    for (const each of counted) {
      await each.catch((error: unknown) => {
        if (!(error instanceof RateLimiterRes)) throw error;
      });
    }
  }
}

/** An IPv6 network has more addresses than anybody counts: its first 64 bits are one. */
function addressOf(context: Context): string {
  const { incoming } = context.env as { incoming?: { socket?: { remoteAddress?: string } } };
  const address = (incoming?.socket?.remoteAddress ?? 'unknown').replace(/^::ffff:/, '');
  return address.includes(':') ? network64(address) : address;
}

function network64(address: string): string {
  const [head = '', tail] = address.replace(/%.*$/, '').split('::') as [string, string?];
  const first = head === '' ? [] : head.split(':');
  const last = tail === undefined || tail === '' ? [] : tail.split(':');
  const zeros =
    tail === undefined ? [] : Array.from({ length: Math.max(0, 8 - first.length - last.length) }, () => '0');
  return [...first, ...zeros, ...last].slice(0, 4).join(':');
}
