import type { MiddlewareHandler } from 'hono';
import { Problem } from './problem.ts';

const LOOPBACK = ['127.0.0.1', 'localhost', '[::1]'];

/**
 * Answers only what was meant for this server: a foreign Host is a rebound name, a foreign Origin another site's page.
 * @param hosts further names that the server was told to answer to
 */
export function onlyFromHere(hosts: readonly string[]): MiddlewareHandler {
  const known = new Set([...LOOPBACK, ...hosts]);
  return async (context, next) => {
    const host = context.req.header('host');
    if (!host || !known.has(nameOf(host))) throw new Problem(403, 'This server does not answer to that name.');
    const origin = context.req.header('origin');
    if (origin !== undefined && origin !== `http://${host}` && origin !== `https://${host}`) {
      throw new Problem(403, 'Requests from other sites are not taken.');
    }
    await next();
  };
}

function nameOf(host: string): string {
  return host.replace(/:\d+$/, '').toLowerCase();
}

/** The content security policy; a page's own nonce lets the styles through that carry it. */
export function contentPolicy(styleNonce?: string): string {
  return [...POLICY, ...(styleNonce ? [`style-src 'self' 'nonce-${styleNonce}'`] : [])].join('; ');
}

const POLICY = [
  "default-src 'self'",
  "img-src 'self' data: blob:",
  "font-src 'self' data:",
  "worker-src 'self' blob:",
  "object-src 'none'",
  "base-uri 'none'",
  "form-action 'self'",
  "frame-ancestors 'none'",
];

export const secured: MiddlewareHandler = async (context, next) => {
  await next();
  if (!context.res.headers.has('content-security-policy')) context.header('content-security-policy', contentPolicy());
  context.header('x-content-type-options', 'nosniff');
  context.header('referrer-policy', 'no-referrer');
  context.header('cross-origin-opener-policy', 'same-origin');
  context.header('cross-origin-resource-policy', 'same-origin');
};
