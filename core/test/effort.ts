/** How much of its samples a test takes: all, in the fast loop (`npm run check`) a fifth. */
export const EFFORT = process.env['NIBREL_LOOP'] === 'fast' ? 0.2 : 1;

/** Whole products of what is otherwise tried in pairs (`npm run test:long`). */
export const IS_LONG = process.env['NIBREL_LOOP'] === 'long';
