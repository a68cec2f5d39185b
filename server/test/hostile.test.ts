import { randomUUID } from 'node:crypto';
import { usualSetting } from '@nibrel/core/physics/heat';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Answer, lead, readJson, shownFor, TestServer } from './harness.ts';

const api = new TestServer({ standIns: true });
const call = api.call.bind(api);
let job = '';

beforeAll(async () => {
  await api.start();
  await call('POST', '/device-maps', readJson('demo/device-maps/tern-5.json'));
  await call('POST', '/shop/events', { events: [lead('Maren')] });
  const { body } = await call('POST', '/jobs', { map: 'tern-5', targets: [{ replace: 'display' }] });
  job = body['id'] as string;
});
afterAll(() => api.stop());

type Json = string | number | boolean | null | undefined | readonly Json[] | { readonly [key: string]: Json };

/** In place of anything that a body has. */
const NONSENSE: readonly Json[] = [
  null,
  true,
  -1,
  1e308,
  '',
  '\0',
  '\ud800',
  '../../../etc/passwd',
  "'; DROP TABLE event; --",
  '<img src=x onerror=alert(1)>',
  'x'.repeat(20_000),
  [],
  [[[[[[[[[]]]]]]]]],
  {},
  { constructor: { prototype: {} } },
  Array.from({ length: 3000 }, () => ({})),
];

/** As text, since an object can not be written with it. */
const OWN_PROTOTYPE = '{"__proto__":{"isLead":true},"events":[{"__proto__":{"type":"clear"}}]}';

const at = '2026-11-24T08:00:00Z';
const event = (type: string, data: Json) => ({ id: randomUUID(), type, at, by: 'Ines', data });
const zone = { joint: 'front-seal', zone: 'upper' };
/** What each route takes, whole and right. */
const bodies = (): Readonly<Record<string, Json>> => ({
  '/device-maps': readJson<Json>('docs/examples/sample.json'),
  '/device-maps/check': readJson<Json>('docs/examples/sample.json'),
  '/jobs': { map: 'tern-5', targets: [{ replace: 'display' }], title: 'Cracked', policy: { display: 'taken-off' } },
  '/shop/events': { events: [event('limits', { swelling_percent: 8 }), event('person', { name: 'A', role: 'lead' })] },
  '/compute/order': { n: 3, cost: [1, 2, 3], before: [[0, 1]] },
  '/compute/plan': { map: 'tern-5', targets: [{ replace: 'display' }], timeLimitMs: 20 },
  '/compute/possible': { map: 'tern-5', state: { off: [], released: [] } },
  '/stand-ins/registry': { numbers: ['1234'] },
  [`/jobs/${job}/events`]: {
    events: [
      event('note', { text: 'x' }),
      event('did', { steps: [{ id: 'release:sim-tray', kind: 'release', joint: 'sim-tray' }], anyway: 'so' }),
      event('prepared', { ...shownFor('tern-5', 'display') }),
      event('heat-on', { ...zone, setting: { ...usualSetting('plate') }, heat_s: 60 } as unknown as Json),
      event('heat-reading', { joint: zone.joint, readings: [{ at_s: 1, temp_C: 30, spot: 'face' }] }),
      event('solvent', { joint: zone.joint, drops: 3, away: true, bond_C: 20, bench: 'west' }),
      event('aired', { step: 'vent', seconds: 60, bench: 'west' }),
      event('damage', { kind: 'crack', face: 'front', x: 3, y: 3, part: 'display' }),
      event('measure', { part: 'cell', thickness_mm: 4 }),
      event('trouble', { kind: 'screw-lost', text: '', joint: 'edge-screws', point: 'a' }),
      event('clear', { stop: randomUUID(), text: 'x', lead: 'Maren' }),
      event('targets', { targets: [{ replace: 'display' }, { full: true }] }),
      event('undo', { event: randomUUID() }),
      event('photo', { shown: 'a'.repeat(64), thumb: 'b'.repeat(64), width: 3, height: 3 }),
    ],
  },
});

/** Every body in which one thing is nonsense; of long lists the first two things. */
function* spoiled(body: Json): Generator<Json> {
  yield* NONSENSE;
  if (Array.isArray(body)) {
    const list = body as readonly Json[];
    const most = list.length > 20 ? 2 : list.length;
    for (let n = 0; n < most; n++) for (const each of spoiled(list[n])) yield list.with(n, each);
  } else if (typeof body === 'object' && body !== null) {
    for (const [key, value] of Object.entries(body)) for (const each of spoiled(value)) yield { ...body, [key]: each };
  }
}

/** Bodies for each route; the fast loop sends fewer. */
const MOST = process.env['NIBREL_LOOP'] === 'fast' ? 30 : 300;

/** One in so many: which, moves on from route to route. */
function some<T>(from: Iterable<T>, most: number): T[] {
  const all = [...from];
  const every = Math.max(1, Math.floor(all.length / most));
  return all.filter((_, n) => n % every === 0);
}

function isAnswer({ status, type, body }: Answer, what: string): void {
  // 503 says that the machine is busy, and when to come again; anything else of the kind is a fault of ours
  if (status >= 500) expect([status, what]).toEqual([503, what]);
  if (status < 400) return;
  expect([type, what]).toEqual(['application/problem+json', what]);
  expect(body).toMatchObject({ type: 'about:blank', status, detail: expect.stringMatching(/\S+ \S+/) });
  if (status === 422) {
    expect([body['errors'], what]).not.toEqual([undefined, what]);
    const problem = {
      path: expect.stringMatching(/./),
      message: expect.stringMatching(/\S/),
      cure: expect.any(String),
    };
    for (const each of body['errors']) expect(each).toEqual(problem);
  }
}

/** By its status, or as a map that has errors or an event that was not taken. */
function isRefused({ status, body }: Answer): boolean {
  return status >= 400 || body['errors']?.length > 0 || body['rejected']?.length > 0;
}

describe('somebody who means harm', () => {
  it('gets a sentence from every route for a body with nonsense anywhere in it', async () => {
    const refused = new Map<string, number>();
    for (const [path, body] of Object.entries(bodies())) {
      for (const bad of some(spoiled(body), MOST)) {
        const answer = await call('POST', path, bad === undefined ? '' : bad);
        isAnswer(answer, `${path} ${JSON.stringify(bad)?.slice(0, 300)}`);
        if (isRefused(answer)) refused.set(path, (refused.get(path) ?? 0) + 1);
      }
      isAnswer(await call('POST', path, OWN_PROTOTYPE), path);
      isAnswer(await call('POST', path, '{"a":'), path);
      isAnswer(await call('POST', path, 'a=b', { 'content-type': 'application/x-www-form-urlencoded' }), path);
      isAnswer(await call('POST', path, new Uint8Array(5000).fill(255)), path);
      expect(refused.get(path) ?? 0, path).toBeGreaterThan(10);
    }
    expect((await call('GET', '/health')).body).toEqual({ status: 'ok' });
    expect(({} as { isLead?: boolean }).isLead).toBeUndefined();
  });

  it('gets a sentence from every route of the document, by every method, for names that are none', async () => {
    const { body } = await call('GET', '/openapi.json');
    const names = ['%00', '..%2f..%2fetc', '%F0%9F%94%A5', '__proto__', 'x'.repeat(3000), '%E0%A4%A'];
    for (const path of Object.keys(body['paths'])) {
      if (path === '/changes' || path.startsWith('/stand-ins/')) continue;
      for (const name of names) {
        const asked = path.replace(/\{file\}/g, 'card.svg').replace(/\{\w+\}/g, name);
        for (const method of ['GET', 'PUT', 'POST', 'DELETE', 'PATCH']) {
          const of = method === 'GET' ? undefined : {};
          const answer = await fetch(api.base + asked, {
            method,
            headers: { 'content-type': 'application/json' },
            ...(of && { body: JSON.stringify(of) }),
          });
          await answer.arrayBuffer();
          expect([answer.status >= 500 && answer.status !== 503, method, asked.slice(0, 80)]).toEqual([
            false,
            method,
            asked.slice(0, 80),
          ]);
        }
      }
    }
  });

  it('gets a sentence for questions that are none', async () => {
    const wrong = ['', '-1', '1e99', 'NaN', '0x10', '1.5', '[]', '%00', '9'.repeat(400), '2026-13-45T00:00:00Z'];
    for (const value of wrong) {
      for (const asked of [
        `/jobs?limit=${value}`,
        `/jobs?since=${value}`,
        `/jobs?open=${value}`,
        `/jobs/${job}/events?after=${value}`,
        `/jobs/${job}/export?format=${value}`,
      ]) {
        const answer = await fetch(api.base + asked);
        await answer.arrayBuffer();
        expect([answer.status < 500, asked]).toEqual([true, asked]);
      }
    }
    // a key that is no key of a limit, a limit that is none
    for (const key of ['swelling_percent', '__proto__', 'constructor', 'toString']) {
      const answer = await call('POST', '/shop/events', {
        events: [{ ...event('limits', JSON.parse(`{"${key}": "1e9"}`) as Json), by: 'Maren' }],
      });
      isAnswer(answer, key);
      if (answer.status === 200) expect(answer.body['rejected']).toHaveLength(1);
    }
  });

  it('changes nothing: what was there before is there, and the job goes on', async () => {
    const { body } = await call('GET', `/jobs/${job}`);
    expect(body).toMatchObject({ id: job, map: 'tern-5' });
    const said = event('note', { text: 'still here' });
    expect((await call('POST', `/jobs/${job}/events`, { events: [said] })).body).toMatchObject({ accepted: [said.id] });
    const { body: shop } = await call('GET', '/shop');
    expect(shop['people']).toContainEqual({ name: 'Maren', role: 'lead' });
  });
});
