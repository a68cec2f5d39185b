import { defineConfig } from 'vitest/config';

/** Whole devices in plan, and clients that lie at every step, take their time: `npm test` has them, the fast loop has not. */
const SLOW = ['physics/heat/field', 'physics/heat/device-field', 'job/fold/liar'].map((each) => `src/${each}.test.ts`);

// nothing in the core keeps anything between calls, so that its tests can share what they import
export default defineConfig({
  test: {
    include: ['src/**/*.test.ts', 'test/**/*.test.ts'],
    exclude: process.env['NIBREL_LOOP'] === 'fast' ? SLOW : [],
    testTimeout: 120_000,
    isolate: false,
  },
});
