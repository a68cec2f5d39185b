import { wrong } from '@nibrel/core/model/refusal';
import { type LeadsNow } from '@nibrel/core/api';
import { isSameName } from '@nibrel/core/model/names';
import { roleOf } from '@nibrel/core/workshop/shop';
import { type Context, Hono } from 'hono';
import { deleteCookie, setCookie } from 'hono/cookie';
import { HttpProblem } from '../http/http-problem.ts';
import { answer, bodyOf } from '../http/route.ts';
import { Tries } from '../http/tries.ts';
import { type Network, personOf } from '../network/sign-in.ts';
import { Confirmations, LEAD_COOKIE } from '../people/confirmations.ts';
import type { LeadSecrets } from '../people/lead-secrets.ts';
import type { ShopLog } from '../store/shop.ts';

interface LeadRoutes {
  readonly shop: ShopLog;
  readonly secrets: LeadSecrets;
  readonly confirmations: Confirmations;
  readonly network: Network | null;
}

/** A lead confirms with a secret of their own what only a lead may say. */
export function leadRoutes({ shop, secrets, confirmations, network }: LeadRoutes): Hono {
  const routes = new Hono();
  const tries = new Tries();

  const now = (confirmed: LeadsNow['confirmed']): LeadsNow => ({
    confirmed,
    leads: [...shop.shop.people].flatMap(([person, role]) => {
      if (role !== 'lead') return [];
      const shown = secrets.shownFor(person);
      return [{ person, hasSecret: secrets.has(person), ...(shown === undefined ? {} : { shown }) }];
    }),
  });

  routes.get('/', (context) => answer(context, 'GET /lead', now(confirmations.of(context))));

  routes.post('/', async (context) => {
    const { person, secret, isNew = false } = await bodyOf(context, 'POST /lead');
    const signedIn = personOf(context, network);
    if (signedIn !== null && !isSameName(signedIn, person)) {
      throw new HttpProblem(403, `${signedIn} is signed in here. ${person} signs in to confirm.`);
    }
    if (roleOf(shop.shop.people, person) !== 'lead') {
      throw HttpProblem.at(409, wrong('person', `${person} leads nobody here.`, 'Name a lead.'));
    }
    if (isNew) await setFirst(person, secret);
    else await shown(context, person, secret);
    const token = confirmations.begin(person);
    setCookie(context, LEAD_COOKIE, token, {
      httpOnly: true,
      secure: network !== null,
      sameSite: 'Strict',
      path: '/api',
      maxAge: Confirmations.seconds,
    });
    const until = new Date(Date.now() + Confirmations.seconds * 1000).toISOString();
    return answer(context, 'POST /lead', now({ person, until }));
  });

  routes.delete('/', (context) => {
    confirmations.end(context);
    deleteCookie(context, LEAD_COOKIE, { path: '/api' });
    return context.body(null, 204);
  });

  const setFirst = async (person: string, secret: string) => {
    if (await secrets.set(person, secret)) return;
    const cure = 'Show the one that was set. Whoever starts the server can have it forgotten.';
    throw HttpProblem.at(409, wrong('isNew', `${person} has a secret already.`, cure));
  };

  const shown = async (context: Context, person: string, secret: string) => {
    if (!secrets.has(person)) {
      throw HttpProblem.at(409, wrong('isNew', `${person} has no secret yet.`, 'Choose one: isNew.'));
    }
    if (await tries.guess(context, () => secrets.is(person, secret))) return;
    throw HttpProblem.at(
      401,
      wrong('secret', `That is not the secret that ${person} set.`, 'Whoever starts the server can have it forgotten.'),
    );
  };

  return routes;
}
