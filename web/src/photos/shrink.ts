import { type Remote, wrap } from 'comlink';
import type { Shrinker, Shrunk } from './shrink.worker.ts';

let shrinker: Remote<Shrinker> | null = null;

/** Makes a photograph small enough to be shown; it is checked by its content first. */
export function shrink(file: File): Promise<Shrunk> {
  shrinker ??= wrap<Shrinker>(new Worker(new URL('./shrink.worker.ts', import.meta.url), { type: 'module' }));
  return shrinker.shrink(file);
}
