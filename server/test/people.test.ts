import { randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Hono } from 'hono';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Tries } from '../src/http/tries.ts';
import { answerProblem, HttpProblem } from '../src/http/http-problem.ts';
import { Password } from '../src/network/password.ts';
import { Sessions } from '../src/network/sessions.ts';
import { LeadSecrets } from '../src/people/lead-secrets.ts';
import { lead, readJson, TestServer } from './harness.ts';

const folder = () => mkdtempSync(join(tmpdir(), 'nibrel-people-'));
const event = (type: string, data: object, by: string) => ({
  id: randomUUID(),
  type,
  at: new Date().toISOString(),
  by,
  data,
});
const cookieOf = (headers: Headers) => ({ cookie: headers.get('set-cookie')!.split(';')[0]! });

describe('what only a lead may say', () => {
  const api = new TestServer();
  const call = api.call.bind(api);
  const shop = async (...events: object[]) => (await call('POST', '/shop/events', { events })).body['rejected'];
  let job = '';
  beforeAll(async () => {
    await api.start();
    await call('POST', '/device-maps', readJson('docs/examples/sample.json'));
    await shop(lead('Maren'));
    job = (await call('POST', '/jobs', { map: 'sample', targets: [{ replace: 'screen' }] })).body['id'] as string;
  });
  afterAll(() => api.stop());
  const stopped = async () => {
    const stop = event('stop', { reason: 'smoke', text: '' }, 'Ines');
    await call('POST', `/jobs/${job}/events`, { events: [stop] });
    return (by: string, headers = {}) =>
      call('POST', `/jobs/${job}/events`, { events: [event('clear', { stop: stop.id, text: 'cold' }, by)] }, headers);
  };

  it('is asked for no secret where nobody else works, and for the own one where others do', async () => {
    expect((await (await stopped())('Maren')).body['rejected']).toEqual([]);
    expect(await shop(event('person', { name: 'Pip', role: 'learner' }, 'Maren'))).toEqual([]);
    const clear = await stopped();
    expect((await clear('maren')).body['rejected']).toMatchObject([{ needs: 'secret' }]);
    expect((await clear('Pip')).body['rejected']).toMatchObject([{ needs: 'lead' }]);
    const wrong = (body: object) => call('POST', '/lead', body).then(({ status }) => status);
    expect(await wrong({ person: 'Maren', secret: 'harbour light' })).toBe(409);
    expect(await wrong({ person: 'Pip', secret: 'harbour light', isNew: true })).toBe(409);
    expect(await wrong({ person: 'Maren', secret: 'short', isNew: true })).toBe(422);
    const set = await call('POST', '/lead', { person: 'Maren', secret: 'harbour light', isNew: true });
    expect(set).toMatchObject({ status: 200, body: { leads: [{ person: 'Maren', hasSecret: true }] } });
    expect(set.headers.get('set-cookie')).toMatch(/HttpOnly; SameSite=Strict/);
    // set once: nobody takes its place
    expect(await wrong({ person: 'MAREN', secret: 'another light', isNew: true })).toBe(409);
    expect(await wrong({ person: 'Maren', secret: 'another light' })).toBe(401);
    const own = cookieOf(set.headers);
    expect((await clear('Maren', { cookie: `${own.cookie}x` })).body['rejected']).toMatchObject([{ needs: 'secret' }]);
    expect((await clear('Maren', own)).body['rejected']).toEqual([]);
    // put down again, it is asked for anew
    const again = await stopped();
    await call('DELETE', '/lead', undefined, own);
    expect((await again('Maren', own)).body['rejected']).toMatchObject([{ needs: 'secret' }]);
    // nobody becomes a lead, and no lead goes, without it
    expect(await shop(event('person', { name: 'Pip', role: 'lead' }, 'Maren'))).toMatchObject([{ needs: 'secret' }]);
    expect(await shop(event('limits', { swelling_percent: 9 }, 'Maren'))).toMatchObject([{ needs: 'secret' }]);
  });

  it('is kept as a hash of its owner, and forgotten where whoever starts the server says so', async () => {
    const file = join(folder(), 'people', 'secrets.json');
    const secrets = LeadSecrets.in(file);
    expect(await secrets.set('Maren', 'harbour light')).toBe(true);
    expect(await secrets.set('maren ', 'another')).toBe(false);
    expect(readFileSync(file, 'utf8')).not.toContain('harbour');
    expect(statSync(file).mode & 0o077).toBe(0);
    const again = LeadSecrets.in(file);
    expect([await again.is('MAREN', 'harbour light'), await again.is('Maren', 'harbour')]).toEqual([true, false]);
    again.forget('Maren');
    expect(LeadSecrets.in(file).has('Maren')).toBe(false);
    writeFileSync(file, '{"maren":{"salt":3}}');
    expect(() => LeadSecrets.in(file)).toThrow('is damaged and was left as it is');
    // one that could not be written was not set
    const blocked = LeadSecrets.in(join(file, 'secrets.json'));
    await expect(blocked.set('Maren', 'harbour light')).rejects.toThrow();
    expect(blocked.has('Maren')).toBe(false);
  });

  it('names are refused that look like another, and compared however they are written', async () => {
    const refused = async (by: string) => (await shop(event('tool', { name: 'pick', owned: true }, by)))[0]?.problem;
    expect(await refused('Mar\u200ben')).toContain('nobody sees');
    expect(await refused('M\u0430ren')).toContain('several scripts');
    expect(await refused('Мария')).toBeUndefined();
    expect((await call('POST', '/jobs', { map: 'sample', targets: [], serial: 'BF\u202e1' })).status).toBe(422);
    const one = await call('POST', '/jobs', { map: 'sample', targets: [], serial: 'BF-T 7' });
    const leak = event('stop', { reason: 'leak', text: '' }, 'Ines');
    await call('POST', `/jobs/${one.body['id']}/events`, { events: [leak] });
    const next = await call('POST', '/jobs', { map: 'sample', targets: [], serial: ' bf-t7' });
    expect(next.body['before']).toMatchObject({ reason: 'leak' });
  });

  it('a map, a repair, schools and limits say who made them', async () => {
    const here = { 'nibrel-person': encodeURIComponent('Zoë') };
    await call('PUT', '/device-maps/sample', { ...readJson<object>('docs/examples/sample.json'), name: 'New' }, here);
    expect((await call('GET', '/device-maps')).body['maps']).toMatchObject([{ id: 'sample', by: 'Zoë', revision: 2 }]);
    expect((await call('POST', '/jobs', { map: 'sample', targets: [] }, here)).body['by']).toBe('Zoë');
    await shop(event('schools', { display: 'taken-off' }, 'Ines'));
    expect((await call('GET', '/shop')).body).toMatchObject({ schoolsBy: { by: 'Ines' }, limitsBy: null });
  });

  it('and a map whose thickness changes under a repair is warned about', async () => {
    const map = readJson<{ outline: object; parts: object[] }>('docs/examples/sample.json');
    const thicker = { ...map, outline: { ...map.outline, thickness: 9 } };
    const warned = (await call('PUT', '/device-maps/sample', thicker)).body['warnings'] as { path: string }[];
    expect(warned.map(({ path }) => path)).toContain('outline.thickness');
    const harmless = { ...map, parts: map.parts.map((each) => ({ ...each, hazards: [] })) };
    const found = (await call('POST', '/device-maps/check', harmless)).body['warnings'] as { path: string }[];
    expect(found.map(({ path }) => path)).toContain('parts[3].hazards');
  });
});

describe('over a network', () => {
  const start = async () => {
    const { password } = await Password.in(folder(), 'ferry line four');
    const api = new TestServer({ network: { password, sessions: new Sessions() } });
    await api.start();
    const signIn = async (person: string) =>
      cookieOf((await api.call('POST', '/session', { password: 'ferry line four', person })).headers);
    return { api, signIn };
  };

  it('a learner makes no map, no repair, no school and no limit', async () => {
    const { api, signIn } = await start();
    const [maren, pip] = [await signIn('Maren'), await signIn('pip')];
    const told = (events: object[], as: object) => api.call('POST', '/shop/events', { events }, as as never);
    await told([lead('Maren'), event('person', { name: 'Pip', role: 'learner' }, 'Maren')], maren);
    const map = readJson('docs/examples/sample.json');
    expect((await api.call('POST', '/device-maps', map, pip)).status).toBe(403);
    expect((await api.call('POST', '/device-maps', map, maren)).status).toBe(201);
    expect((await api.call('GET', '/device-maps', undefined, pip)).body['maps']).toMatchObject([{ by: 'Maren' }]);
    for (const [method, path, body] of [
      ['PUT', '/device-maps/sample', map],
      ['DELETE', '/device-maps/sample', undefined],
      ['POST', '/jobs', { map: 'sample', targets: [] }],
    ] as const) {
      expect([method, (await api.call(method, path, body, pip)).status]).toEqual([method, 403]);
    }
    expect((await told([event('schools', { display: 'taken-off' }, 'pip')], pip)).body['rejected']).toHaveLength(1);
    expect((await told([event('limits', { swelling_percent: 9 }, 'pip')], pip)).body['rejected']).toHaveLength(1);
    await api.stop();
  });

  it('nobody confirms for a lead who is not signed in, and what changes is told as long as somebody is', async () => {
    const { api, signIn } = await start();
    const [maren, ines] = [await signIn('Maren'), await signIn('Ines')];
    await api.call('POST', '/shop/events', { events: [lead('Maren')] }, maren);
    const set = { person: 'Maren', secret: 'harbour light', isNew: true };
    expect((await api.call('POST', '/lead', set, ines)).status).toBe(403);
    expect((await api.call('POST', '/lead', set, maren)).status).toBe(200);
    const stream = await fetch(`${api.base}/changes`, { headers: ines });
    const reader = stream.body!.getReader();
    expect(Buffer.from((await reader.read()).value!).toString()).toContain('hello');
    await api.call('DELETE', '/session', undefined, ines);
    expect((await reader.read()).done).toBe(true);
    await api.stop();
  });
});

describe('guesses', () => {
  it('from many addresses never keep out one that came in before, and only wrong ones count', async () => {
    const tries = new Tries();
    const app = new Hono();
    app.onError((error, context) => answerProblem(context, error as HttpProblem));
    app.get('/:word', async (context) => {
      const isRight = await tries.guess(context, async () => context.req.param('word') === 'right');
      return context.text('', isRight ? 200 : 401);
    });
    const from = async (remoteAddress: string, word: string) =>
      (await app.request(`/${word}`, {}, { incoming: { socket: { remoteAddress } } })).status;
    for (let n = 0; n < 20; n++) expect(await from('192.0.2.1', 'right')).toBe(200);
    for (let n = 0; n < 5; n++) expect(await from('192.0.2.2', 'guess')).toBe(401);
    expect(await from('192.0.2.2', 'right')).toBe(429);
    const guesses = [];
    for (let n = 0; n < 80; n++) guesses.push(await from(`198.51.100.${n}`, 'guess'));
    expect(guesses.filter((status) => status === 401).length).toBeLessThan(60);
    expect(await from('203.0.113.9', 'right')).toBe(429);
    expect(await from('192.0.2.1', 'right')).toBe(200);
    // of one IPv6 network all addresses are one
    const six = new Set<number>();
    for (let n = 0; n < 8; n++) six.add(await from(`2001:db8:1:2::${n}`, 'guess'));
    expect([...six]).toEqual([429]);
    // many at the same time are no way round the count
    const own = new Tries();
    const asked = new Hono();
    asked.onError((error, context) => answerProblem(context, error as HttpProblem));
    asked.get('/', async (context) => context.text('', (await own.guess(context, async () => false)) ? 200 : 401));
    const all = await Promise.all(
      Array.from(
        { length: 30 },
        async () => (await asked.request('/', {}, { incoming: { socket: { remoteAddress: '192.0.2.3' } } })).status,
      ),
    );
    expect(all.filter((status) => status === 401)).toHaveLength(5);
  });
});
