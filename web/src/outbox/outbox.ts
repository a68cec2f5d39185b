import { asData, type Problem, wrong } from '@nibrel/core/model/refusal';
import type { BenchEvent } from '@nibrel/core/job/events';
import type { ShopEvent } from '@nibrel/core/workshop/shop';
import PQueue from 'p-queue';
import pRetry from 'p-retry';
import { createStore, type StoreApi } from 'zustand';
import type { Appended } from '@nibrel/core/api';
import { Refused } from '../app/client.ts';
import type { Letter, Shelf } from './shelf.ts';

/** What became of a letter: on the server's disk, with the revision after it; or why it was not taken. */
export type Answer =
  | { readonly revision: number; readonly receivedAt: string }
  | {
      readonly problem: Problem;
      /** what a lead may say, by name and with a secret */ readonly needs?: 'lead' | 'secret';
    };

export interface OutboxState {
  /** on their way, the oldest first: nothing of them is shown as done */
  readonly waiting: readonly Letter[];
  /** the server does not answer; it is tried again and again */
  readonly unreachable: boolean;
  /** nobody is signed in any more: it goes on once somebody is */
  readonly signedOut: boolean;
  /** letters that had to wait and that the server did not take: here until somebody has understood it */
  readonly returned: readonly { readonly letter: Letter; readonly problem: Problem }[];
}

export interface Sending {
  /** asked when its turn has come: why it is not sent after all, null where it is */
  judge?(): Problem | null;
  /** told of the answer before the next of the same job has its turn */
  settle?(answer: Answer, hadToWait: boolean): Promise<void> | void;
}

interface OutboxOptions {
  readonly shelf: Shelf;
  /** names this window among those of this browser */
  readonly window: string;
  post(to: string, event: BenchEvent | ShopEvent): Promise<Appended>;
  /** asks a lead for their own secret; @returns was it shown? */
  confirm?(person: string): Promise<boolean>;
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
  /** letters that were asked for while nobody answered, or that nobody answered at first */
  readonly #waited = new Set<string>();
  #order = Date.now();

  constructor(options: OutboxOptions) {
    this.#options = options;
  }

  /** @returns once it was answered, however long the server is away; null where this window was closed before */
  send(to: string, event: BenchEvent | ShopEvent, sending: Sending = {}): Promise<Answer | null> {
    const letter = { id: event.id, to, event, window: this.#options.window, order: this.#order++ };
    const { unreachable, signedOut } = this.state.getState();
    if (unreachable || signedOut) this.#waited.add(letter.id);
    const shelved = this.#options.shelf.put(letter).catch(() => undefined);
    return this.#inTurn(letter, sending, shelved);
  }

  /** Sends what windows have left behind that are gone. @param isOpen is the window still there? */
  async resume(isOpen: (window: string) => Promise<boolean> | boolean): Promise<void> {
    for (const letter of await this.#options.shelf.all()) {
      if (letter.window === this.#options.window || (await isOpen(letter.window))) continue;
      if (letter.problem === undefined) {
        this.#waited.add(letter.id);
        void this.#inTurn(letter, {}, Promise.resolve());
      } else this.#return(letter, letter.problem);
    }
  }

  /** Forgets a letter that came back, once somebody has read why. */
  understood(id: string): void {
    void this.#options.shelf.drop(id).catch(() => undefined);
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
        const hadToWait = this.#waited.delete(letter.id);
        // who pressed it may be at something else by now: it stays in sight, and on the shelf
        if ('problem' in answer && hadToWait) {
          void shelved.then(() => this.#return(letter, answer.problem));
        } else void shelved.then(() => this.#options.shelf.drop(letter.id)).catch(() => undefined);
        this.#options.onAnswer?.(letter, answer);
        await settle?.(answer, hadToWait);
        return answer;
      } finally {
        this.#change(({ waiting }) => ({ waiting: waiting.filter(({ id }) => id !== letter.id) }));
      }
    });
  }

  #return(letter: Letter, problem: Problem): void {
    void this.#options.shelf.put({ ...letter, problem }).catch(() => undefined);
    this.#change(({ returned }) => ({ returned: [...returned, { letter, problem }] }));
  }

  async #delivered(letter: Letter): Promise<Answer | null> {
    const answer = await this.#posted(letter);
    const isAsked = answer !== null && 'problem' in answer && answer.needs === 'secret';
    if (!isAsked || !(await this.#options.confirm?.(letter.event.by))) return answer;
    return this.#delivered(letter);
  }

  async #posted({ to, event, id }: Letter): Promise<Answer | null> {
    try {
      const answer = await pRetry(() => this.#options.post(to, event), {
        retries: Number.POSITIVE_INFINITY,
        minTimeout: RETRY_MS,
        factor: 1,
        signal: this.#stopped.signal,
        onFailedAttempt: ({ error }) => {
          if (isRefusal(error)) return;
          this.#waited.add(id);
          const signedOut = error instanceof Refused && error.status === 401;
          this.#change(() => ({ signedOut, unreachable: !signedOut }));
        },
        shouldRetry: ({ error }) => !isRefusal(error),
      });
      this.#change(() => ANSWERED);
      const rejected = answer.rejected.find((each) => each.id === id);
      if (!rejected) return { revision: answer.revision, receivedAt: answer.receivedAt };
      return { problem: asData(rejected), ...(rejected.needs ? { needs: rejected.needs } : {}) };
    } catch (error) {
      if (this.#stopped.signal.aborted) return null;
      this.#change(() => ANSWERED);
      return { problem: wrong('', (error as Error).message) };
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
