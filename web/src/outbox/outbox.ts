import type { BenchEvent } from '@nibrel/core/job';
import type { ShopEvent } from '@nibrel/core/shop';
import PQueue from 'p-queue';
import pRetry from 'p-retry';
import { createStore, type StoreApi } from 'zustand';
import type { Appended } from '@nibrel/core/api';
import { Refused } from '../app/client.ts';
import type { Letter, Shelf } from './shelf.ts';

/** What became of a letter: on the server's disk, with the revision after it; or why it was not taken. */
export type Answer = { readonly revision: number } | { readonly problem: string };

export interface OutboxState {
  /** on their way, the oldest first: nothing of them is shown as done */
  readonly waiting: readonly Letter[];
  /** the server does not answer; it is tried again and again */
  readonly unreachable: boolean;
  /** nobody is signed in any more: it goes on once somebody is */
  readonly signedOut: boolean;
  /** letters of a window that is gone, which the server did not take */
  readonly returned: readonly { readonly letter: Letter; readonly problem: string }[];
}

export interface Sending {
  /** asked when its turn has come: why it is not sent after all, null where it is */
  judge?(): string | null;
  /** told of the answer before the next of the same job has its turn */
  settle?(answer: Answer): Promise<void> | void;
}

interface OutboxOptions {
  readonly shelf: Shelf;
  /** names this window among those of this browser */
  readonly window: string;
  post(to: string, event: BenchEvent | ShopEvent): Promise<Appended>;
  /** told of every answer, whoever sent it */
  onAnswer?(letter: Letter, answer: Answer): void;
}

const RETRY_MS = 1500;

/**
 * The one way from a window to the server's disk. Letters to one job go one after the other, in the order in which they
 * were asked for; each is on the shelf until it was answered, and is sent again for as long as nobody answers.
 */
export class Outbox {
  readonly state: StoreApi<OutboxState> = createStore(() => ({
    waiting: [],
    unreachable: false,
    signedOut: false,
    returned: [],
  }));
  readonly #options: OutboxOptions;
  readonly #queues = new Map<string, PQueue>();
  readonly #stopped = new AbortController();
  #order = Date.now();

  constructor(options: OutboxOptions) {
    this.#options = options;
  }

  /** @returns once it was answered, however long the server is away; null where this window was closed before */
  send(to: string, event: BenchEvent | ShopEvent, sending: Sending = {}): Promise<Answer | null> {
    const letter = { id: event.id, to, event, window: this.#options.window, order: this.#order++ };
    const shelved = this.#options.shelf.put(letter).catch(() => undefined);
    return this.#inTurn(letter, sending, shelved);
  }

  /** Sends what windows have left behind that are gone. @param isOpen is the window still there? */
  async resume(isOpen: (window: string) => Promise<boolean> | boolean): Promise<void> {
    for (const letter of await this.#options.shelf.all()) {
      if (letter.window === this.#options.window || (await isOpen(letter.window))) continue;
      const settle = (answer: Answer) => {
        if ('problem' in answer) this.#change(({ returned }) => ({ returned: [...returned, { letter, ...answer }] }));
      };
      void this.#inTurn(letter, { settle }, Promise.resolve());
    }
  }

  /** Forgets a letter that came back, once somebody has read why. */
  understood(id: string): void {
    this.#change(({ returned }) => ({ returned: returned.filter(({ letter }) => letter.id !== id) }));
  }

  /** Stops trying; what was not answered stays on the shelf. */
  close(): void {
    this.#stopped.abort();
  }

  /** It is shelved and sent at the same time: what nobody has shown as done may be lost, what was sent is answered once. */
  #inTurn(letter: Letter, { judge, settle }: Sending, shelved: Promise<unknown>): Promise<Answer | null> {
    const queue = this.#queues.get(letter.to) ?? new PQueue({ concurrency: 1 });
    this.#queues.set(letter.to, queue);
    this.#change(({ waiting }) => ({ waiting: [...waiting, letter] }));
    return queue.add(async () => {
      try {
        const objection = judge?.() ?? null;
        const answer = objection === null ? await this.#delivered(letter) : { problem: objection };
        if (answer === null) return null;
        void shelved.then(() => this.#options.shelf.drop(letter.id)).catch(() => undefined);
        this.#options.onAnswer?.(letter, answer);
        await settle?.(answer);
        return answer;
      } finally {
        this.#change(({ waiting }) => ({ waiting: waiting.filter(({ id }) => id !== letter.id) }));
      }
    });
  }

  async #delivered({ to, event, id }: Letter): Promise<Answer | null> {
    try {
      const answer = await pRetry(() => this.#options.post(to, event), {
        retries: Number.POSITIVE_INFINITY,
        minTimeout: RETRY_MS,
        factor: 1,
        signal: this.#stopped.signal,
        onFailedAttempt: ({ error }) => {
          if (isRefusal(error)) return;
          const signedOut = error instanceof Refused && error.status === 401;
          this.#change(() => ({ signedOut, unreachable: !signedOut }));
        },
        shouldRetry: ({ error }) => !isRefusal(error),
      });
      this.#change(() => ANSWERED);
      const rejected = answer.rejected.find((each) => each.id === id);
      return rejected ? { problem: rejected.problem } : { revision: answer.revision };
    } catch (error) {
      if (this.#stopped.signal.aborted) return null;
      this.#change(() => ANSWERED);
      return { problem: (error as Error).message };
    }
  }

  #change(change: (state: OutboxState) => Partial<OutboxState>): void {
    this.state.setState(change(this.state.getState()));
  }
}

const ANSWERED = { unreachable: false, signedOut: false };

/** Asked later these may be taken: nobody is signed in, or the server has too much to do. */
const LATER: readonly number[] = [401, 408, 429];

/** Has the server looked at it and will not take it, however often it is asked? */
function isRefusal(error: unknown): boolean {
  return error instanceof Refused && error.status < 500 && !LATER.includes(error.status);
}
