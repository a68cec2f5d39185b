import { type Remote, wrap } from 'comlink';
import PQueue from 'p-queue';
import type { Compute } from './compute.worker.ts';

/** What is asked for while a slider moves is only computed once it has rested so long. */
const REST_MS = 80;

/**
 * The thread that foresees warmings, one at a time. What nobody waits for any more is not begun; what was begun is
 * stopped in the middle, with its thread.
 */
class HeatThread {
  readonly #queue = new PQueue({ concurrency: 1 });
  #worker: Worker | null = null;
  #remote: Remote<Compute> | null = null;

  /** @throws the signal's reason where that comes first */
  async run<T>(work: (compute: Remote<Compute>) => Promise<T>, signal: AbortSignal): Promise<T> {
    await rested(signal);
    return this.#queue.add(() => this.#stoppable(work, signal), { signal });
  }

  #stoppable<T>(work: (compute: Remote<Compute>) => Promise<T>, signal: AbortSignal): Promise<T> {
    return new Promise<T>((resolve, reject) => {
      const stop = () => {
        this.#worker?.terminate();
        this.#worker = null;
        this.#remote = null;
        reject(signal.reason as Error);
      };
      if (signal.aborted) return reject(signal.reason as Error);
      signal.addEventListener('abort', stop, { once: true });
      void work(this.#thread())
        .then(resolve, reject)
        .finally(() => signal.removeEventListener('abort', stop));
    });
  }

  #thread(): Remote<Compute> {
    if (this.#remote) return this.#remote;
    this.#worker = new Worker(new URL('./compute.worker.ts', import.meta.url), { type: 'module' });
    this.#remote = wrap<Compute>(this.#worker);
    return this.#remote;
  }
}

function rested(signal: AbortSignal): Promise<void> {
  return new Promise((resolve, reject) => {
    const timer = setTimeout(resolve, REST_MS);
    signal.addEventListener(
      'abort',
      () => {
        clearTimeout(timer);
        reject(signal.reason as Error);
      },
      { once: true },
    );
  });
}

export const heatThread = new HeatThread();
