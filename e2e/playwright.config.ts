import { defineConfig } from '@playwright/test';

export default defineConfig({
  testDir: '.',
  testMatch: '**/*.e2e.ts',
  globalSetup: './seeded.ts',
  outputDir: '../test-results/e2e',
  // a server each, and a browser each
  workers: 2,
  timeout: 240_000,
  // as patient as with a press: a slow machine is no failure
  expect: { timeout: 30_000 },
  reporter: [
    ['list'],
    ['json', { outputFile: process.env['PLAYWRIGHT_JSON_OUTPUT_NAME'] ?? '../test-results/e2e.json' }],
  ],
  use: {
    viewport: { width: 1280, height: 800 },
    // what moves without end is drawn without end, and by no graphics card here
    contextOptions: { reducedMotion: 'reduce' },
    actionTimeout: 30_000,
    launchOptions: {
      executablePath: process.env['NIBREL_CHROMIUM'] ?? '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
});
