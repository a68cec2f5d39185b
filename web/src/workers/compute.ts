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
