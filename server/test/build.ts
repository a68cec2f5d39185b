import { fileURLToPath } from 'node:url';
import { build } from 'vite';

/** The compute workers run as built files, in tests as in production. */
export default async function buildServer() {
  await build({ root: fileURLToPath(new URL('..', import.meta.url)), logLevel: 'warn' });
}
