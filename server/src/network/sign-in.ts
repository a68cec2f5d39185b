import { wrong } from '@nibrel/core/model/refusal';
import { nameProblem } from '@nibrel/core/model/names';
import { roleOf } from '@nibrel/core/workshop/shop';
import { type Context, Hono, type MiddlewareHandler } from 'hono';
import { deleteCookie, getCookie, setCookie } from 'hono/cookie';
import { HttpProblem } from '../http/http-problem.ts';
import { answer, bodyOf } from '../http/route.ts';
import { Tries } from '../http/tries.ts';
import type { ShopLog } from '../store/shop.ts';
import type { Password } from './password.ts';
import { Sessions } from './sessions.ts';

/** What a server that others reach has beside what every server has. */
export interface Network {
  readonly password: Password;
  readonly sessions: Sessions;
}

const COOKIE = '__Host-nibrel';

/** Who is signed in; null where nobody has to be, since only this machine reaches the server. */
export function personOf(context: Context, network: Network | null): string | null {
  return network && network.sessions.personOf(getCookie(context, COOKIE));
}

/** Tells when the session of a request ends, where there are sessions. @returns how to stop listening */
export function onSignedOut(context: Context, network: Network | null, told: () => void): () => void {
  return network ? network.sessions.onEnd(getCookie(context, COOKIE), told) : () => undefined;
}

/** Who makes something: signed in, else who the page says is at the bench; null where nobody says so. */
export function makerOf(context: Context, network: Network | null): string | null {
  const signedIn = personOf(context, network);
  if (signedIn !== null) return signedIn;
  const told = decoded(context.req.header('nibrel-person'));
  return told !== null && told.length <= 60 && nameProblem(told) === null ? told : null;
}

function decoded(text: string | undefined): string | null {
  if (text === undefined) return null;
  try {
    return decodeURIComponent(text);
  } catch {
    return null;
  }
}

/** Over a network it is known who is a learner: maps, jobs and schools are not theirs to make. @throws HttpProblem 403 */
export function notByLearner(context: Context, network: Network | null, shop: ShopLog, what: string): void {
  const person = personOf(context, network);
  if (person === null || roleOf(shop.shop.people, person) !== 'learner') return;
  throw new HttpProblem(403, `${what} is not for a learner; ${person} is one. Ask a technician or a lead.`);
}

/** Nothing of the API is answered to who is not signed in, save whether the server is there, and how to sign in. */
export function signedInOnly(network: Network | null): MiddlewareHandler {
  return async (context, next) => {
    const isOpen = /^\/api\/v1\/(health|session)$/.test(context.req.path);
    if (network && !isOpen && personOf(context, network) === null) {
      throw new HttpProblem(401, 'Sign in with the password of the workshop.', [], { 'www-authenticate': 'Nibrel' });
    }
    await next();
  };
}

/** Signing in and out, and who is. Without a network everybody is who they say they are. */
export function sessionRoutes(network: Network | null, shop: ShopLog): Hono {
  const routes = new Hono();
  const tries = new Tries();
  const told = (person: string | null) => ({
    needed: network !== null,
    person,
    role: person === null ? null : roleOf(shop.shop.people, person),
  });

  routes.get('/', (context) => answer(context, 'GET /session', told(personOf(context, network))));

  routes.post('/', async (context) => {
    if (!network) throw new HttpProblem(409, 'Nobody signs in on this machine: say who is at the bench.');
    const given = await bodyOf(context, 'POST /session');
    if (!(await tries.guess(context, () => network.password.is(given.password)))) {
      throw HttpProblem.at(401, wrong('password', 'That is not the password of this workshop.', 'The lead knows it.'));
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
