/** Share of its samples that a test takes: all of them, save in the fast loop (`npm run check`), which takes a fifth. */
export const EFFORT = process.env['NIBREL_LOOP'] === 'fast' ? 0.2 : 1;
