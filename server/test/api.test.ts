import { randomUUID } from 'node:crypto';
import { request } from 'node:http';
import { strFromU8, unzipSync } from 'fflate';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readJson, TestServer } from './harness.ts';

const sample = () =>
  readJson<Record<string, unknown> & { parts: { id: string }[]; joints: unknown[] }>('docs/examples/sample.json');

const api = new TestServer();
const call = api.call.bind(api);

beforeAll(() => api.start());
afterAll(() => api.stop());

/** fetch sets Host itself; this does not. */
function withHost(host: string): Promise<number> {
  const { port } = api;
  return new Promise((resolve, reject) => {
    const sent = request({ host: '127.0.0.1', port, path: '/api/v1/health', headers: { host } }, (answer) => {
      answer.resume();
      resolve(answer.statusCode!);
    });
    sent.on('error', reject);
    sent.end();
  });
}

const note = (text: string, id: string = randomUUID()) => ({
  id,
  type: 'note',
  at: new Date().toISOString(),
  by: 'Ines',
  data: { text },
});

async function newJob(map = 'sample'): Promise<string> {
  const { body, status } = await call('POST', '/jobs', { map, targets: [{ replace: 'screen' }], title: 'Test' });
  expect(status).toBe(201);
  return body['id'] as string;
}

describe('the door', () => {
  it('says that it is there, and describes itself', async () => {
    expect((await call('GET', '/health')).body).toEqual({ status: 'ok' });
    const { body } = await call('GET', '/openapi.json');
    expect(body['openapi']).toBe('3.1.0');
    expect(Object.keys(body['paths'])).toEqual(
      expect.arrayContaining(['/jobs/{id}/events', '/compute/order', '/compute/plan', '/compute/possible']),
    );
  });

  it('answers to loopback names only, and to no other site', async () => {
    expect(await withHost('127.0.0.1:1')).toBe(200);
    expect(await withHost('localhost')).toBe(200);
    expect(await withHost('rebound.example')).toBe(403);
    expect((await call('GET', '/health', undefined, { origin: 'http://elsewhere.example' })).status).toBe(403);
    expect((await call('GET', '/health', undefined, { origin: api.base.replace('/api/v1', '') })).status).toBe(200);
  });

  it('takes JSON only, sends a strict policy, and problems as RFC 9457 has them', async () => {
    const text = await call('POST', '/jobs', '{}', { 'content-type': 'text/plain' });
    expect(text).toMatchObject({
      status: 415,
      type: 'application/problem+json',
      body: { status: 415, title: 'Another type' },
    });
    expect(text.headers.get('content-security-policy')).toContain("default-src 'self'");
    expect(text.headers.get('content-security-policy')).not.toContain('unsafe');
    expect((await call('POST', '/jobs', '{"map":')).status).toBe(400);
    expect((await call('POST', '/jobs', '[1e999]')).status).toBe(422);
    expect((await call('GET', '/nothing')).status).toBe(404);
    const wrong = await call('PATCH', '/jobs');
    expect([wrong.status, wrong.headers.get('allow')]).toEqual([405, 'GET, POST']);
  });

  it('refuses what is over 2 MB, and what is nested without end', async () => {
    expect(
      (await call('POST', '/device-maps', JSON.stringify({ ...sample(), hint: 'x'.repeat(3 * 1024 * 1024) }))).status,
    ).toBe(413);
    expect((await call('POST', '/device-maps/check', `${'['.repeat(100_000)}${']'.repeat(100_000)}`)).status).toBe(422);
    expect((await call('GET', '/health')).status).toBe(200);
  });
});

describe('device maps', () => {
  it('are added, revised and kept as they came, unknown fields and all', async () => {
    const name = '<b>Ω</b> ‮טרן‬';
    const map = { ...sample(), id: 'kept', name, mood: { good: true } };
    const added = await call('POST', '/device-maps', map);
    expect(added).toMatchObject({ status: 201, body: { id: 'kept', revision: 1, warnings: [{ path: 'mood' }] } });
    expect((await call('GET', '/device-maps/kept')).body).toEqual(map);
    expect((await call('POST', '/device-maps', map)).status).toBe(409);
    expect((await call('PUT', '/device-maps/kept', { ...map, name: 'Second' })).body).toMatchObject({ revision: 2 });
    expect((await call('GET', '/device-maps/kept')).body['name']).toBe('Second');
    expect((await call('GET', '/device-maps/kept?revision=1')).body['name']).toBe(name);
    expect((await call('GET', '/device-maps')).body['maps']).toContainEqual({
      id: 'kept',
      name: 'Second',
      kind: 'phone',
      revision: 2,
      by: null,
      at: expect.any(String),
    });
    expect((await call('DELETE', '/device-maps/kept')).status).toBe(204);
    expect((await call('GET', '/device-maps/kept')).status).toBe(404);
  });

  it('are refused with the place of each error, and stay as they were', async () => {
    const bad = await call('POST', '/device-maps', { ...sample(), joints: [{ id: 'x', type: 'screw' }] });
    expect(bad.status).toBe(422);
    expect(bad.body['errors']).toContainEqual(expect.objectContaining({ path: 'joints[0].points' }));
    const check = await call('POST', '/device-maps/check', { ...sample(), parts: [] });
    expect(check.status).toBe(200);
    expect(check.body['errors'][0].path).toBe('parts');
    expect((await call('PUT', '/device-maps/nowhere', sample())).status).toBe(404);
  });

  it('stay while a job uses them', async () => {
    await call('POST', '/device-maps', sample());
    await newJob();
    expect((await call('DELETE', '/device-maps/sample')).status).toBe(409);
    expect((await call('PUT', '/device-maps/sample', { ...sample(), id: 'other' })).status).toBe(422);
  });
});

describe('jobs and events', () => {
  it('refuses a job for what is not there, naming the field', async () => {
    expect((await call('POST', '/jobs', { map: 'nowhere', targets: [] })).body['errors'][0].path).toBe('map');
    expect((await call('POST', '/jobs', { map: 'sample', targets: [{ replace: 'x' }] })).body['errors'][0].path).toBe(
      'targets[0].replace',
    );
    expect((await call('POST', '/jobs', { map: 'sample', targets: [{}] })).status).toBe(422);
    expect(
      (await call('POST', '/jobs', { map: 'sample', targets: [], policy: { display: 'sideways' } })).body['errors'][0]
        .path,
    ).toBe('policy.display');
    expect((await call('GET', '/jobs/nowhere')).status).toBe(404);
  });

  it('takes events once, whatever is sent again, and says why not', async () => {
    const job = await newJob();
    const [first, second] = [note('one'), note('two')];
    expect((await call('POST', `/jobs/${job}/events`, { events: [first, second] })).body).toEqual({
      accepted: [first.id, second.id],
      duplicate: [],
      rejected: [],
      revision: 2,
      receivedAt: expect.any(String),
    });
    const again = await call('POST', `/jobs/${job}/events`, {
      events: [
        first,
        { ...second, data: { text: 'changed' } },
        { ...note('x'), type: 'dance' },
        { ...note('x'), data: { text: 7 } },
        'no event',
        { id: 'no-uuid' },
      ],
    });
    expect(again.status).toBe(200);
    expect(again.body).toMatchObject({ accepted: [], duplicate: [first.id], revision: 2 });
    expect(again.body['rejected'].map((each: { problem: string }) => each.problem)).toEqual([
      expect.stringContaining('other content'),
      expect.stringContaining('"dance"'),
      expect.stringContaining('text'),
      expect.any(String),
      expect.any(String),
    ]);
    expect((await call('GET', `/jobs/${job}/events`)).body).toEqual({
      events: [first, second].map((each) => ({ ...each, receivedAt: expect.any(String) })),
      revision: 2,
    });
    const other = await newJob();
    expect((await call('POST', `/jobs/${other}/events`, { events: [first] })).body['rejected']).toHaveLength(1);
  });

  it('refuses an illegal step with what holds, unless it happened anyway; two windows do a step once', async () => {
    const job = await newJob();
    const did = (joint: string, more: object = {}) => ({
      id: randomUUID(),
      type: 'did',
      at: new Date().toISOString(),
      by: 'Ines',
      data: { steps: [{ id: `release:${joint}`, kind: 'release', joint }], ...more },
    });
    const refused = await call('POST', `/jobs/${job}/events`, { events: [did('seal')] });
    expect(refused.body['rejected'][0].problem).toContain('2 screws released');
    expect(
      (await call('POST', `/jobs/${job}/events`, { events: [did('seal', { anyway: 'came off by itself' })] })).body[
        'accepted'
      ],
    ).toHaveLength(1);
    const both = await Promise.all(
      [1, 2].map(() => call('POST', `/jobs/${job}/events`, { events: [did('edge-screws')] })),
    );
    expect(both.flatMap(({ body }) => body['accepted'])).toHaveLength(1);
    expect(both.flatMap(({ body }) => body['rejected'])[0].problem).toContain('done already');
    expect((await call('GET', `/jobs/${job}`)).body).toMatchObject({ status: 'under-way', screws: { onMat: 2 } });
  });

  it('refuses more than 1 000 events a call, and takes 1 000', async () => {
    const job = await newJob();
    const many = (count: number) => ({ events: Array.from({ length: count }, () => note('n')) });
    expect((await call('POST', `/jobs/${job}/events`, many(10_000))).status).toBe(413);
    expect((await call('POST', `/jobs/${job}/events`, many(1000))).body).toMatchObject({
      revision: 1000,
      rejected: [],
    });
    expect((await call('POST', `/jobs/${job}/events`, { events: 'all' })).status).toBe(422);
  });

  it('exports the job whole, with no cell that a spreadsheet would run', async () => {
    const job = await newJob();
    await call('POST', `/jobs/${job}/events`, { events: [{ ...note('first'), by: '=cmd()' }] });
    const response = await fetch(`${api.base}/jobs/${job}/export`);
    const files = unzipSync(new Uint8Array(await response.arrayBuffer()));
    expect(Object.keys(files).sort()).toEqual(['device-map.json', 'events.csv', 'job.json']);
    expect(strFromU8(files['events.csv']!)).toContain("'=cmd()");
    expect(JSON.parse(strFromU8(files['device-map.json']!))).toEqual(sample());
    expect(JSON.parse(strFromU8(files['job.json']!)).events).toHaveLength(1);
  });

  it('has everything again after the server was started anew on the same folder', async () => {
    const job = await newJob();
    const kept = note('kept');
    await call('POST', `/jobs/${job}/events`, { events: [kept] });
    await api.stop();
    await api.start();
    const { events } = (await call('GET', `/jobs/${job}/events`)).body;
    expect(events).toEqual([{ ...kept, receivedAt: expect.any(String) }]);
  });
});

describe('compute', () => {
  const op = (id: string, after: string[] = []) => ({ id, seconds: 1, tool: 'T2', face: null, after });
  const order = (ops: unknown[], more: object = {}) =>
    call('POST', '/compute/order', {
      ops,
      start: { tool: null, face: null },
      toolChangeSeconds: 8,
      flipSeconds: 5,
      ...more,
    });

  it('orders, and lists a ring', async () => {
    expect((await order([op('b', ['a']), op('a')])).body).toEqual({
      order: ['a', 'b'],
      seconds: 10,
      setupSeconds: 8,
      toolChanges: 1,
      flips: 0,
      lowerBoundSeconds: 10,
      optimal: true,
    });
    const ring = await order([op('a', ['b']), op('b', ['a'])]);
    expect(ring.status).toBe(422);
    expect(ring.body['detail']).toMatch(/a before b before a|b before a before b/);
  });

  it('names the field at fault', async () => {
    expect((await order([{ ...op('a'), seconds: -1 }])).body['errors'][0].path).toBe('ops[0].seconds');
    expect((await order([op('a', ['x'])])).body['errors'][0].path).toBe('ops[0].after[0]');
    expect((await order([op('a'), op('a')])).status).toBe(422);
    expect((await order([op('a')], { timeLimitMs: 60_000 })).status).toBe(422);
    expect((await call('POST', '/compute/order', null)).status).toBe(422);
    expect((await call('POST', '/compute/plan', { map: {}, targets: [] })).body['errors'][0].path).toMatch(/^map\./);
    expect(
      (await call('POST', '/compute/plan', { map: sample(), targets: [{ replace: 'x' }] })).body['errors'][0].path,
    ).toBe('targets[0].replace');
    expect(
      (await call('POST', '/compute/possible', { map: sample(), done: [{ release: 'x' }] })).body['errors'][0].path,
    ).toBe('done[0]');
    expect((await call('POST', '/compute/possible', { map: sample(), done: [{ jump: 'x' }] })).status).toBe(422);
  });

  it('plans and says what is possible, by the contract’s names', async () => {
    const plan = await call('POST', '/compute/plan', { map: sample(), targets: [{ replace: 'screen' }] });
    expect(plan.status).toBe(200);
    expect(plan.body['strip'].at(-1)).toMatchObject({
      kind: 'lift',
      part: 'screen',
      notBefore: expect.arrayContaining(['release:seal']),
    });
    const possible = await call('POST', '/compute/possible', {
      map: sample(),
      done: [{ release: 'edge-screws' }, { lift: 'lid' }],
    });
    expect(possible.body['possible']).toContainEqual({ kind: 'release', joint: 'seal' });
    expect(possible.body['warnings']).toContainEqual(expect.objectContaining({ code: 'out-of-order', part: 'lid' }));
  });

  it('keeps events going, and answers 503, when hostile orders fill it', async () => {
    const hard = Array.from({ length: 220 }, (_, n) => ({
      ...op(`${n}`, n % 11 ? [`${n - 1}`] : []),
      tool: `t${(n * 7) % 9}`,
      face: `f${(n * 5) % 3}`,
    }));
    const flood = Array.from({ length: 14 }, () => order(hard, { timeLimitMs: 1500 }));
    const job = await newJob();
    expect((await call('POST', `/jobs/${job}/events`, { events: [note('meanwhile')] })).body['accepted']).toHaveLength(
      1,
    );
    expect((await call('GET', '/health')).status).toBe(200);
    const answers = await Promise.all(flood);
    const codes = new Set(answers.map(({ status }) => status));
    expect([...codes].sort()).toEqual([200, 503]);
    expect(answers.find(({ status }) => status === 503)!.headers.get('retry-after')).toBe('2');
    const best = answers.find(({ status }) => status === 200)!.body;
    expect(best['order']).toHaveLength(220);
    expect(best['lowerBoundSeconds']).toBeLessThanOrEqual(best['seconds']);
  });
});
