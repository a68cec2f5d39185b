import { spawn } from 'node:child_process';
import { built, installed, root } from './setup.mjs';

// Both sides reload: the server by tsx, the web by vite. Open http://127.0.0.1:4611.
await installed();
await built();
const start = (command, args) => spawn(command, args, { cwd: root, stdio: 'inherit' });
const children = [
  start('npx', ['tsx', 'watch', 'server/src/main.ts', '--demo']),
  start('npx', ['vite', '--config', 'web/vite.config.ts', 'web']),
];
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => children.forEach((child) => child.kill(signal)));
