import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { lead, readJson, TestServer } from './harness.ts';

const api = new TestServer();
const call = api.call.bind(api);
const note = (text: string, at = '2026-11-24T10:00:00Z') => ({
  id: randomUUID(),
  type: 'note',
  at,
  by: 'Ines',
  data: { text },
});

beforeAll(async () => {
  await api.start();
  await call('POST', '/device-maps', readJson('docs/examples/sample.json'));
  await call('POST', '/shop/events', { events: [lead('Maren')] });
});
afterAll(() => api.stop());

const newJob = async (title: string) =>
  (await call('POST', '/jobs', { map: 'sample', targets: [{ replace: 'screen' }], title })).body['id'] as string;
const titles = async (query: string) =>
  ((await call('GET', `/jobs${query}`)).body['jobs'] as { title: string }[]).map(({ title }) => title);
const sql = <T>(work: (db: Database.Database) => T): T => {
  const db = new Database(join(api.folder, 'nibrel.sqlite'));
  try {
    return work(db);
  } finally {
    db.close();
  }
};

describe('lists of jobs', () => {
  it('take open, finished, since and limit; bare they are whole', async () => {
    const ids = [];
    for (const title of ['one', 'two', 'three']) ids.push(await newJob(title));
    const end = { id: randomUUID(), type: 'end', at: new Date().toISOString(), by: 'Ines', data: { text: 'no parts' } };
    await call('POST', `/jobs/${ids[1]}/events`, { events: [end] });
    const later = new Date(Date.now() + 30_000).toISOString();
    await call('POST', `/jobs/${ids[2]}/events`, { events: [note('later', later)] });
    expect((await titles('')).toSorted()).toEqual(['one', 'three', 'two']);
    expect(await titles('?open')).not.toContain('two');
    expect(await titles('?open=true&limit=1')).toHaveLength(1);
    expect(await titles('?finished=true')).toEqual(['two']);
    expect(await titles(`?since=${later}`)).toContain('three');
    expect(await titles(`?since=${later}`)).not.toContain('two');
    for (const [query, path] of [
      ['?limit=0', 'limit'],
      ['?limit=x', 'limit'],
      ['?open=perhaps', 'open'],
      ['?since=yesterday', 'since'],
    ]) {
      const { status, body } = await call('GET', `/jobs${query}`);
      expect([status, body['errors'][0].path]).toEqual([422, path]);
    }
  });

  it('come from lines that change with their own events, and are made again when they are deleted', async () => {
    const job = await newJob('kept');
    await call('POST', `/jobs/${job}/events`, { events: [note('a'), note('b')] });
    const before = (await call('GET', '/jobs')).body['jobs'];
    expect(before.find(({ id }: { id: string }) => id === job)).toMatchObject({ revision: 2, status: 'under-way' });
    await api.stop();
    sql((db) => db.exec('DELETE FROM job_lines'));
    await api.start();
    const withoutNext = (jobs: { next: unknown }[]) => jobs.map((each) => ({ ...each, next: null }));
    expect(withoutNext((await call('GET', '/jobs')).body['jobs'])).toEqual(withoutNext(before));
  });

  it('say what comes next once a thread has found it out', async () => {
    const job = await newJob('next');
    await call('GET', '/jobs?open');
    await expect
      .poll(async () => (await call('GET', `/jobs/${job}`)).body['next']?.title ?? null, { timeout: 10_000 })
      .toMatch(/\w+/);
    await call('POST', `/jobs/${job}/events`, { events: [note('changed')] });
    expect((await call('GET', `/jobs/${job}`)).body['next']).toBeNull();
  });

  it('events are given from any place on', async () => {
    const job = await newJob('long');
    const all = Array.from({ length: 900 }, (_, n) => note(`${n}`));
    await call('POST', `/jobs/${job}/events`, { events: all });
    const after = async (count: string) => (await call('GET', `/jobs/${job}/events?after=${count}`)).body;
    expect((await after('899')).events.map(({ data }: { data: { text: string } }) => data.text)).toEqual(['899']);
    expect(await after('900')).toEqual({ events: [], revision: 900 });
    expect((await after('401')).events).toHaveLength(499);
    expect((await call('GET', `/jobs/${job}/events?after=-1`)).status).toBe(422);
  });
});

describe('one stream of changes', () => {
  it('tells of a job, the workshop and a map, each with its revision', async () => {
    const abort = new AbortController();
    const answer = await fetch(`${api.base}/changes`, { signal: abort.signal });
    const reader = answer.body!.getReader();
    let text = '';
    const until = async (wanted: string) => {
      while (!text.includes(wanted)) text += Buffer.from((await reader.read()).value!).toString();
    };
    await until('hello');
    const job = await newJob('told');
    await call('POST', `/jobs/${job}/events`, { events: [note('x')] });
    await until(`{"what":"job","id":"${job}","revision":1}`);
    const zone = { id: randomUUID(), type: 'zone', at: '2026-11-24T10:00:00Z', by: 'Maren', data: { zone: 'UTC' } };
    await call('POST', '/shop/events', { events: [zone] });
    await until('{"what":"shop","id":"shop","revision":2}');
    abort.abort();
  });
});

describe('what a newer version or a bad disk has left', () => {
  it('leaves out one event by name: the rest stands, and the job is stopped until a lead has looked', async () => {
    const [good, bad] = [await newJob('good'), await newJob('bad')];
    await call('POST', `/jobs/${bad}/events`, { events: [note('first'), note('second')] });
    await call('POST', `/jobs/${good}/events`, { events: [note('fine')] });
    await api.stop();
    sql((db) => {
      db.prepare("UPDATE events SET data = '{broken' WHERE job = ? AND data LIKE '%second%'").run(bad);
      db.prepare('DELETE FROM job_lines WHERE job = ?').run(bad);
      db.prepare(
        `INSERT INTO events (job, id, type, at, "by", data, received_at) VALUES (?, ?, 'dance', '2026-11-24T10:00:00Z', 'Ines', '{"steps":3}', '')`,
      ).run(good, randomUUID());
      db.prepare('DELETE FROM job_lines WHERE job = ?').run(good);
    });
    await api.start();
    const line = (await call('GET', `/jobs/${bad}`)).body;
    expect(line).toMatchObject({ status: 'stopped', revision: 2 });
    expect(line['stopped'].text).toMatch(/^entry 2 of the record \(note, .*\) is damaged on the disk/);
    expect((await call('GET', '/jobs')).body['jobs'].length).toBeGreaterThan(3);
    expect((await call('POST', `/jobs/${bad}/events`, { events: [note('third')] })).body['revision']).toBe(3);
    const clear = {
      ...note('x', new Date().toISOString()),
      by: 'Maren',
      type: 'clear',
      data: { text: 'nothing is wrong with it' },
    };
    expect((await call('POST', `/jobs/${bad}/events`, { events: [clear] })).body['rejected']).toEqual([]);
    expect((await call('GET', `/jobs/${bad}`)).body['status']).toBe('under-way');
    const events = (await call('GET', `/jobs/${bad}/events`)).body['events'];
    expect(events).toMatchObject([
      { type: 'note' },
      { type: 'note', unreadable: true, data: {} },
      { type: 'note' },
      { type: 'clear' },
    ]);
    expect((await fetch(`${api.base}/jobs/${bad}/export`)).status).toBe(200);
    // a type that is not known here is kept, counted, and changes nothing
    expect((await call('GET', `/jobs/${good}`)).body).toMatchObject({ status: 'under-way', revision: 2 });
    expect((await call('POST', `/jobs/${good}/events`, { events: [note('on')] })).body['revision']).toBe(3);
    const sent = await call('POST', `/jobs/${good}/events`, { events: [{ ...note('x'), type: 'dance' }] });
    expect(sent.body['rejected']).toHaveLength(1);
  });

  it('a job whose map is gone is unreadable too', async () => {
    const map = { ...readJson<object>('docs/examples/sample.json'), id: 'gone' };
    await call('POST', '/device-maps', map);
    const job = (await call('POST', '/jobs', { map: 'gone', targets: [] })).body['id'] as string;
    await api.stop();
    sql((db) => {
      db.exec("DELETE FROM device_maps WHERE id = 'gone'");
      db.exec('DELETE FROM job_lines');
    });
    await api.start();
    expect((await call('GET', `/jobs/${job}`)).body['unreadable']).toContain('map "gone" is not there');
  });
});

describe('times', () => {
  it('are refused unless every engine reads them', async () => {
    const job = await newJob('times');
    const at = async (moment: unknown) =>
      (await call('POST', `/jobs/${job}/events`, { events: [{ ...note('x'), at: moment }] })).body['rejected'].length;
    for (const good of ['2026-02-28T10:00:00Z', '2026-11-24T10:00:00.123+01:00', '2024-02-29T23:59Z']) {
      expect([good, await at(good)]).toEqual([good, 0]);
    }
    const bad = [
      '2026-02-30T10:00:00Z',
      '2026-11-24',
      '2026-W48',
      '2026-11-24T24:00:00Z',
      '2026-11-24T10:00:00',
      '+275760-09-13T00:00:00Z',
      '9999-11-24T10:00:00Z',
      0,
    ];
    for (const each of bad) expect([each, await at(each)]).toEqual([each, 1]);
  });
});

describe('lengths before shapes', () => {
  it('refuses a long list at once, naming the path', async () => {
    const hostile = async (path: string, body: unknown) => {
      const start = performance.now();
      const answer = await call('POST', path, body);
      return { ...answer, path: answer.body['errors']?.[0]?.path, ms: performance.now() - start };
    };
    const empties = `{"map":"sample","targets":[${'{},'.repeat(650_000)}{}]}`;
    expect(await hostile('/jobs', empties)).toMatchObject({ status: 422, path: 'targets' });
    expect(await hostile('/jobs', { map: 'sample', targets: Array.from({ length: 5000 }, () => ({})) })).toMatchObject({
      status: 422,
      path: 'targets',
    });
    expect(await hostile('/compute/plan', empties)).toMatchObject({ status: 422, path: 'targets' });
    const deep = `{"map":${'{"a":'.repeat(60)}1${'}'.repeat(60)},"targets":[]}`;
    expect((await hostile('/jobs', deep)).path).toMatch(/^map\.a\.a/);
    expect(await hostile('/compute/heat', { layers: Array.from({ length: 9000 }, () => ({})) })).toMatchObject({
      status: 422,
      path: 'layers',
    });
    const many = await call('POST', `/jobs/${await newJob('many')}/events`, {
      events: [{ ...note('x'), type: 'targets', data: { targets: Array.from({ length: 51 }, () => ({})) } }],
    });
    expect(many.body['rejected'][0].problem).toContain('data.targets: 51 entries');
    expect((await call('GET', '/health')).status).toBe(200);
  });

  it('recognises what it knows before it looks at its shape', async () => {
    const job = await newJob('known');
    const event = note('kept');
    await call('POST', `/jobs/${job}/events`, { events: [event] });
    await api.stop();
    // as an earlier version may have taken it
    sql((db) => db.prepare("UPDATE events SET at = 'today', sum = NULL WHERE id = ?").run(event.id));
    await api.start();
    const again = await call('POST', `/jobs/${job}/events`, { events: [{ ...event, at: 'today' }] });
    expect(again.body).toMatchObject({ duplicate: [event.id], rejected: [] });
  });
});

describe('a call of many events', () => {
  it('keeps nobody waiting: others are answered while it is worked, and it is whole', async () => {
    const [long, short] = [await newJob('1000'), await newJob('1')];
    const many = Array.from({ length: 1000 }, (_, n) => note(`${n} ${'x'.repeat(300)}`));
    const answered: string[] = [];
    const all = call('POST', `/jobs/${long}/events`, { events: many }).then((answer) => {
      answered.push('long');
      return answer;
    });
    const one = call('POST', `/jobs/${short}/events`, { events: [note('quick')] }).then(() => answered.push('short'));
    expect((await all).body).toMatchObject({ revision: 1000, rejected: [] });
    await one;
    expect(answered).toEqual(['short', 'long']);
    const texts = (await call('GET', `/jobs/${long}/events`)).body['events'].map((each: { id: string }) => each.id);
    expect(texts).toEqual(many.map(({ id }) => id));
  });
});
