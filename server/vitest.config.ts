import { defineConfig } from 'vitest/config';

// every server keeps what it has in itself, so that its tests can share what they import
export default defineConfig({
  test: {
    include: ['src/**/*.test.ts', 'test/**/*.test.ts'],
    globalSetup: 'test/build.ts',
    testTimeout: 60_000,
    hookTimeout: 60_000,
    isolate: false,
  },
});
