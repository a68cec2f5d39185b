import { lanes } from './steps.mjs';

// The fast loop: types, lint, format, units. `npm test` adds the built application in a browser.
await lanes([
  [['units of the core', 'npx', ['vitest', 'run', '--root', 'core']]],
  [
    ['types of the core', 'npx', ['tsc', '-p', 'core']],
    ['types of the server', 'npx', ['tsc', '-p', 'server']],
    ['types of the web', 'npx', ['tsc', '-p', 'web']],
    ['types of the browser tests', 'npx', ['tsc', '-p', 'e2e']],
    ['lint', 'npx', ['oxlint', '--deny-warnings']],
    ['format', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']],
    ['units of the server', 'npx', ['vitest', 'run', '--root', 'server']],
    ['units of the web', 'npx', ['vitest', 'run', '--root', 'web']],
  ],
]);
