import { randomUUID } from 'node:crypto';
import { chmodSync, mkdirSync, mkdtempSync, statSync, truncateSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { certificateIn } from '../src/network/certificate.ts';
import { Password } from '../src/network/password.ts';
import { lookThrough, mended } from '../src/store/looked-through.ts';
import { openDatabase } from '../src/store/database.ts';
import { ownerOnly } from '../src/store/owner-only.ts';
import { lead, readJson, spawning, TestServer } from './harness.ts';
import { Spawned } from './spawned.ts';

const folder = () => mkdtempSync(join(tmpdir(), 'nibrel-damaged-'));
const event = (type: string, data: object, by = 'Ines') => ({
  id: randomUUID(),
  type,
  at: new Date().toISOString(),
  by,
  data,
});

describe('a byte that is another on the disk', () => {
  const api = new TestServer();
  const call = api.call.bind(api);
  beforeAll(async () => {
    await api.start();
    await call('POST', '/device-maps', readJson('demo/device-maps/tern-5.json'));
    await call('POST', '/shop/events', { events: [lead('Maren')] });
  });
  afterAll(() => api.stop());

  const newJob = async () =>
    (await call('POST', '/jobs', { map: 'tern-5', targets: [{ replace: 'display' }], owner: 'Aldis' })).body[
      'id'
    ] as string;
  const send = async (job: string, ...events: object[]) =>
    (await call('POST', `/jobs/${job}/events`, { events })).body['rejected'] as { problem: string }[];
  /** Ends the server, changes its tables, and starts it again. */
  const changed = async (sql: string, ...given: unknown[]) => {
    await api.stop();
    const db = new Database(join(api.folder, 'nibrel.sqlite'));
    expect(db.prepare(sql).run(...given).changes).toBeGreaterThan(0);
    db.exec('DELETE FROM job_lines');
    db.close();
    await api.start();
  };

  it('in an event: it is left out by name, also where it is JSON all the same', async () => {
    const job = await newJob();
    expect(await send(job, event('charge', { charge: 0.9, source: 'meter' }), event('note', { text: 'x' }))).toEqual(
      [],
    );
    await changed(`UPDATE events SET data = replace(data, '0.9', '0.1') WHERE job = ?`, job);
    const { events } = (await call('GET', `/jobs/${job}/events`)).body;
    expect(events).toMatchObject([
      { type: 'charge', data: {}, unreadable: true },
      { type: 'note', data: { text: 'x' } },
    ]);
    const line = (await call('GET', `/jobs/${job}`)).body;
    expect(line).toMatchObject({ status: 'stopped', stopped: { text: expect.stringContaining('(charge, Ines)') } });
    expect(await send(job, event('end', { text: 'looked at' }, 'Maren'))).toEqual([]);
    expect((await call('GET', `/jobs/${job}`)).body['status']).toBe('ended');
  });

  it('in a repair: it is named, its stops hold, and a lead ends it', async () => {
    const job = await newJob();
    expect(await send(job, event('stop', { reason: 'leak', text: 'at the cell' }))).toEqual([]);
    await changed(`UPDATE jobs SET owner = 'Aldiss' WHERE id = ?`, job);
    const line = (await call('GET', `/jobs/${job}`)).body;
    expect(line).toMatchObject({ status: 'unreadable', unreadable: expect.stringContaining('damaged on the disk') });
    expect(line['stops']).toMatchObject([{ reason: 'leak' }, { reason: 'other' }]);
    const [refused] = await send(job, event('charge', { charge: 0.2, source: 'typed' }));
    expect(refused!.problem).toContain('a lead ends it');
    expect(await send(job, event('note', { text: 'a backup has it' }))).toEqual([]);
    expect(await send(job, event('end', { text: 'x' }))).toHaveLength(1);
    expect(await send(job, event('end', { text: 'from the backup' }, 'Maren'))).toEqual([]);
    expect((await call('GET', `/jobs/${job}`)).body['status']).toBe('ended');
    for (const path of ['report.pdf', 'screw-mat.svg']) {
      expect([path, (await fetch(`${api.base}/jobs/${job}/${path}`)).status]).toEqual([path, 409]);
    }
    expect((await fetch(`${api.base}/jobs/${job}/export`)).status).toBe(200);
  });

  it('in a map: its repairs keep what they did at their benches, and another revision may be put there', async () => {
    const job = await newJob();
    const solvent = event('solvent', { joint: 'cell-straps', drops: 6, away: true });
    expect(
      await send(
        job,
        event('did', { steps: [{ id: 'x', kind: 'release', joint: 'edge-screws' }], anyway: 'out' }),
        solvent,
      ),
    ).toEqual([]);
    await api.stop();
    const db = new Database(join(api.folder, 'nibrel.sqlite'));
    db.exec(`UPDATE device_maps SET body = replace(body, '"Tern 5"', '"Tern 6"')`);
    db.exec('UPDATE job_lines SET version = 0');
    db.close();
    await api.start();
    expect((await call('GET', `/jobs/${job}`)).body).toMatchObject({ status: 'unreadable' });
    expect((await call('GET', '/device-maps/tern-5')).status).toBe(409);
    const { benches } = (await call('GET', '/shop')).body;
    expect(benches).toMatchObject([{ use: { drops: [{ drops: 6 }] } }]);
    expect((await call('PUT', '/device-maps/tern-5', readJson('demo/device-maps/tern-5.json'))).body['revision']).toBe(
      2,
    );
    const next = await newJob();
    expect((await call('GET', `/jobs/${next}`)).body['status']).toBe('new');
  });

  it('in what was told of the workshop: it is left out', async () => {
    await call('POST', '/shop/events', { events: [event('limits', { swelling_percent: 12 }, 'Maren')] });
    await changed(`UPDATE shop_events SET data = replace(data, '12', '19') WHERE type = 'limits'`);
    expect((await call('GET', '/shop')).body['limits']['swelling_percent']).not.toBe(19);
    expect(api.nibrel.shop.damaged()).toEqual([expect.stringMatching(/^entry \d+ \(limits, Maren\)$/)]);
  });

  it('in an index: nothing of what was acknowledged is hidden', async () => {
    const place = folder();
    const db = openDatabase(place);
    db.$client.exec(
      `INSERT INTO device_maps (id, revision, name, kind, body, created_at) VALUES ('m', 1, 'M', 'phone', '{}', '')`,
    );
    db.$client.exec(
      `INSERT INTO jobs (id, map, revision, targets, policy, title, created_at) VALUES ('j', 'm', 1, '[]', '{}', 'J', '')`,
    );
    db.$client.exec(
      `INSERT INTO events (job, id, type, at, "by", data, received_at) VALUES ('j', 'e', 'note', '', 'I', '{}', '')`,
    );
    const looked = (each: typeof db) => mended(each, lookThrough(join(place, 'nibrel.sqlite')));
    expect(looked(db)).toEqual([]);
    // the index of the ids says another one
    db.$client.unsafeMode(true);
    db.$client.pragma('writable_schema = ON');
    db.$client.exec(
      `UPDATE sqlite_master SET sql = replace(sql, '(\`id\`)', '(\`type\`)') WHERE name = 'events_id_unique'`,
    );
    db.$client.close();
    const again = openDatabase(place);
    expect(looked(again)[0]).toContain('made anew from its tables');
    expect(looked(again)).toEqual([]);
    again.$client.pragma('foreign_keys = OFF');
    again.$client.exec("UPDATE jobs SET id = 'k'");
    expect(looked(again)).toEqual([expect.stringMatching(/^1 entry names a repair that is not there, j/)]);
    again.$client.close();
  });
});

describe('what stands beside the database', () => {
  it('is for its owner alone, also where an earlier version has made it otherwise', () => {
    const place = folder();
    mkdirSync(join(place, 'photos', 'ab'), { recursive: true });
    writeFileSync(join(place, 'nibrel.sqlite'), '');
    for (const name of ['', 'photos', 'photos/ab', 'nibrel.sqlite']) chmodSync(join(place, name), 0o777);
    const umask = process.umask();
    ownerOnly(place);
    process.umask(umask);
    for (const name of ['', 'photos', 'photos/ab', 'nibrel.sqlite']) {
      expect([name, statSync(join(place, name)).mode & 0o077]).toEqual([name, 0]);
    }
  });

  it('a damaged password is said in a sentence; a lost key, or a damaged certificate, is made anew', async () => {
    const place = folder();
    await Password.in(place, 'ferry line four');
    writeFileSync(join(place, 'network/password.json'), '{"salt":"a"}');
    await expect(Password.in(place, undefined)).rejects.toThrow(
      /is damaged and was left as it is. Set a password again/,
    );
    const now = new Date('2026-11-28T08:00:00Z');
    const first = await certificateIn(place, ['192.0.2.7'], now);
    writeFileSync(join(place, 'network/key.pem'), 'no key');
    const second = await certificateIn(place, ['192.0.2.7'], now);
    expect([second.isNew, second.fingerprint === first.fingerprint]).toEqual([true, false]);
    writeFileSync(join(place, 'network/certificate.pem'), 'none');
    expect((await certificateIn(place, ['192.0.2.7'], now)).isNew).toBe(true);
    const file = folder();
    writeFileSync(join(file, 'network'), '');
    await expect(certificateIn(file, ['192.0.2.7'], now)).rejects.toThrow('There is a file where');
  });
});

spawning('a log that is cut short', () => {
  it('loses nothing in silence: what was acknowledged and is gone is said in the record, as a stop', async () => {
    const place = folder();
    const server = new Spawned('main', [], { NIBREL_DATA: place });
    const url = `${await server.ready()}/api/v1`;
    const post = async (path: string, body: unknown) => {
      const headers = { 'content-type': 'application/json' };
      return (await (
        await fetch(url + path, { method: 'POST', headers, body: JSON.stringify(body) })
      ).json()) as Record<string, unknown>;
    };
    await post('/device-maps', readJson('docs/examples/sample.json'));
    const job = (await post('/jobs', { map: 'sample', targets: [{ replace: 'screen' }] }))['id'] as string;
    const other = new Database(join(place, 'nibrel.sqlite'));
    other.pragma('wal_checkpoint(PASSIVE)');
    other.close();
    const notes = Array.from({ length: 6 }, (_, n) => event('note', { text: `note ${n}` }));
    for (const each of notes)
      expect((await post(`/jobs/${job}/events`, { events: [each] }))['accepted']).toEqual([each.id]);
    await server.kill();
    const wal = join(place, 'nibrel.sqlite-wal');
    truncateSync(wal, Math.floor(statSync(wal).size / 2));
    const again = new Spawned('main', [], { NIBREL_DATA: place });
    const from = `${await again.ready()}/api/v1`;
    const { events } = (await (await fetch(`${from}/jobs/${job}/events`)).json()) as {
      events: { id: string; type: string; data: { text: string } }[];
    };
    const there = new Set(events.map(({ id }) => id));
    const lost = notes.filter(({ id }) => !there.has(id));
    expect(lost.length).toBeGreaterThan(0);
    expect(events.at(-1)).toMatchObject({ type: 'stop', by: 'Nibrel' });
    expect(events.at(-1)!.data.text).toContain(`${lost.length} of its last entries were acknowledged and are lost`);
    expect(again.err).toContain(`Repair ${job}`);
    await again.kill();
    // it is told once
    const third = new Spawned('main', [], { NIBREL_DATA: place });
    await third.ready();
    expect(third.err).toBe('');
    await third.kill();
  }, 30_000);
});

spawning('a start', () => {
  it('says in a sentence what stands in its way', async () => {
    const place = folder();
    writeFileSync(join(place, 'photos'), 'a file');
    const run = new Spawned('main', [], { NIBREL_DATA: place });
    expect(await run.ended).toBe(1);
    expect(run.err.trim().split('\n')).toEqual([expect.stringContaining('There is a file where')]);
  });

  it('prints an address that answers', async () => {
    for (const host of ['127.0.0.1', '127.0.0.5', 'localhost', '::1']) {
      const run = new Spawned('main', [], { NIBREL_DATA: folder(), NIBREL_HOST: host });
      const url = await run.ready();
      expect([host, (await fetch(`${url}/api/v1/health`)).status]).toEqual([host, 200]);
      await run.kill();
    }
  }, 30_000);
});
