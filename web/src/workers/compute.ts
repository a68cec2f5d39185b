import { type Remote, wrap } from 'comlink';
import type { Compute } from './compute.worker.ts';

function start(): Remote<Compute> {
  return wrap<Compute>(new Worker(new URL('./compute.worker.ts', import.meta.url), { type: 'module' }));
}

let first: Remote<Compute> | null = null;
let second: Remote<Compute> | null = null;

/** The page's compute thread: plans that somebody waits for. */
export function computeNow(): Remote<Compute> {
  first ??= start();
  return first;
}

/** A second thread for what can take its time: proofs, and what other policies would cost. */
export function computeLater(): Remote<Compute> {
  second ??= start();
  return second;
}

/**
 * A thread of its own for what can take minutes and nobody waits for: nothing queues behind it, and it ends with its
 * answer, or when that is no longer wanted.
 */
export async function computedApart<T>(wanted: AbortSignal, ask: (compute: Remote<Compute>) => Promise<T>): Promise<T> {
  const worker = new Worker(new URL('./compute.worker.ts', import.meta.url), { type: 'module' });
  const ended = new Promise<never>((_, reject) => {
    worker.addEventListener('error', ({ message }) => reject(new Error(message)), { once: true });
    wanted.addEventListener('abort', () => reject(new Error('It is no longer wanted.')), { once: true });
  });
  try {
    return await Promise.race([ask(wrap<Compute>(worker)), ended]);
  } finally {
    worker.terminate();
  }
}
