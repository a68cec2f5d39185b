import { type PickCard, pickCard } from '@nibrel/core/planner/cut';
import { type DeviceMap, jointById } from '@nibrel/core/model/device-map';
import { type Problem, wrong } from '@nibrel/core/model/refusal';
import { changedUnderWay as changesUnderWay } from '@nibrel/core/planner/map-check';
import { type Context, Hono } from 'hono';
import type { ComputePool } from '../compute/pool.ts';
import { jsonAnswer } from '../http/answer.ts';
import { bodyOrText } from '../http/body.ts';
import { HttpProblem } from '../http/http-problem.ts';
import { answer, queryOf } from '../http/route.ts';
import { PAGE, pickCardSvg } from '../print/pick-card.ts';
import { makerOf, type Network, notByLearner } from '../network/sign-in.ts';
import type { ShopLog } from '../store/shop.ts';
import { screwMatAnswer } from './screw-mat.ts';
import type { DeviceMaps, MapText, StoredMap } from '../store/device-maps.ts';

type CheckedIn = MapText & { readonly warnings: readonly Problem[] };

interface DeviceMapRoutes {
  readonly maps: DeviceMaps;
  readonly shop: ShopLog;
  readonly network: Network | null;
  readonly pool: ComputePool;
  /** draws */
  readonly press: ComputePool;
  now(): string;
}

export function deviceMapRoutes({ maps, shop, network, pool, press, now }: DeviceMapRoutes): Hono {
  const routes = new Hono();

  /** Checked in a thread, so that a large map keeps nobody waiting. */
  const accepted = async (context: Context) =>
    (await pool.run({ kind: 'check-in', ...(await bodyOrText(context)) }, 0)) as CheckedIn;
  const found = (id: string, revision?: number): StoredMap => {
    const stored = maps.find(id, revision);
    if (!stored)
      throw new HttpProblem(404, `There is no device map "${id}"${revision ? ` with revision ${revision}` : ''}.`);
    return stored;
  };

  routes.get('/', (context) => answer(context, 'GET /device-maps', { maps: maps.list() }));

  routes.post('/', async (context) => {
    notByLearner(context, network, shop, 'A device map');
    const { warnings, ...map } = await accepted(context);
    if (maps.has(map.id))
      throw new HttpProblem(409, `There is a device map "${map.id}" already. PUT adds a revision to it.`);
    const revision = maps.add(map, now(), makerOf(context, network));
    return answer(
      context,
      'POST /device-maps',
      { id: map.id, revision, warnings },
      { location: `/api/v1/device-maps/${map.id}` },
    );
  });

  routes.post('/check', async (context) => {
    return jsonAnswer(context, await pool.answer({ kind: 'check', ...(await bodyOrText(context)) }, 0));
  });

  routes.get('/:id', (context) => {
    const asked = queryOf(context, 'GET /device-maps/{id}', 404);
    const { body, revision } = found(context.req.param('id'), asked.revision);
    return jsonAnswer(context, body, 200, { 'nibrel-revision': String(revision) });
  });

  const cardOf = (id: string, joint: string, revision?: number): PickCard => {
    const { map } = found(id, revision);
    const bond = jointById(map, joint);
    if (bond?.type !== 'bond') throw new HttpProblem(404, `There is no bond "${joint}" in this map.`);
    const card = pickCard(map, bond);
    if (!card)
      throw new HttpProblem(
        404,
        `The map says of no edge of "${joint}" how deep it is cut. Give its segments a depth.`,
      );
    return card;
  };

  routes.get('/:id/pick-card/:file{.+\\.(svg|pdf)}', async (context) => {
    const file = context.req.param('file');
    const { revision } = queryOf(context, 'GET /device-maps/{id}/pick-card/{joint}.svg', 404);
    const card = cardOf(context.req.param('id'), file.slice(0, -4), revision);
    if (file.endsWith('.svg')) return context.body(pickCardSvg(card), 200, { 'content-type': 'image/svg+xml' });
    const page = { title: `${card.device}: pick card`, sheets: [{ svg: pickCardSvg(card), ...PAGE }] };
    const pdf = (await press.run({ kind: 'pdf', body: page }, 0)) as Uint8Array;
    return context.body(pdf.slice().buffer, 200, { 'content-type': 'application/pdf' });
  });

  routes.get('/:id/:file{screw-mat\\.(svg|pdf)}', (context) => {
    const query = queryOf(context, 'GET /device-maps/{id}/screw-mat.svg');
    const { map } = found(context.req.param('id'), query.revision);
    const format = context.req.param('file').endsWith('.pdf') ? 'pdf' : 'svg';
    return screwMatAnswer(context, press, { map, of: { device: map.name }, query, format });
  });

  routes.put('/:id', async (context) => {
    const id = context.req.param('id');
    notByLearner(context, network, shop, 'A device map');
    if (!maps.has(id)) throw new HttpProblem(404, `There is no device map "${id}".`);
    const { warnings, ...map } = await accepted(context);
    if (map.id !== id) {
      throw HttpProblem.at(422, wrong('id', 'The map has another id than its address.', `Make it "${id}".`));
    }
    const changed = changedUnderWay(id, JSON.parse(map.body) as DeviceMap);
    const revision = maps.add(map, now(), makerOf(context, network));
    return answer(context, 'PUT /device-maps/{id}', { id, revision, warnings: [...warnings, ...changed] });
  });

  /** What a new revision would judge otherwise than the repairs under way; a damaged one judges nothing. */
  const changedUnderWay = (id: string, map: DeviceMap): Problem[] =>
    maps.underWay(id).flatMap((revision) => {
      const before = maps.readable(id, revision);
      return before ? changesUnderWay(before, map) : [];
    });

  routes.delete('/:id', (context) => {
    const id = context.req.param('id');
    notByLearner(context, network, shop, 'A device map');
    if (!maps.has(id)) throw new HttpProblem(404, `There is no device map "${id}".`);
    if (maps.isUsed(id)) throw new HttpProblem(409, `Device map "${id}" is used by a job and stays.`);
    maps.remove(id);
    return context.body(null, 204);
  });

  return routes;
}
