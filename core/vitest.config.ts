import { defineConfig } from 'vitest/config';

// nothing in the core keeps anything between calls, so that its tests can share what they import
export default defineConfig({
  test: { include: ['src/**/*.test.ts', 'test/**/*.test.ts'], testTimeout: 120_000, isolate: false },
});
