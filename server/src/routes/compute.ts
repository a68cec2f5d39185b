import { Hono } from 'hono';
import type { ComputePool } from '../compute/pool.ts';
import { DEFAULT_MS } from '../compute/requests.ts';
import { jsonBody } from '../http/body.ts';

export function computeRoutes(pool: ComputePool): Hono {
  const routes = new Hono();
  for (const kind of ['order', 'plan', 'possible'] as const) {
    routes.post(`/${kind}`, async (context) => {
      const body = await jsonBody(context);
      return context.json((await pool.run({ kind, body }, limitOf(body))) as object);
    });
  }
  return routes;
}

function limitOf(body: unknown): number {
  const limit = (body as { timeLimitMs?: unknown } | null)?.timeLimitMs;
  return typeof limit === 'number' && limit >= 0 ? limit : DEFAULT_MS;
}
