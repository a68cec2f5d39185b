import { defineConfig } from 'vitest/config';

/** What goes through whole devices, or lies at every step, takes its time: `npm test` has it, the fast loop has not. */
const SLOW = [
  'physics/heat/field',
  'physics/heat/device-field',
  'job/fold/liar',
  'job/fold/whole-way',
  'planner/plan/careful-order',
  'planner/plan/in-vain',
  'planner/words/told-in-time',
  'bench/in-hand/leaving',
  'asking/at-bench/whole-repairs',
  'drawn/picture/picture',
  'teardown/infer/infer-map',
].map((each) => `src/${each}.test.ts`);

// nothing in the core keeps anything between calls, so that its tests can share what they import
export default defineConfig({
  test: {
    include: ['src/**/*.test.ts', 'test/**/*.test.ts'],
    exclude: process.env['NIBREL_LOOP'] === 'fast' ? SLOW : [],
    testTimeout: 120_000,
    isolate: false,
  },
});
