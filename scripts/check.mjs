import { lanes } from './steps.mjs';

process.env.NIBREL_LOOP = 'fast';

/** Types of a project; what has not changed since the last time is not looked at again. */
function types(project) {
  const kept = `node_modules/.cache/tsc-${project}.json`;
  return [`types of ${project}`, 'npx', ['tsc', '-p', project, '--incremental', '--tsBuildInfoFile', kept]];
}

const units = (part) => [`units of the ${part}`, 'npx', ['vitest', 'run', '--root', part]];

// The fast loop: types, lint, format, units, of random samples a fifth, of what floods or waits nothing. `npm test` adds the built application in a browser.
const ended = await lanes([
  [units('core')],
  [
    types('core'),
    types('server'),
    types('web'),
    types('e2e'),
    ['lint', 'npx', ['oxlint', '--deny-warnings']],
    [
      'format',
      'npx',
      [
        'prettier',
        '--check',
        '--cache',
        '--cache-location',
        'node_modules/.cache/formatted',
        '--log-level',
        'warn',
        '.',
      ],
    ],
    units('web'),
    units('server'),
  ],
]);
if (ended.some(({ passed }) => !passed)) process.exit(1);
