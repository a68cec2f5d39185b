import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join, relative } from 'node:path';
import { lanes, run } from './steps.mjs';
import { browserInstalled, built, installed, root } from './setup.mjs';

// npm test on a fresh machine: installs what is missing, then types, lint, format, units, and the built application in
// a browser. Goes on after a failure, so that one run tells all; closes with one line.
process.chdir(root);
await installed();
const chromium = await browserInstalled();
await built();

const PARTS = ['core', 'server', 'web'];
const results = join(root, 'test-results');
rmSync(results, { recursive: true, force: true });
mkdirSync(results, { recursive: true });

const resultsOf = (part) => join(results, `${part}.json`);
const read = (part) => (existsSync(resultsOf(part)) ? JSON.parse(readFileSync(resultsOf(part), 'utf8')) : null);

function units(part) {
  const told = ['--reporter=default', '--reporter=json', `--outputFile.json=${resultsOf(part)}`];
  return [`units of ${part}`, 'npx', ['vitest', 'run', '--root', part, ...told]];
}

const ended = await lanes([
  [units('core')],
  [
    ...[...PARTS, 'e2e'].map((part) => [`types of ${part}`, 'npx', ['tsc', '-p', part]]),
    ['lint', 'npx', ['oxlint', '--deny-warnings']],
    ['format', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']],
    ['unused code', 'npx', ['knip']],
    units('web'),
    units('server'),
  ],
]);

console.log('\n— the built application in a browser');
const since = performance.now();
const code = await run('npx', ['playwright', 'test', '--config', 'e2e/playwright.config.ts'], {
  env: { ...process.env, NIBREL_CHROMIUM: chromium, PLAYWRIGHT_JSON_OUTPUT_NAME: resultsOf('e2e') },
});
const inBrowser = { name: 'the browser', seconds: Math.round((performance.now() - since) / 1000) };

console.log(`\nSeconds: ${[...ended, inBrowser].map(({ name, seconds }) => `${name} ${seconds}`).join(', ')}`);
console.log(`The slowest files:\n${slowest(10).join('\n')}`);
const { passed, failed } = total();
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);

function total() {
  const sum = { passed: 0, failed: 0 };
  for (const { name, passed } of ended) {
    const told = name.startsWith('units of ') ? read(name.slice('units of '.length)) : null;
    sum.passed += told ? told.numPassedTests : Number(passed);
    sum.failed += told?.numFailedTests ? told.numFailedTests : Number(!passed);
  }
  const stats = read('e2e')?.stats;
  const broken = (stats?.unexpected ?? 0) + (stats?.flaky ?? 0);
  sum.passed += stats?.expected ?? 0;
  sum.failed += code !== 0 && broken === 0 ? 1 : broken;
  return sum;
}

function slowest(most) {
  const unitFiles = PARTS.flatMap((part) =>
    (read(part)?.testResults ?? []).map(({ name, startTime, endTime }) => ({
      name: relative(root, name),
      seconds: (endTime - startTime) / 1000,
    })),
  );
  const seconds = ({ specs = [], suites = [] }) =>
    specs
      .flatMap(({ tests }) => tests.flatMap((each) => each.results))
      .reduce((sum, { duration }) => sum + duration / 1000, 0) + suites.reduce((sum, each) => sum + seconds(each), 0);
  const browserFiles = (read('e2e')?.suites ?? []).map((each) => ({
    name: `e2e/${each.file}`,
    seconds: seconds(each),
  }));
  return [...unitFiles, ...browserFiles]
    .toSorted((a, b) => b.seconds - a.seconds)
    .slice(0, most)
    .map((each) => `${each.seconds.toFixed(0).padStart(5)} s  ${each.name}`);
}
