import { spawnSync } from 'node:child_process';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { cpus } from 'node:os';
import { browserInstalled, built, installed, root } from './setup.mjs';

// npm run bench: figures as JSON to bench/latest.json. Ratios are against a reference in the same run.
await installed();
await built();
process.env.NIBREL_CHROMIUM = await browserInstalled();

function told(file) {
  const { stdout, stderr, status } = spawnSync('npx', ['tsx', file], { cwd: root, encoding: 'utf8', maxBuffer: 1e8 });
  if (status !== 0) throw new Error(`${file} failed:\n${stderr}`);
  return JSON.parse(stdout.trim().split('\n').at(-1));
}

/** Scripts that the first view loads: what index.html names, and what those import at once. */
function firstView_kB() {
  const assets = join(root, 'web/dist/assets');
  const html = readFileSync(join(root, 'web/dist/index.html'), 'utf8');
  const seen = new Set();
  const visit = (name) => {
    if (seen.has(name)) return;
    seen.add(name);
    const text = readFileSync(join(assets, name), 'utf8');
    for (const [, from] of text.matchAll(/(?:from|import)\s*["']\.\/([^"']+\.js)["']/g)) visit(from);
  };
  for (const [, name] of html.matchAll(/assets\/([^"']+\.js)/g)) visit(name);
  const sizes = readdirSync(assets)
    .filter((name) => seen.has(name))
    .map((name) => gzipSync(readFileSync(join(assets, name))).length);
  return { wanted_kB: 250, gzip_kB: Math.round(sizes.reduce((sum, size) => sum + size, 0) / 1024), files: seen.size };
}

const result = {
  at: new Date().toISOString(),
  machine: { node: process.version, cpu: cpus()[0]?.model, cores: cpus().length },
  firstView: firstView_kB(),
  core: told('core/bench/core.bench.ts'),
  heat: told('core/bench/heat.bench.ts'),
  append: told('server/bench/append.bench.ts'),
  load: told('server/bench/load.bench.ts'),
  photos: told('e2e/photos.bench.ts'),
  keys: told('e2e/keys.bench.ts').keys,
  drawing: told('e2e/drawing.bench.ts').drawing,
  presses: told('e2e/presses.bench.ts').presses,
};
writeFileSync(join(root, 'bench/latest.json'), `${JSON.stringify(result, null, 2)}\n`);
console.log(JSON.stringify(result, null, 2));
