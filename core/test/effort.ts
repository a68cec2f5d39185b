const LOOP = process.env['NIBREL_LOOP'];

/** Whole products of what is otherwise tried in pairs, and every sample (`npm run test:long`). */
export const IS_LONG = LOOP === 'long';

/** How much of its samples a test takes: all in the long run, a fifth in the fast loop (`npm run check`). */
export const EFFORT = IS_LONG ? 1 : LOOP === 'fast' ? 0.2 : 0.5;

/** Every so many of a list, as the effort is; the first is always among them. */
export function sampled<T>(list: readonly T[]): readonly T[] {
  const step = Math.round(1 / EFFORT);
  return list.filter((_, at) => at % step === 0);
}
