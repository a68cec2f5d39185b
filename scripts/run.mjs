import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { built, installed, root } from './setup.mjs';

// npm run demo, npm start: installs and builds what is missing, then serves.
await installed();
await built();
const demo = process.argv[2] === 'demo';
const server = spawn(process.execPath, [join(root, 'server/dist/main.js'), ...(demo ? ['--demo'] : [])], {
  cwd: root,
  stdio: 'inherit',
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code, signal) => process.exit(code ?? (signal ? 1 : 0)));
