import { DEFAULT_MS, MOST_MS } from '@nibrel/core/api';
import { type PackRequest, runDown, transportHints } from '@nibrel/core/model/battery';
import { type CutRequest, planCut } from '@nibrel/core/planner/cut';
import { checkNumbers } from '@nibrel/core/model/identity';
import { Hono } from 'hono';
import type { ComputePool } from '../compute/pool.ts';
import { jsonAnswer } from '../http/answer.ts';
import { bodyOrText, valid } from '../http/body.ts';
import { bodySchema } from '../http/route.ts';

export function computeRoutes(pool: ComputePool): Hono {
  const routes = new Hono();
  for (const kind of [
    'order',
    'plan',
    'possible',
    'heat',
    'swap-table',
    'containers',
    'screw-match',
    'torque',
    'bond',
    'tape',
    'load',
    'rim',
    'isolate',
    'infer-map',
  ] as const) {
    routes.post(`/${kind}`, async (context) => {
      const given = await bodyOrText(context);
      return jsonAnswer(context, await pool.answer({ kind, ...given }, limitOf(given)));
    });
  }
  // these take microseconds: no thread is asked, unless there is much to check
  for (const [kind, compute] of [
    ['battery', (body) => batteryOf(body as PackRequest)],
    ['identity', (body) => checkNumbers((body as { numbers: Numbers }).numbers)],
    ['cut-plan', (body) => planCut(body as CutRequest)],
  ] as const satisfies readonly [string, (body: unknown) => object][]) {
    routes.post(`/${kind}`, async (context) => {
      const given = await bodyOrText(context);
      if ('text' in given) return jsonAnswer(context, await pool.answer({ kind, ...given }, 0));
      return context.json(compute(valid(bodySchema(`POST /compute/${kind}`), given.body)));
    });
  }
  return routes;
}

type Numbers = Parameters<typeof checkNumbers>[0];

function batteryOf(request: PackRequest): object {
  return { ...runDown(request), transport: transportHints(request.cells, request.wiring) };
}

/** What is too large to be looked into here has the longest limit that there is. */
function limitOf(given: { body: unknown } | { text: string }): number {
  if ('text' in given) return MOST_MS;
  const limit = (given.body as { timeLimitMs?: unknown } | null)?.timeLimitMs;
  return typeof limit === 'number' && limit >= 0 ? limit : DEFAULT_MS;
}
