import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { run } from './steps.mjs';

export const root = fileURLToPath(new URL('..', import.meta.url));
const marks = join(root, 'node_modules', '.nibrel');

function hashOf(paths) {
  const hash = createHash('sha256');
  const add = (path) => {
    if (!existsSync(path)) return;
    if (statSync(path).isDirectory()) {
      for (const name of readdirSync(path).toSorted()) {
        if (name !== 'node_modules' && name !== 'dist') add(join(path, name));
      }
    } else hash.update(path.slice(root.length)).update(readFileSync(path));
  };
  paths.forEach((path) => add(join(root, path)));
  return hash.digest('hex');
}

/** Does the work only when what it depends on has changed since it was last done. */
async function once(name, paths, there, work) {
  const mark = join(marks, name);
  const hash = hashOf(paths);
  if (there() && existsSync(mark) && readFileSync(mark, 'utf8') === hash) return;
  await work();
  mkdirSync(marks, { recursive: true });
  writeFileSync(mark, hash);
}

async function must(what, command, args, options) {
  const code = await run(command, args, { cwd: root, ...options });
  if (code === 0) return;
  console.error(`${what} failed (exit ${code}).`);
  process.exit(code);
}

/** Everything from the registry. SQLite is compiled here where no ready-made binary can be fetched. */
export async function installed() {
  const [major] = process.versions.node.split('.').map(Number);
  if (major < 20) {
    console.error(`Nibrel needs Node 20 or newer; this is ${process.version}.`);
    process.exit(1);
  }
  const there = () =>
    existsSync(join(root, 'node_modules', 'better-sqlite3', 'build', 'Release', 'better_sqlite3.node'));
  await once('installed', ['package-lock.json'], there, async () => {
    console.log('Installing packages. Compiling SQLite can take two to three minutes the first time.');
    await must('npm ci', 'npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error']);
  });
}

export async function built() {
  const sources = ['core/src', 'core/package.json', 'web', 'server/src', 'server/vite.config.ts', 'package-lock.json'];
  const there = () =>
    ['web/dist/index.html', 'server/dist/main.js', 'server/dist/backup.js'].every((path) =>
      existsSync(join(root, path)),
    );
  await once('built', sources, there, async () => {
    console.log('Building the web application and the server.');
    await must('The build', 'npm', ['run', 'build', '--silent']);
  });
}

/** Debian's Chromium and a font for the browser tests, by apt where they are missing. */
export async function browserInstalled() {
  const found = chromiumPath();
  if (found) return found;
  console.log('Installing Chromium and fonts with apt.');
  const sudo = process.getuid?.() === 0 ? [] : ['sudo'];
  const apt = async (...args) => {
    const [command, ...rest] = [...sudo, 'apt-get', ...args];
    await must(`apt-get ${args[0]}`, command, rest, {
      env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
      stdio: ['ignore', 'ignore', 'inherit'],
    });
  };
  await apt('update', '-qq');
  await apt('install', '-y', '-qq', 'chromium', 'fonts-dejavu-core');
  const path = chromiumPath();
  if (!path) {
    console.error('apt installed no chromium. Install Chromium and put it on the PATH.');
    process.exit(1);
  }
  return path;
}

function chromiumPath() {
  const folders = (process.env.PATH ?? '').split(':');
  const names = ['chromium', 'chromium-browser', 'google-chrome'];
  return folders.flatMap((folder) => names.map((name) => join(folder, name))).find((path) => existsSync(path));
}
