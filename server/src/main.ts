import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { serve } from '@hono/node-server';
import { createApp } from './app.ts';
import { seedDemo } from './demo/seed.ts';
import { openDatabase } from './store/database.ts';

const demo = process.argv.includes('--demo');
const port = portFrom(process.env['NIBREL_PORT']);
const host = process.env['NIBREL_HOST'] ?? '127.0.0.1';
const data = process.env['NIBREL_DATA'] ?? (demo ? './data/demo' : './data/shop');
const names = (process.env['NIBREL_NAMES'] ?? '').split(',').filter(Boolean);

const db = openDatabase(data);
const webRoot = fileURLToPath(new URL('../../web/dist', import.meta.url));
const nibrel = createApp({
  db,
  photoFolder: join(data, 'photos'),
  standIns: demo,
  webRoot,
  hosts: host === '127.0.0.1' ? names : [host, ...names],
});
if (demo) seedDemo(nibrel, new Date());

const server = serve({ fetch: nibrel.app.fetch, hostname: host, port }, (info) => {
  console.log(`Nibrel is ready at http://${host}:${info.port}`);
});
server.on('error', (error: NodeJS.ErrnoException) => {
  const reason = error.code === 'EADDRINUSE' ? `Port ${port} is taken. Set NIBREL_PORT to another.` : error.message;
  console.error(reason);
  process.exit(1);
});

for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.once(signal, () => {
    server.close(() => void nibrel.close().then(() => process.exit(0)));
    // browsers keep connections open; what was acknowledged is on disk already
    setTimeout(() => process.exit(0), 1500).unref();
  });
}

function portFrom(text = '4610'): number {
  const value = Number(text);
  if (Number.isInteger(value) && value >= 0 && value < 65_536) return value;
  console.error(`NIBREL_PORT must be a port number, not "${text}".`);
  process.exit(1);
}
