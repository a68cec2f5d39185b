import { defineConfig } from 'vitest/config';

// as it is built: the development build of React notes where every element was made, which takes half of the time
process.env['NODE_ENV'] = 'production';

export default defineConfig({
  oxc: { jsx: { development: false } },
  test: { include: ['src/**/*.test.{ts,tsx}'], isolate: false },
});
