import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { type Route, type RouteName, ROUTES } from '@nibrel/core/api';
import { usualSetting } from '@nibrel/core/physics/heat';
import { Ajv2020 } from 'ajv/dist/2020.js';
import formats from 'ajv-formats';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { seedDemo } from '../src/demo/seed.ts';
import { type Answer, TestServer } from './harness.ts';
import { TEARDOWN } from './teardown.ts';

const api = new TestServer({ standIns: true });
const sample = JSON.parse(readFileSync(new URL('../../docs/examples/sample.json', import.meta.url), 'utf8')) as object;
const pixel = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mP8z8BQDwAEhQGAhKmMIQAAAABJRU5ErkJggg==',
  'base64',
);

let description: { readonly paths: Record<string, Record<string, { readonly responses: Record<string, unknown> }>> };
let ajv: Ajv2020;
const answered = new Set<string>();

/** Does an answer say what the description says of it? */
function asDescribed(name: RouteName, answer: Answer): void {
  const [method, path] = name.split(' ') as [string, string];
  const { responses } = description.paths[path]![method.toLowerCase()]!;
  const kind = answer.status < 400 ? 'json' : 'problem+json';
  expect(Object.keys(responses), `${name} ${answer.status}`).toContain(String(answer.status));
  answered.add(name);
  if (answer.status === 204) return;
  const pointer = [
    'paths',
    path,
    method.toLowerCase(),
    'responses',
    String(answer.status),
    'content',
    `application/${kind}`,
    'schema',
  ]
    .map((step) => encodeURIComponent(step.replaceAll('~', '~0').replaceAll('/', '~1')))
    .join('/');
  const validate = ajv.getSchema(`api#/${pointer}`)!;
  expect(validate(answer.body), `${name}: ${ajv.errorsText(validate.errors)}`).toBe(true);
}

/** Asks a route, and holds its answer against the description. @returns the body */
async function ask(name: RouteName, body?: unknown, of: Readonly<Record<string, string>> = {}, query = '') {
  const [method, path] = name.split(' ') as [string, string];
  const address = path.replaceAll(/\{(\w+)\}/g, (_, key: string) => of[key] ?? 'none') + query;
  const type = body instanceof Uint8Array ? { 'content-type': 'image/png' } : undefined;
  const answer = await api.call(method, address, body, type);
  asDescribed(name, answer);
  return answer.body;
}

const note = (text: string) => ({
  id: randomUUID(),
  type: 'note',
  at: new Date().toISOString(),
  by: 'Ines',
  data: { text },
});

beforeAll(async () => {
  await api.start();
  await seedDemo(api.nibrel, new Date());
  description = (await api.call('GET', '/openapi.json')).body as typeof description;
  ajv = new Ajv2020({ strict: false, allErrors: true });
  formats.default(ajv);
  ajv.addSchema(description, 'api');
}, 120_000);
afterAll(() => api.stop());

describe('what is answered is what the description says', () => {
  it('of maps', async () => {
    const { maps } = await ask('GET /device-maps');
    for (const { id } of maps as { id: string }[]) await ask('GET /device-maps/{id}', undefined, { id });
    await ask('GET /device-maps/{id}', undefined, { id: 'tern-5' }, '?revision=1');
    await ask('GET /device-maps/{id}', undefined, { id: 'nowhere' });
    const added = { ...sample, id: 'added' };
    await ask('POST /device-maps', added);
    await ask('POST /device-maps', added);
    await ask('POST /device-maps', { id: 'broken' });
    await ask('POST /device-maps/check', { parts: 1 });
    await ask('PUT /device-maps/{id}', added, { id: 'added' });
    await ask('DELETE /device-maps/{id}', undefined, { id: 'added' });
    await ask('DELETE /device-maps/{id}', undefined, { id: 'tern-5' });
  });

  it('of jobs at every stage, their events and pictures', async () => {
    const { jobs } = await ask('GET /jobs');
    expect(jobs).toHaveLength(14);
    // what was sealed in the last minutes may go later, and says so
    const waits = jobs.filter(({ mayGoFrom }: { mayGoFrom: string | null }) => mayGoFrom !== null);
    expect(waits.map(({ title }: { title: string }) => title)).toEqual(['Mess 4']);
    expect(waits[0]).toMatchObject({ handedOver: null, status: 'finished' });
    for (const { id } of jobs as { id: string }[]) {
      await ask('GET /jobs/{id}', undefined, { id });
      await ask('GET /jobs/{id}/events', undefined, { id });
    }
    await ask('GET /jobs', undefined, {}, '?open=true&limit=2&since=2026-01-01T00:00:00Z');
    await ask('GET /jobs', undefined, {}, '?limit=none');
    await ask('GET /jobs/{id}', undefined, { id: 'none' });
    const job = { map: 'tern-5', targets: [{ replace: 'display' }], owner: 'Aldis', serial: 'S1', colour: 'grey' };
    const { id } = (await ask('POST /jobs', job)) as { id: string };
    await ask('POST /jobs', { ...job, targets: [{ replace: 'nothing' }] });
    await ask('POST /jobs', { id, ...job });
    await ask('POST /jobs/{id}/events', { events: [note('x'), note('y'), { id: 'z' }] }, { id });
    await ask('GET /jobs/{id}/events', undefined, { id }, '?after=1');
    await ask('POST /jobs/{id}/photos', pixel, { id });
    await ask('POST /jobs/{id}/photos', new Uint8Array(20), { id });
  });

  it('of the workshop, its parts, and who is here', async () => {
    await ask('GET /shop');
    await ask('GET /shop/events');
    await ask('POST /shop/events', {
      events: [{ ...note(''), type: 'tool', data: { name: 'pick', owned: true } }, note('no event of a shop')],
    });
    expect((await ask('GET /parts'))['parts'].length).toBeGreaterThan(3);
    await ask('GET /session');
    await ask('POST /session', { person: 'Ines', password: 'x' });
    await ask('DELETE /session');
    await ask('GET /lead');
    await ask('POST /lead', { person: 'Maren', secret: 'harbour light' });
    await ask('POST /lead', { person: 'Maren', secret: 'another light' });
    await ask('GET /health');
    await ask('GET /openapi.json');
    await ask('GET /stand-ins');
    await ask('POST /stand-ins/registry', { number: '260531793113837' });
  });

  it('of all that is computed', async () => {
    const tern5 = await ask('GET /device-maps/{id}', undefined, { id: 'tern-5' });
    const cells = [{ capacity_mAh: 4100, nominal_V: 3.86 }];
    await ask('POST /compute/battery', { cells, wiring: 'parallel', charge: 0.6, target: 0.25, load_W: 3 });
    await ask('POST /compute/identity', { numbers: [{ place: 'tray', value: '260531793113837' }] });
    const edge = (id: string, x: number) => ({ id, from: { x, y: 0 }, to: { x, y: 60 }, depth: 2, near: 'cell' });
    const heat = { workingTime_s: 10 };
    await ask('POST /compute/cut-plan', { segments: [edge('left', 0), edge('right', 40)], speed_mm_s: 4, heat });
    const { fasteners, joints } = tern5 as unknown as { fasteners: { id: string }[]; joints: { type: string }[] };
    await ask('POST /compute/swap-table', { fasteners, joints: joints.filter(({ type }) => type === 'screw') });
    const classes = fasteners.map(({ id }) => id);
    await ask('POST /compute/containers', { classes, cost: classes.map(() => classes.map(() => 1)), containers: 2 });
    await ask('POST /compute/screw-match', {
      classes: [{ id: 'lid', drive: 'PH000', length: 2, count: 2 }],
      loose: [{ id: 'a', drive: null, length: 2.02 }],
    });
    const friction = { headBearing_mm: 2, muThread: 0.14, muHead: 0.14 };
    const boss = { engagement_mm: 2, shearStrength_MPa: 30 };
    await ask('POST /compute/torque', { thread: { d: 1.4, pitch: 0.3 }, ...friction, ...boss, torque_Ncm: 6 });
    await ask('POST /compute/bond', { segments: [{ length_mm: 1013, width_mm: 3 }], mass_kg: 32, dwell_s: 3600 });
    const edges = [{ id: 'top', length_mm: 70, gaps: [{ from_mm: 30, to_mm: 38 }] }];
    await ask('POST /compute/tape', { edges, rolls: [{ id: 'offcut', length_mm: 90 }], bead_mm: 1 });
    await ask('POST /compute/tape', { edges, rolls: [] });
    const over = { w: 160, h: 240 };
    await ask('POST /compute/load', { mass_kg: 7, weights: [{ id: '5 kg', mass_kg: 5, count: 2 }], over });
    await ask('POST /compute/load', { mass_kg: 7, weights: [], over });
    const points = [0, 30, 60, 90].map((x) => ({ x, y: x % 60, step_mm: x / 200 }));
    await ask('POST /compute/rim', { points });
    await ask('POST /compute/isolate', {
      connectors: [{ id: 'plug', prior: 0.1, functions: ['touch'] }],
      functions: [{ id: 'touch' }, { id: 'picture' }],
      results: { touch: 'fail' },
    });
    await ask('POST /compute/infer-map', TEARDOWN);
    const air = { h_W_m2K: 10, temp_C: 22 };
    await ask('POST /compute/heat', {
      layers: [
        { material: 'soda-lime glass', thickness_mm: 1 },
        { material: 'acrylic foam tape', thickness_mm: 0.2 },
      ],
      source: { kind: 'plate', temp_C: usualSetting('plate').temp_C, contact_W_m2K: 300 },
      after: air,
      far: air,
      initial_C: 22,
      heat_s: 60,
      total_s: 120,
      probes: [{ id: 'bond', layer: 1, fraction: 0.5 }],
      bond: { probe: 'bond', soften_C: 55 },
    });
    const op = (id: string, after: string[]) => ({ id, seconds: 5, tool: null, face: 'front', after });
    const start = { tool: null, face: null };
    const order = { ops: [op('a', []), op('b', ['a'])], start, toolChangeSeconds: 8, flipSeconds: 5 };
    await ask('POST /compute/order', order);
    await ask('POST /compute/order', { ...order, ops: [op('a', ['b']), op('b', ['a'])] });
    const targets = [{ replace: 'display', newLacks: ['front-seal'] }, { full: true }];
    for (const policy of [{}, { display: 'taken-off', newBattery: 'cell-transplant', closing: 'tape' }]) {
      await ask('POST /compute/plan', { map: tern5, targets, policy, timeLimitMs: 300 });
    }
    await ask('POST /compute/possible', { map: tern5, done: [{ release: 'sim-tray' }] });
    await ask('POST /compute/possible', { map: tern5, done: [{ release: 'nothing' }] });
  }, 60_000);

  it('and every route that answers JSON was asked', () => {
    const all = Object.entries<Route>(ROUTES).flatMap(([name, { answer }]) => (answer ? [name] : []));
    expect([...answered]).toEqual(expect.arrayContaining(all));
  });
});
