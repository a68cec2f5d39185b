import { type PackRequest, packRequest, runDown, transportHints } from '@nibrel/core/battery';
import { type CutRequest, cutRequest, planCut } from '@nibrel/core/cut';
import { checkNumbers, identityRequest } from '@nibrel/core/identity';
import { Hono } from 'hono';
import type { Schema } from 'joi';
import type { ComputePool } from '../compute/pool.ts';
import { DEFAULT_MS } from '../compute/requests.ts';
import { isLarge, jsonBody, valid } from '../http/body.ts';

export function computeRoutes(pool: ComputePool): Hono {
  const routes = new Hono();
  for (const kind of ['order', 'plan', 'possible', 'heat'] as const) {
    routes.post(`/${kind}`, async (context) => {
      const body = await jsonBody(context);
      return context.json((await pool.run({ kind, body }, limitOf(body))) as object);
    });
  }
  // these take microseconds: no thread is asked, unless there is much to check
  for (const [kind, schema, compute] of [
    ['battery', packRequest, (body) => batteryOf(body as PackRequest)],
    ['identity', identityRequest, (body) => checkNumbers((body as { numbers: Numbers }).numbers)],
    ['cut-plan', cutRequest, (body) => planCut(body as CutRequest)],
  ] as const satisfies readonly [string, Schema, (body: unknown) => object][]) {
    routes.post(`/${kind}`, async (context) => {
      const body = await jsonBody(context);
      if (isLarge(context)) return context.json((await pool.run({ kind, body }, 0)) as object);
      return context.json(compute(valid(schema, body)));
    });
  }
  return routes;
}

type Numbers = Parameters<typeof checkNumbers>[0];

function batteryOf(request: PackRequest): object {
  return { ...runDown(request), transport: transportHints(request.cells, request.wiring) };
}

function limitOf(body: unknown): number {
  const limit = (body as { timeLimitMs?: unknown } | null)?.timeLimitMs;
  return typeof limit === 'number' && limit >= 0 ? limit : DEFAULT_MS;
}
