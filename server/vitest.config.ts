import { defineConfig } from 'vitest/config';

/** What floods, waits or breaks a server takes its time: `npm test` has all of it, the fast loop none. */
const SLOW = ['hostile', 'lists', 'network', 'stand-ins', 'disk', 'backup', 'pictures'].map(
  (each) => `test/${each}.test.ts`,
);

// every server keeps what it has in itself, so that its tests can share what they import
export default defineConfig({
  test: {
    include: ['src/**/*.test.ts', 'test/**/*.test.ts'],
    exclude: process.env['NIBREL_LOOP'] === 'fast' ? SLOW : [],
    globalSetup: 'test/build.ts',
    // two lanes share the machine
    testTimeout: 120_000,
    hookTimeout: 60_000,
    isolate: false,
  },
});
