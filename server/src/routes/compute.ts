import { type PackRequest, packRequest, runDown, transportHints } from '@nibrel/core/battery';
import { type CutRequest, cutRequest, planCut } from '@nibrel/core/cut';
import { checkNumbers, identityRequest } from '@nibrel/core/identity';
import { Hono } from 'hono';
import type { ComputePool } from '../compute/pool.ts';
import { DEFAULT_MS } from '../compute/requests.ts';
import { jsonBody, valid } from '../http/body.ts';

export function computeRoutes(pool: ComputePool): Hono {
  const routes = new Hono();
  for (const kind of ['order', 'plan', 'possible', 'heat'] as const) {
    routes.post(`/${kind}`, async (context) => {
      const body = await jsonBody(context);
      return context.json((await pool.run({ kind, body }, limitOf(body))) as object);
    });
  }
  // these take microseconds: no thread is asked
  routes.post('/battery', async (context) => {
    const body = valid<PackRequest>(packRequest, await jsonBody(context));
    return context.json({ ...runDown(body), transport: transportHints(body.cells, body.wiring) });
  });
  routes.post('/identity', async (context) => {
    const { numbers } = valid<{ numbers: { place: string; value: string }[] }>(
      identityRequest,
      await jsonBody(context),
    );
    return context.json(checkNumbers(numbers));
  });
  routes.post('/cut-plan', async (context) => {
    return context.json(planCut(valid<CutRequest>(cutRequest, await jsonBody(context))));
  });
  return routes;
}

function limitOf(body: unknown): number {
  const limit = (body as { timeLimitMs?: unknown } | null)?.timeLimitMs;
  return typeof limit === 'number' && limit >= 0 ? limit : DEFAULT_MS;
}
