import { spawnSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, readFileSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { certificateIn } from '../src/network/certificate.ts';
import { isLoopback } from '../src/http/loopback.ts';
import { Password } from '../src/network/password.ts';
import { Sessions } from '../src/network/sessions.ts';
import { lead, TestServer } from './harness.ts';
import { Spawned } from './spawned.ts';

const folder = () => mkdtempSync(join(tmpdir(), 'nibrel-net-'));

describe('what others may know', () => {
  it('tells this machine from others', () => {
    for (const here of ['127.0.0.1', '127.4.5.6', 'localhost', '::1', '[::1]', '::ffff:127.0.0.1']) {
      expect([here, isLoopback(here)]).toEqual([here, true]);
    }
    for (const there of ['0.0.0.0', '::', '192.0.2.7', 'pier4.example', '127.example']) {
      expect([there, isLoopback(there)]).toEqual([there, false]);
    }
  });

  it('keeps the password as a salted hash, makes one up where none is given, and refuses a short one', async () => {
    const place = folder();
    const { password, made } = await Password.in(place, undefined);
    expect(made).toMatch(/^[a-z2-9]{5}(-[a-z2-9]{5}){3}$/);
    expect(await password.is(made!)).toBe(true);
    expect(await password.is(`${made}x`)).toBe(false);
    const kept = readFileSync(join(place, 'network/password.json'), 'utf8');
    expect(kept).not.toContain(made);
    expect(statSync(join(place, 'network/password.json')).mode & 0o077).toBe(0);
    const again = await Password.in(place, undefined);
    expect([again.made, await again.password.is(made!)]).toEqual([null, true]);
    const changed = await Password.in(place, 'a new one for all');
    expect(await changed.password.is('a new one for all')).toBe(true);
    await expect(Password.in(place, 'short')).rejects.toThrow('10 characters');
  });

  it('has a certificate for its names, kept until it runs out or a name is new', async () => {
    const place = folder();
    const now = new Date('2026-11-28T08:00:00Z');
    const first = await certificateIn(place, ['192.0.2.7', 'pier4.example'], now);
    expect(first).toMatchObject({ isNew: true, fingerprint: expect.stringMatching(/^([0-9A-F]{2}:){31}[0-9A-F]{2}$/) });
    expect(statSync(join(place, 'network/key.pem')).mode & 0o077).toBe(0);
    const same = await certificateIn(place, ['pier4.example'], now);
    expect([same.isNew, same.fingerprint]).toEqual([false, first.fingerprint]);
    expect((await certificateIn(place, ['192.0.2.8'], now)).isNew).toBe(true);
    expect((await certificateIn(place, ['192.0.2.8'], new Date('2028-01-01T00:00:00Z'))).isNew).toBe(true);
  });
});

describe('signing in', () => {
  const start = async () => {
    const { password } = await Password.in(folder(), 'ferry line four');
    const api = new TestServer({ network: { password, sessions: new Sessions() } });
    await api.start();
    return api;
  };
  const signIn = (api: TestServer, password: string, person = 'Ines') =>
    api.call('POST', '/session', { password, person });

  it('comes before anything else; the session is a cookie that no script reads and no other site sends', async () => {
    const api = await start();
    expect((await api.call('GET', '/health')).status).toBe(200);
    expect((await api.call('GET', '/session')).body).toEqual({ needed: true, person: null, role: null });
    for (const path of ['/jobs', '/shop', '/changes', '/device-maps', '/openapi.json', '/parts', '/nowhere']) {
      expect([path, (await api.call('GET', path)).status]).toEqual([path, 401]);
    }
    expect((await signIn(api, 'guess')).status).toBe(401);
    const { status, headers, body } = await signIn(api, 'ferry line four');
    expect([status, body]).toEqual([200, { needed: true, person: 'Ines', role: 'technician' }]);
    const cookie = headers.get('set-cookie')!;
    for (const part of ['__Host-nibrel=', 'HttpOnly', 'Secure', 'SameSite=Strict', 'Path=/'])
      expect(cookie).toContain(part);
    const own = { cookie: cookie.split(';')[0]! };
    expect((await api.call('GET', '/jobs', undefined, own)).status).toBe(200);
    expect((await api.call('GET', '/jobs', undefined, { cookie: `${own.cookie}x` })).status).toBe(401);
    await api.call('DELETE', '/session', undefined, own);
    expect((await api.call('GET', '/jobs', undefined, own)).status).toBe(401);
    await api.stop();
  });

  it('says who one is: nobody speaks under another name, and the role is that of the list', async () => {
    const api = await start();
    const cookieOf = async (person: string) => ({
      cookie: (await signIn(api, 'ferry line four', person)).headers.get('set-cookie')!.split(';')[0]!,
    });
    const [ines, maren] = [await cookieOf('Ines'), await cookieOf('Maren')];
    const shop = async (event: object, headers: Record<string, string>) =>
      (await api.call('POST', '/shop/events', { events: [event] }, headers)).body['rejected'][0]?.problem ?? null;
    expect(await shop(lead('Maren'), ines)).toContain('Ines is signed in here');
    expect(await shop(lead('Maren'), maren)).toBeNull();
    const limits = (by: string) => ({
      id: randomUUID(),
      type: 'limits',
      at: '2026-11-24T10:00:00Z',
      by,
      data: { swelling_percent: 5 },
    });
    expect(await shop(limits('Maren'), ines)).toContain('Ines is signed in here');
    expect(await shop(limits('Ines'), ines)).toContain('Ines is none');
    expect(await shop(limits('Maren'), maren)).toBeNull();
    await api.stop();
  });

  it('is tried a few times a minute, not more', async () => {
    const api = await start();
    const tries = [];
    for (let n = 0; n < 7; n++) tries.push((await signIn(api, `guess ${n}`)).status);
    expect(tries).toEqual([401, 401, 401, 401, 401, 429, 429]);
    const right = await signIn(api, 'ferry line four');
    expect([right.status, Number(right.headers.get('retry-after'))]).toEqual([429, expect.any(Number)]);
    await api.stop();
  });
});

describe('the answers', () => {
  it('are not kept by anybody, and a file that is not there is no page', async () => {
    const plain = new TestServer();
    await plain.start();
    expect((await plain.call('GET', '/jobs')).headers.get('cache-control')).toBe('no-store');
    const form = await plain.call('POST', '/jobs', 'map=x', {
      'content-type': 'application/x-www-form-urlencoded',
      'sec-fetch-site': 'cross-site',
    });
    expect(form.status).toBe(403);
    await plain.stop();
    const server = new Spawned('main', [], { NIBREL_DATA: folder() });
    const url = await server.ready();
    expect((await fetch(`${url}/assets/nothing.js`)).status).toBe(404);
    const page = await fetch(`${url}/jobs/x/record`);
    expect([page.status, page.headers.get('content-type')]).toEqual([200, expect.stringContaining('text/html')]);
    const nonce = /nonce-([^']+)'/.exec(page.headers.get('content-security-policy')!)![1];
    expect(await page.text()).toContain(`content="${nonce}"`);
    await server.kill();
  });
});

/** In a network of its own, where 192.0.2.7 (RFC 5737) is an address of this machine and nobody else is. */
const OWN_NETWORK = ['-n', 'sh', '-c', 'ip link set lo up && ip addr add 192.0.2.7/32 dev lo && exec "$0" "$@"'];
const canHaveOne = spawnSync('unshare', [...OWN_NETWORK, 'true']).status === 0;

/** Asks from within that network: the status of each address and Host, in order. */
const ASK = `
const { request } = require('node:https');
const asked = JSON.parse(process.argv[1]);
Promise.all(asked.map(([url, host]) => new Promise((resolve) => {
  const sent = request(url, { rejectUnauthorized: false, headers: host ? { host } : {} }, (answer) => { answer.resume(); resolve(answer.statusCode); });
  sent.on('error', (error) => resolve(error.code));
  sent.end();
}))).then((all) => console.log(JSON.stringify(all)));`;

describe.runIf(canHaveOne)('a server that others reach', () => {
  it('says at the start who can reach it, speaks HTTPS, and does not answer to the names of loopback', async () => {
    const env = { NIBREL_DATA: folder(), NIBREL_HOST: '192.0.2.7', NIBREL_PASSWORD: 'ferry line four' };
    const server = new Spawned('main', [], env, ['unshare', ...OWN_NETWORK]);
    const url = await server.ready();
    expect(url).toMatch(/^https:\/\/192\.0\.2\.7:/);
    expect(server.out).toContain('reaches this machine at 192.0.2.7 and knows the password');
    expect(server.out).toMatch(/Certificate, SHA-256: ([0-9A-F]{2}:){31}/);
    expect(server.out).not.toContain('ferry line four');
    const api = `${url}/api/v1`;
    const asked = [
      [`${api}/health`],
      [`${api}/jobs`],
      [`${api}/health`, 'localhost'],
      [`${api}/health`, 'rebound.example'],
    ];
    const within = ['-t', String(server.child.pid), '-n', process.execPath, '-e', ASK, JSON.stringify(asked)];
    const { stdout } = spawnSync('nsenter', within, { encoding: 'utf8' });
    expect(JSON.parse(stdout)).toEqual([200, 401, 403, 403]);
    await server.kill();
  });
});
