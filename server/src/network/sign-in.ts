import { roleOf } from '@nibrel/core/shop';
import { type Context, Hono, type MiddlewareHandler } from 'hono';
import { deleteCookie, getCookie, setCookie } from 'hono/cookie';
import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible';
import { Problem } from '../http/problem.ts';
import { answer, bodyOf } from '../http/route.ts';
import type { ShopLog } from '../store/shop.ts';
import type { Password } from './password.ts';
import { Sessions } from './sessions.ts';

/** What a server that others reach has beside what every server has. */
export interface Network {
  readonly password: Password;
  readonly sessions: Sessions;
}

const COOKIE = '__Host-nibrel';
/** Tries from one address, and from all together, in a minute. */
const TRIES = 5;
const TRIES_OF_ALL = 60;

/** Who is signed in; null where nobody has to be, since only this machine reaches the server. */
export function personOf(context: Context, network: Network | null): string | null {
  return network && network.sessions.personOf(getCookie(context, COOKIE));
}

/** Nothing of the API is answered to who is not signed in, save whether the server is there, and how to sign in. */
export function signedInOnly(network: Network | null): MiddlewareHandler {
  return async (context, next) => {
    const isOpen = /^\/api\/v1\/(health|session)$/.test(context.req.path);
    if (network && !isOpen && personOf(context, network) === null) {
      throw new Problem(401, 'Sign in with the password of the workshop.', [], { 'www-authenticate': 'Nibrel' });
    }
    await next();
  };
}

/** Signing in and out, and who is. Without a network everybody is who they say they are. */
export function sessionRoutes(network: Network | null, shop: ShopLog): Hono {
  const routes = new Hono();
  const limits = {
    each: new RateLimiterMemory({ points: TRIES, duration: 60 }),
    all: new RateLimiterMemory({ points: TRIES_OF_ALL, duration: 60 }),
  };
  const told = (person: string | null) => ({
    needed: network !== null,
    person,
    role: person === null ? null : roleOf(shop.shop.people, person),
  });

  routes.get('/', (context) => answer(context, 'GET /session', told(personOf(context, network))));

  routes.post('/', async (context) => {
    if (!network) throw new Problem(409, 'Nobody signs in on this machine: say who is at the bench.');
    const given = await bodyOf(context, 'POST /session');
    await withinLimits(limits, addressOf(context));
    if (!(await network.password.is(given.password))) {
      throw new Problem(401, 'That is not the password of this workshop.', [
        { path: 'password', message: 'It is not the one that was set. The lead knows it.' },
      ]);
    }
    const person = given.person.trim();
    setCookie(context, COOKIE, network.sessions.begin(person), {
      httpOnly: true,
      secure: true,
      sameSite: 'Strict',
      path: '/',
      maxAge: Sessions.seconds,
    });
    return answer(context, 'POST /session', told(person));
  });

  routes.delete('/', (context) => {
    network?.sessions.end(getCookie(context, COOKIE));
    deleteCookie(context, COOKIE, { path: '/', secure: true });
    return context.body(null, 204);
  });

  return routes;
}

async function withinLimits(
  { each, all }: { readonly each: RateLimiterMemory; readonly all: RateLimiterMemory },
  address: string,
): Promise<void> {
  try {
    await each.consume(address);
    await all.consume('all');
  } catch (error) {
    if (!(error instanceof RateLimiterRes)) throw error;
    const seconds = Math.ceil(error.msBeforeNext / 1000);
    throw new Problem(429, `Too many tries. Wait ${seconds} s.`, [], { 'retry-after': String(seconds) });
  }
}

function addressOf(context: Context): string {
  const { incoming } = context.env as { incoming?: { socket?: { remoteAddress?: string } } };
  return incoming?.socket?.remoteAddress ?? 'unknown';
}
