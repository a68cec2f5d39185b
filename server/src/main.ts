import { networkInterfaces } from 'node:os';
import { createServer } from 'node:https';
import { join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { serve } from '@hono/node-server';
import { createApp } from './app.ts';
import { seedDemo } from './demo/seed.ts';
import { isLoopback } from './http/loopback.ts';
import { Password, PasswordError } from './network/password.ts';
import { LeadSecrets } from './people/lead-secrets.ts';
import { Sessions } from './network/sessions.ts';
import { openDatabase } from './store/database.ts';
import { DiskProblem } from './disk/disk-problem.ts';
import { lockFolder } from './store/lock.ts';
import { ownerOnly } from './store/owner-only.ts';

const demo = process.argv.includes('--demo');
const host = process.env['NIBREL_HOST'] ?? '127.0.0.1';
const data = resolve(process.env['NIBREL_DATA'] ?? (demo ? './data/demo' : './data/shop'));

await start().catch((error: Error) => {
  // what was foreseen is one sentence; only what was not has its stack
  const known = DiskProblem.of(error, data);
  if (known instanceof DiskProblem || known instanceof PasswordError) console.error(known.message);
  else console.error(error);
  process.exit(1);
});

async function start(): Promise<void> {
  const port = portFrom(process.env['NIBREL_PORT']);
  const names = (process.env['NIBREL_NAMES'] ?? '').split(',').filter(Boolean);
  const db = openDatabase(data);
  const lock = lockFolder(data);
  ownerOnly(data);
  const secrets = demo ? LeadSecrets.inMemory() : LeadSecrets.in(join(data, 'people', 'secrets.json'));
  const forgotten = process.env['NIBREL_FORGET_SECRET'];
  if (forgotten) secrets.forget(forgotten);
  const hosts = [...namesOf(host), ...names];
  const network = isLoopback(host) ? null : await networkIn(data, hosts);
  const nibrel = createApp({
    db,
    folder: data,
    photoFolder: join(data, 'photos'),
    standIns: demo,
    webRoot: fileURLToPath(new URL('../../web/dist', import.meta.url)),
    hosts,
    secrets,
    network: network && { password: network.password, sessions: new Sessions() },
  });
  const lost = await nibrel.begin((count) => console.log(`Reading ${count} repairs for the lists, once.`));
  for (const each of lost) console.error(each);
  for (const damaged of nibrel.shop.damaged()) {
    console.error(
      `Of the workshop ${damaged} is damaged on the disk and was left out. A backup has it (npm run restore).`,
    );
  }
  if (demo) await seedDemo(nibrel, new Date());

  const { fetch } = nibrel.app;
  const secure = network
    ? { createServer, serverOptions: { key: network.certificate.key, cert: network.certificate.cert } }
    : {};
  const server = serve({ fetch, hostname: host, port, ...secure }, (info) => {
    const scheme = network ? 'https' : 'http';
    const shown = hosts[0] ?? host;
    if (network) {
      console.log(`Whoever reaches this machine at ${hosts.join(', ')} and knows the password can come in.`);
      console.log(`Certificate, SHA-256: ${network.certificate.fingerprint}`);
      if (network.made) console.log(`The password of this workshop, shown this once: ${network.made}`);
    }
    console.log(`Nibrel is ready at ${scheme}://${shown}:${info.port}`);
    // beside the work: a large database takes seconds
    void nibrel
      .lookThrough()
      .catch(() => [])
      .then((found) => found.forEach((each) => console.error(each)));
  });
  server.on('error', (error: NodeJS.ErrnoException) => {
    console.error(listenSentence(error, port));
    process.exit(1);
  });

  for (const signal of ['SIGINT', 'SIGTERM'] as const) {
    process.once(signal, () => {
      server.close();
      void nibrel.close().then(() => {
        lock.release();
        process.exit(0);
      });
      // browsers keep connections open; what was acknowledged is on disk already
      setTimeout(() => process.exit(0), 1500).unref();
    });
  }
}

/** Password and certificate, where others reach the server. */
async function networkIn(folder: string, hosts: readonly string[]) {
  const { password, made } = await Password.in(folder, process.env['NIBREL_PASSWORD']);
  // what makes certificates is large, and not needed where nobody else comes in
  const { certificateIn } = await import('./network/certificate.ts');
  return { password, made, certificate: await certificateIn(folder, hosts, new Date()) };
}

/** What a server that listens on an address is called: for all addresses, each that this machine has. */
function namesOf(address: string): string[] {
  if (address !== '0.0.0.0' && address !== '::') return [address.includes(':') ? `[${address}]` : address];
  return Object.values(networkInterfaces())
    .flatMap((each) => each ?? [])
    .filter(({ internal, scopeid }) => !internal && !scopeid)
    .map((each) => (each.family === 'IPv6' ? `[${each.address}]` : each.address));
}

function listenSentence(error: NodeJS.ErrnoException, port: number): string {
  switch (error.code) {
    case 'EADDRINUSE':
      return `Port ${port} is taken by another program. Nothing was changed: set NIBREL_PORT to another.`;
    case 'EACCES':
      return `Port ${port} is not for this user. Nothing was changed: set NIBREL_PORT to one above 1023.`;
    case 'EADDRNOTAVAIL':
    case 'ENOTFOUND':
      return `This machine has no address ${host}. Nothing was changed: set NIBREL_HOST to one that it has.`;
    default:
      return `The server can not listen at ${host}, port ${port}: ${error.message}`;
  }
}

function portFrom(text = '4610'): number {
  const value = Number(text);
  if (text.trim() !== '' && Number.isInteger(value) && value >= 0 && value < 65_536) return value;
  console.error(`NIBREL_PORT must be a port number from 0 to 65535, not "${text}".`);
  process.exit(1);
}
