import type { Context, MiddlewareHandler } from 'hono';
import { NONCE, secureHeaders } from 'hono/secure-headers';
import { isLoopback, LOOPBACK_NAMES } from './loopback.ts';
import { HttpProblem } from './http-problem.ts';

/**
 * Answers only what was meant for this server: a foreign Host is a rebound name, a foreign Origin another site's page.
 * The names of the machine to itself are taken only from itself.
 * @param hosts further names that the server was told to answer to
 */
export function onlyFromHere(hosts: readonly string[]): MiddlewareHandler {
  const known = new Set(hosts.map((each) => each.toLowerCase()));
  return async (context, next) => {
    const host = context.req.header('host');
    const name = host && nameOf(host);
    if (!name || !(known.has(name) || (LOOPBACK_NAMES.includes(name) && arrivedFromHere(context)))) {
      throw new HttpProblem(403, 'This server does not answer to that name.');
    }
    const origin = context.req.header('origin');
    if (origin !== undefined && origin !== `http://${host}` && origin !== `https://${host}`) {
      throw new HttpProblem(403, 'Requests from other sites are not taken.');
    }
    // of a picture or a stream that another page asks for a browser says no origin, but whether it is its own
    const site = context.req.header('sec-fetch-site') ?? 'none';
    if (!OWN_SITE.includes(site) && context.req.path.startsWith('/api/')) {
      throw new HttpProblem(403, 'Requests from other sites are not taken.');
    }
    await next();
  };
}

/** From a page of this server, or typed in by whoever sits there. */
const OWN_SITE: readonly string[] = ['same-origin', 'none'];

function nameOf(host: string): string {
  return host.replace(/:\d+$/, '').toLowerCase();
}

/** Did it come in where only this machine reaches? */
function arrivedFromHere(context: Context): boolean {
  const { incoming } = (context.env ?? {}) as { incoming?: { socket?: { localAddress?: string } } };
  const address = incoming?.socket?.localAddress;
  return address === undefined || isLoopback(address);
}

/** Headers of every answer; styles pass with the page's own nonce. */
export const secured: MiddlewareHandler = secureHeaders({
  contentSecurityPolicy: {
    defaultSrc: ["'self'"],
    imgSrc: ["'self'", 'data:', 'blob:'],
    fontSrc: ["'self'", 'data:'],
    workerSrc: ["'self'", 'blob:'],
    styleSrc: ["'self'", NONCE],
    objectSrc: ["'none'"],
    baseUri: ["'none'"],
    formAction: ["'self'"],
    frameAncestors: ["'none'"],
  },
  // a certificate that the workshop made itself has to be let through by hand, which this would forbid
  strictTransportSecurity: false,
});
