import { spawn } from 'node:child_process';
import { built, installed, root } from './setup.mjs';

// Both sides reload: the server is built again at every change, with its compute threads, and started again; the web by
// vite. Open http://127.0.0.1:4611.
await installed();
await built();
const start = (command, args, cwd = root) => spawn(command, args, { cwd, stdio: 'inherit' });
const children = [
  start('npx', ['vite', 'build', '--watch', '--emptyOutDir', 'false'], `${root}/server`),
  start(process.execPath, ['--watch', 'server/dist/main.js', '--demo']),
  start('npx', ['vite', '--config', 'web/vite.config.ts', 'web']),
];
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => children.forEach((child) => child.kill(signal)));
