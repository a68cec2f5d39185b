import { randomUUID } from 'node:crypto';
import { usualSetting } from '@nibrel/core/physics/heat';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { lead, readJson, shownFor, TestServer } from './harness.ts';

let now = Date.parse('2026-11-28T08:00:00Z');
const api = new TestServer({ now: () => new Date(now) });
const call = api.call.bind(api);
const said = (type: string, data: object, by = 'Ines', at = new Date(now).toISOString()) => ({
  id: randomUUID(),
  type,
  at,
  by,
  data,
});

beforeAll(async () => {
  await api.start();
  await call('POST', '/device-maps', readJson('demo/device-maps/tern-5.json'));
  await call('POST', '/shop/events', { events: [lead('Maren')] });
});
afterAll(() => api.stop());

const newJob = async (more: object = {}) =>
  (await call('POST', '/jobs', { map: 'tern-5', targets: [{ replace: 'display' }], ...more })).body['id'] as string;
const line = async (job: string) => (await call('GET', `/jobs/${job}`)).body;
/** Sends events; the problems of those that were refused. */
const send = async (job: string, ...events: object[]) => {
  const { status, body } = await call('POST', `/jobs/${job}/events`, { events });
  expect(status).toBe(200);
  return (body['rejected'] as { problem: string }[]).map(({ problem }) => problem);
};
const joint = 'front-seal';
const plate = { joint, setting: usualSetting('plate'), heat_s: 300 };
const release = (id: string, anyway?: string) =>
  said('did', { steps: [{ id: `release:${id}`, kind: 'release', joint: id }], ...(anyway ? { anyway } : {}) });
const prepared = () => said('prepared', shownFor('tern-5', 'display'));
const toHeat = async () => {
  const job = await newJob();
  expect(await send(job, prepared(), release('edge-screws'))).toEqual([]);
  return job;
};

describe('a stop, over HTTP', () => {
  it('outlives the undo of what raised it, and is cleared by a lead alone, each by its own name', async () => {
    const job = await newJob({ serial: 'BF-T5-7' });
    const swollen = said('damage', { kind: 'swelling', face: 'front', x: 20, y: 60, part: 'cell' });
    expect(await send(job, swollen, said('undo', { event: swollen.id }))).toEqual([]);
    expect(await send(job, said('stop', { reason: 'leak', text: '' }))).toEqual([]);
    const held = await line(job);
    expect(held).toMatchObject({ status: 'stopped', stopped: { id: swollen.id, reason: 'swelling' } });
    expect(held['stops'].map(({ reason }: { reason: string }) => reason)).toEqual(['swelling', 'leak']);
    const clear = (data: object, by: string) => send(job, said('clear', { text: 'looked', ...data }, by));
    expect(await clear({}, 'Maren')).toEqual([expect.stringContaining('2 stops hold')]);
    expect(await clear({ stop: swollen.id, lead: 'Maren' }, 'Ines')).toEqual([expect.stringContaining('Ines is none')]);
    expect(await clear({ stop: swollen.id }, 'somebody')).toEqual([expect.stringContaining('for a lead')]);
    expect(await send(job, release('edge-screws', 'in a hurry'), prepared())).toEqual([
      expect.stringContaining('Stopped'),
      expect.stringContaining('Stopped'),
    ]);
    // a device comes back: what held the last repair of it is said
    const next = (await call('POST', '/jobs', { map: 'tern-5', targets: [], serial: 'BF-T5-7' })).body;
    expect(next['before']).toMatchObject({ job, reason: 'leak', clearedBy: null });
    expect(await clear({ stop: swollen.id }, 'Maren')).toEqual([]);
    expect(await clear({}, 'Maren')).toEqual([]);
    expect(await line(job)).toMatchObject({ status: 'under-way', stopped: null, stops: [] });
    const after = (await call('POST', '/jobs', { map: 'tern-5', targets: [], serial: 'BF-T5-8' })).body;
    expect(after['before']).toBeNull();
  });

  it('ends a repair by a lead alone; one in which nothing was done is ended, not finished', async () => {
    const job = await newJob();
    expect(await send(job, said('finish', {}))).toEqual([expect.stringContaining('End the repair')]);
    expect(
      await send(job, said('stop', { reason: 'smoke', text: '' }), said('end', { text: 'x', lead: 'Maren' })),
    ).toEqual([expect.stringContaining('for a lead to end')]);
    expect(await send(job, said('end', { text: 'to the waste store' }, 'Maren'))).toEqual([]);
    expect(await line(job)).toMatchObject({ status: 'ended', ended: { lead: 'Maren' } });
  });
});

describe('the gate, over HTTP', () => {
  it('takes no bare word for a prepared bench', async () => {
    const job = await newJob();
    expect(
      await send(
        job,
        said('prepared', { items: [], skipped: [] }),
        said('did', { steps: [{ id: 'prepare', kind: 'procedure', name: 'prepare' }] }),
        said('prepared', { ...shownFor('tern-5', 'display'), charge: 0.9 }),
        release('edge-screws'),
      ),
    ).toEqual([
      expect.stringMatching(/^items: .*Dry sand/),
      expect.stringContaining('not prepared by ticking'),
      expect.stringMatching(/^charge: /),
      expect.stringContaining('First prepare the bench'),
    ]);
    expect(await send(job, prepared(), release('edge-screws'))).toEqual([]);
  });
});

describe('heat and solvent, over HTTP', () => {
  it('count for a bench over all repairs, in time that has gone by', async () => {
    const [one, two, elsewhere] = [await toHeat(), await toHeat(), await toHeat()];
    const drops = said('solvent', { joint: 'cell-straps', drops: 5, away: true });
    expect(await send(one, drops)).toEqual([]);
    expect(await send(two, said('heat-on', plate))).toEqual([expect.stringContaining('5 drops')]);
    expect(await send(elsewhere, said('heat-on', { ...plate, bench: 'by the door' }))).toEqual([]);
    const aired = () => said('aired', { step: 'vent:bench', seconds: 99_999 });
    expect(await send(two, aired())).toEqual([expect.stringContaining('Air it for')]);
    // a clock that runs ahead does not shorten it
    const ahead = new Date(now + 3_600_000).toISOString();
    expect(await send(two, { ...aired(), at: ahead })).toEqual([expect.stringContaining('60 s ahead')]);
    now += 200_000;
    expect(await send(two, aired(), said('heat-on', plate))).toEqual([]);
    // and it was aired for the first one too
    expect(await send(one, said('heat-on', plate))).toEqual([]);
    expect(await send(one, said('solvent', { joint: 'cell-straps', drops: 1, away: true }))).toEqual([
      expect.stringContaining('source is on'),
    ]);
    // after a start the benches are as they were
    await api.stop();
    await api.start();
    const third = await toHeat();
    expect(await send(third, said('solvent', { joint: 'cell-straps', drops: 1, away: true }))).toEqual([
      expect.stringContaining('source is on'),
    ]);
    const off = () => said('heat-off', { joint, seconds: 1 });
    expect(await send(one, off())).toEqual([]);
    expect(await send(two, off())).toEqual([]);
    expect((await call('GET', '/shop')).body['benches']).toMatchObject([{ bench: 'by the door' }]);
  });

  it('takes no temperature for low because a client says so, and no cut while the source is on', async () => {
    now += 3_600_000;
    const job = await toHeat();
    expect(await send(job, said('heat-on', { ...plate, setting: usualSetting('plate', 130) }))).toEqual([
      expect.stringMatching(/^setting\.temp_C: 130/),
    ]);
    expect(await send(job, said('heat-on', plate))).toEqual([]);
    now += 300_000;
    expect(await send(job, said('edge', { joint, segment: 'bottom' }), release(joint, 'it fell'))).toEqual([
      expect.stringContaining('still on'),
      expect.stringContaining('still on'),
    ]);
    expect(await send(job, said('finish', {}))).toEqual([expect.stringMatching(/^Not finished: The source on/)]);
    expect(await send(job, said('heat-off', { joint, seconds: 1, bond_C: 20 }))).toEqual([]);
    const drops = (bond_C?: number) =>
      said('solvent', { joint: 'cell-straps', drops: 2, away: true, ...(bond_C ? { bond_C } : {}) });
    expect(await send(job, drops(), drops(20))).toEqual([
      expect.stringContaining('below 40 °C'),
      expect.stringContaining('below 40 °C'),
    ]);
    expect(await send(job, said('undo', { event: randomUUID() }))).toEqual([expect.stringContaining('not undone')]);
  });

  it('stops the work where a cell was read too hot', async () => {
    now += 3_600_000;
    const job = await toHeat();
    const readings = [{ at_s: 30, temp_C: 71, spot: 'cell' }];
    expect(await send(job, said('heat-on', plate), said('heat-reading', { joint, readings }))).toEqual([]);
    expect(await line(job)).toMatchObject({ status: 'stopped', stopped: { reason: 'heat' } });
    expect(await send(job, said('heat-off', { joint, seconds: 31 }))).toEqual([]);
  });
});

describe('people and roles', () => {
  it('are changed by a lead, who is always one; limits too, each within its range', async () => {
    const shop = async (type: string, data: object, by: string) =>
      (await call('POST', '/shop/events', { events: [said(type, data, by)] })).body['rejected'][0]?.problem ?? null;
    expect(await shop('person', { name: 'Tomas', role: 'lead' }, 'Tomas')).toContain('Only a lead');
    expect(await shop('person', { name: 'Tomas', role: 'learner' }, 'Maren')).toBeNull();
    expect(await shop('person', { name: 'Maren', role: 'technician' }, 'Maren')).toContain('the only lead');
    expect(await shop('limits', { swelling_percent: 10 }, 'Tomas')).toContain('Tomas is none');
    expect(await shop('limits', { swelling_percent: 21 }, 'Maren')).toContain('swelling_percent');
    expect(await shop('limits', { swelling_percent: 1.9 }, 'Maren')).toContain('swelling_percent');
    // others work here: who leads shows the secret that nobody else has
    expect(await shop('limits', { swelling_percent: 20 }, 'Maren')).toContain('a secret of their own');
    const shown = await call('POST', '/lead', { person: 'Maren', secret: 'harbour light', isNew: true });
    const cookie = { cookie: shown.headers.get('set-cookie')!.split(';')[0]! };
    const limits = { events: [said('limits', { swelling_percent: 20 }, 'Maren')] };
    expect((await call('POST', '/shop/events', limits, cookie)).body['rejected']).toEqual([]);
    expect((await call('GET', '/shop')).body['limitsBy']).toMatchObject({ by: 'Maren' });
    expect((await call('GET', '/shop')).body['people']).toEqual([
      { name: 'Maren', role: 'lead' },
      { name: 'Tomas', role: 'learner' },
    ]);
  });
});
