import { isIPv4 } from 'node:net';

/** Names of this machine to itself. */
export const LOOPBACK_NAMES: readonly string[] = ['127.0.0.1', 'localhost', '[::1]'];

/** Does nobody but this machine reach an address or name to listen on? */
export function isLoopback(host: string): boolean {
  const bare = host.replace(/^\[|\]$/g, '').replace(/^::ffff:/, '');
  return bare === 'localhost' || bare === '::1' || (isIPv4(bare) && bare.startsWith('127.'));
}
