import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { run } from './steps.mjs';
import { browserInstalled, built, installed, root } from './setup.mjs';

// npm test on a fresh machine: installs what is missing, then types, lint, format, units, and the built application in
// a browser. Goes on after a failure, so that one run tells all; closes with one line.
await installed();
const chromium = await browserInstalled();
await built();

const results = join(root, 'test-results');
rmSync(results, { recursive: true, force: true });
mkdirSync(results, { recursive: true });
const total = { passed: 0, failed: 0 };
const count = (ok) => (ok ? total.passed++ : total.failed++);

async function check(name, args) {
  console.log(`\n— ${name}`);
  count((await run('npx', args, { cwd: root })) === 0);
}

for (const part of ['core', 'server', 'web', 'e2e']) await check(`types of ${part}`, ['tsc', '-p', part]);
await check('lint', ['oxlint', '--deny-warnings']);
await check('format', ['prettier', '--check', '--log-level', 'warn', '.']);
await check('unused code', ['knip']);

for (const part of ['core', 'server', 'web']) {
  console.log(`\n— units of ${part}`);
  const file = join(results, `${part}.json`);
  const code = await run(
    'npx',
    ['vitest', 'run', '--root', part, '--reporter=default', '--reporter=json', `--outputFile.json=${file}`],
    { cwd: root },
  );
  const told = existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')) : null;
  total.passed += told?.numPassedTests ?? 0;
  total.failed += told?.numFailedTests ?? 0;
  if (code !== 0 && !told?.numFailedTests) total.failed++;
}

console.log('\n— the built application in a browser');
const file = join(results, 'e2e.json');
const code = await run('npx', ['playwright', 'test', '--config', 'e2e/playwright.config.ts'], {
  cwd: root,
  env: { ...process.env, NIBREL_CHROMIUM: chromium, PLAYWRIGHT_JSON_OUTPUT_NAME: file },
});
const stats = existsSync(file) ? JSON.parse(readFileSync(file, 'utf8')).stats : null;
total.passed += stats?.expected ?? 0;
total.failed += (stats?.unexpected ?? 0) + (stats?.flaky ?? 0);
if (code !== 0 && !stats?.unexpected) total.failed++;

console.log(`\n${total.passed} passed, ${total.failed} failed`);
process.exit(total.failed === 0 ? 0 : 1);
