export { askedAhead, askedBack } from './looked-at.ts';
export { always, LOOK_KEYS } from './always.ts';
export { askedAtBench } from './asked-at-bench.ts';
export { whileHeld } from './held.ts';
export type { BenchNow } from './bench-now.ts';
export { TROUBLES, whatIsWrong, whatIsWrongApart } from './wrong.ts';
