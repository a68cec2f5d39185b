import { todayIn } from '@nibrel/core/calendar';
import { materialsWith } from '@nibrel/core/heat';
import { stockLevels } from '@nibrel/core/shop';
import { Hono } from 'hono';
import { eventList } from '../http/events.ts';
import type { Jobs } from '../store/jobs.ts';
import type { ShopLog } from '../store/shop.ts';

/** The workshop: what it owns, what is left, and what it does by default. */
export function shopRoutes(log: ShopLog, jobs: Jobs, now: () => string, standIns: boolean): Hono {
  const routes = new Hono();

  routes.get('/', (context) => {
    const { tools, limits, schools, zone, materials, sources, revision } = log.shop;
    return context.json({
      tools: [...tools],
      stock: stockLevels(log.shop, jobs.used()),
      limits,
      schools,
      zone,
      materials: materialsWith(materials.values()),
      sources,
      today: todayIn(zone, new Date(now())),
      revision,
      standIns,
    });
  });

  routes.get('/events', (context) => {
    const events = log.events();
    return context.json({ events, revision: events.length });
  });

  routes.post('/events', async (context) => context.json(log.append(await eventList(context), now())));

  return routes;
}
