import { todayIn } from '@nibrel/core/model/calendar';
import { materialsWith } from '@nibrel/core/physics/heat';
import { ownTimes } from '@nibrel/core/after/own-times';
import { stockLevels } from '@nibrel/core/workshop/shop';
import { Hono } from 'hono';
import { eventList } from '../http/events.ts';
import { answer } from '../http/route.ts';
import { type Network, personOf } from '../network/sign-in.ts';
import type { Confirmations } from '../people/confirmations.ts';
import type { Jobs } from '../store/jobs.ts';
import type { ShopLog } from '../store/shop.ts';

interface ShopRoutes {
  readonly shop: ShopLog;
  readonly jobs: Jobs;
  readonly network: Network | null;
  readonly confirmations: Confirmations;
  readonly standIns: boolean;
  now(): string;
}

/** The workshop: what it owns, what is left, and what it does by default. */
export function shopRoutes({ shop: log, jobs, network, confirmations, standIns, now }: ShopRoutes): Hono {
  const routes = new Hono();

  routes.get('/', (context) => {
    const {
      tools,
      toolsGone,
      people,
      limits,
      limitsBy,
      schools,
      schoolsBy,
      zone,
      materials,
      sources,
      drags,
      revision,
    } = log.shop;
    return answer(context, 'GET /shop', {
      tools: [...tools],
      toolsGone: [...toolsGone],
      stock: stockLevels(log.shop, jobs.used()),
      people: [...people].map(([name, role]) => ({ name, role })),
      limits,
      limitsBy,
      schools,
      schoolsBy,
      zone,
      materials: materialsWith(materials.values()),
      sources,
      drags,
      times: ownTimes(jobs.times()),
      today: todayIn(zone, new Date(now())),
      benches: jobs.benches.all(),
      revision,
      standIns,
    });
  });

  routes.get('/events', (context) => {
    const events = log.events();
    return answer(context, 'GET /shop/events', { events, revision: events.length });
  });

  routes.post('/events', async (context) =>
    answer(
      context,
      'POST /shop/events',
      await log.append(await eventList(context, 'POST /shop/events'), now(), {
        signedIn: personOf(context, network),
        confirmed: confirmations.of(context)?.person ?? null,
      }),
    ),
  );

  return routes;
}
