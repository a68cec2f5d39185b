import { randomUUID } from 'node:crypto';
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { unzipSync } from 'fflate';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { meterReading } from '../src/stand-ins/power-meter.ts';
import { askWithin } from '../src/stand-ins/registry.ts';
import { lead, readJson, TestServer } from './harness.ts';

const now = () => new Date('2026-11-24T23:30:00Z');
const api = new TestServer({ standIns: true, now });
const call = api.call.bind(api);
const at = '2026-11-24T10:00:00.000Z';
const event = (type: string, data: object) => ({ id: randomUUID(), type, at, by: 'Maren', data });
const shop = (...events: object[]) => call('POST', '/shop/events', { events });

/** A picture of one pixel, as small as a PNG gets. */
const pixel = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);
const sendPhoto = (job: string, content: Uint8Array, type = 'image/png') =>
  call('POST', `/jobs/${job}/photos`, content, { 'content-type': type });

let job = '';
beforeAll(async () => {
  await api.start();
  await call('POST', '/device-maps', readJson('demo/device-maps/tern-5.json'));
  job = (await call('POST', '/jobs', { map: 'tern-5', targets: [{ replace: 'lower-board' }] })).body['id'] as string;
});
afterAll(() => api.stop());
const send = (...events: object[]) => call('POST', `/jobs/${job}/events`, { events });

describe('compute/battery and compute/identity', () => {
  it('answer as the contract has it', async () => {
    const cells = [
      { capacity_mAh: 5400, nominal_V: 3.8 },
      { capacity_mAh: 5400, nominal_V: 3.8 },
    ];
    const battery = await call('POST', '/compute/battery', {
      cells,
      wiring: 'parallel',
      charge: 0.75,
      target: 0.25,
      load_W: 10.26,
    });
    // 10.8 Ah × 3.8 V = 41.04 Wh, half of it at 10.26 W: two hours
    expect(battery.body).toMatchObject({ capacity_mAh: 10_800, nominal_V: 3.8, seconds: 7200 });
    expect(battery.body['energy_Wh']).toBeCloseTo(41.04, 9);
    const numbers = [
      { place: 'label', value: '26053179 311383 7' },
      { place: 'screen', value: '2605317931138301' },
    ];
    const identity = await call('POST', '/compute/identity', { numbers });
    expect(identity.body).toEqual({
      numbers: [
        { ...numbers[0], kind: 'imei', valid: true },
        { ...numbers[1], kind: 'imeisv', valid: true },
      ],
      agree: true,
    });
  });

  it('refuse what can not be, naming the field', async () => {
    const wrong = await call('POST', '/compute/battery', {
      cells: [],
      wiring: 'parallel',
      charge: 2,
      target: 0,
      load_W: -1,
    });
    expect(wrong.status).toBe(422);
    expect(wrong.body['errors'].map((each: { path: string }) => each.path)).toEqual(['cells', 'charge', 'load_W']);
    expect((await call('POST', '/compute/identity', { numbers: [{ place: 'label', value: 1 }] })).status).toBe(422);
    expect((await call('POST', '/compute/identity', {})).body['errors'][0].path).toBe('numbers');
  });
});

describe('compute/heat', () => {
  const layers = [
    { material: 'soda-lime glass', thickness_mm: 0.8 },
    { material: 'acrylic foam tape', thickness_mm: 0.3 },
  ];
  const request = {
    layers,
    source: { kind: 'plate', temp_C: 70, contact_W_m2K: 300 },
    after: { h_W_m2K: 10, temp_C: 22 },
    far: { h_W_m2K: 8, temp_C: 22 },
    initial_C: 22,
    heat_s: 300,
    total_s: 600,
    probes: [{ id: 'bond', layer: 1, fraction: 0.5 }],
    bond: { probe: 'bond', soften_C: 60 },
  };

  it('answers as the contract has it', async () => {
    const { status, body } = await call('POST', '/compute/heat', request);
    expect(status).toBe(200);
    expect(body['times_s']).toHaveLength(body['probes'].bond.length);
    expect(body['ready_s']).toBeGreaterThan(0);
    expect(body['workingTime_s']).toBeGreaterThan(0);
    expect(body).toMatchObject({ limit_s: null, warnings: [] });
    expect(body['energyError']).toBeLessThan(1e-3);
  });

  it('refuses what can not be, naming the field and the cure', async () => {
    const flat = { ...request, layers: [{ ...layers[0], thickness_mm: 0 }, layers[1]] };
    const { status, body } = await call('POST', '/compute/heat', flat);
    expect([status, body['errors'][0].path]).toEqual([422, 'layers[0].thickness_mm']);
    expect(body['errors'][0].message).toContain('more than 0 mm');
  });
});

describe('compute/cut-plan', () => {
  const segments = [
    { id: 'top', from: { x: 0, y: 0 }, to: { x: 70, y: 0 }, depth: 3 },
    { id: 'left', from: { x: 0, y: 0 }, to: { x: 0, y: 140 }, depth: 2, near: 'flex' },
  ];

  it('answers with edges in their order, and refuses a start that is not there', async () => {
    const { body } = await call('POST', '/compute/cut-plan', { segments, speed_mm_s: 2 });
    expect(body).toEqual({
      edges: [
        { segment: 'top', depth: 3, seconds: 35 },
        { segment: 'left', depth: 2, seconds: 70, near: 'flex' },
      ],
      reheats: 0,
      seconds: 105,
    });
    const wrong = await call('POST', '/compute/cut-plan', { segments, speed_mm_s: 2, start: 'middle' });
    expect([wrong.status, wrong.body['errors'][0].message]).toEqual([
      422,
      expect.stringContaining('no segment middle'),
    ]);
  });
});

describe('the workshop', () => {
  it('folds its events, and hands its schools and limits to new jobs', async () => {
    const limits = event('limits', { swelling_percent: 5 });
    expect((await shop(limits)).body['rejected'][0].problem).toContain('nobody leads it yet');
    await shop(lead('Maren'));
    const first = await shop(
      limits,
      event('schools', { display: 'taken-off' }),
      event('zone', { zone: 'Europe/Athens' }),
    );
    expect(first.body['accepted']).toHaveLength(3);
    expect((await shop(limits)).body).toMatchObject({ duplicate: [limits.id], accepted: [] });
    expect((await shop({ ...limits, data: { swelling_percent: 9 } })).body['rejected'][0].problem).toContain(
      'other content',
    );
    const { body } = await call('GET', '/shop');
    expect(body).toMatchObject({
      zone: 'Europe/Athens',
      today: '2026-11-25',
      standIns: true,
      schools: { display: 'taken-off' },
    });
    const made = await call('POST', '/jobs', { map: 'tern-5', targets: [], policy: { tools: 'fine-metal' } });
    expect(made.body).toMatchObject({
      limits: { swelling_percent: 5 },
      policy: { display: 'taken-off', tools: 'fine-metal' },
    });
  });

  it('refuses limits out of range, unknown zones and items that are not there', async () => {
    const { body } = await shop(
      event('limits', { returnWindow_days: -3 }),
      event('zone', { zone: 'Pier/4' }),
      event('counted', { item: 'none', quantity: 1 }),
      event('nothing', {}),
    );
    expect(body['accepted']).toEqual([]);
    expect(body['rejected'].map((each: { problem: string }) => each.problem).join(' ')).toMatch(
      /returnWindow_days.*time zone.*no item.*no event type/,
    );
  });

  it('counts stock down by what jobs do, and up again when that is undone', async () => {
    const key = 'precut-seal:tern-5:front-seal';
    await shop(event('item', { id: 'seal', name: 'Seal', unit: 'piece', key, lowAt: 1 }), {
      ...event('counted', { item: 'seal', quantity: 2 }),
      at: '2026-11-23T08:00:00Z',
    });
    const left = async () => (await call('GET', '/shop')).body['stock'][0].left as number;
    expect(await left()).toBe(2);
    const lay = event('did', {
      steps: [{ id: 'lay:front-seal', kind: 'procedure', name: 'lay', joint: 'front-seal' }],
    });
    expect((await send(lay)).body['accepted']).toHaveLength(1);
    expect(await left()).toBe(1);
    await send(event('undo', { event: lay.id }));
    expect(await left()).toBe(2);
  });
});

describe('photographs', () => {
  it('are stored by content, served as what they are, and exported with the job', async () => {
    const stored = await sendPhoto(job, pixel);
    expect(stored).toMatchObject({ status: 201, body: { type: 'image/png', width: 1, height: 1 } });
    const hash = stored.body['hash'] as string;
    expect((await sendPhoto(job, pixel)).body['hash']).toBe(hash);
    const photo = event('photo', { shown: hash, thumb: hash, width: 1, height: 1 });
    expect((await send(photo)).body['accepted']).toEqual([photo.id]);
    const served = await fetch(`${api.base}/jobs/${job}/photos/${hash}`);
    expect([served.headers.get('content-type'), served.headers.get('x-content-type-options')]).toEqual([
      'image/png',
      'nosniff',
    ]);
    expect(Buffer.from(await served.arrayBuffer()).equals(pixel)).toBe(true);
    const zip = unzipSync(new Uint8Array(await (await fetch(`${api.base}/jobs/${job}/export`)).arrayBuffer()));
    expect(Object.keys(zip)).toEqual(['job.json', 'events.csv', 'device-map.json', `photos/${hash}.png`]);
    expect(Buffer.from(zip[`photos/${hash}.png`]!).equals(pixel)).toBe(true);
  });

  it('are pictures, whole, and not too large, whatever they are called', async () => {
    const executable = Buffer.concat([Buffer.from('MZ\u0090\u0000'), Buffer.alloc(400)]);
    const renamed = await sendPhoto(job, executable, 'image/jpeg');
    expect([renamed.status, renamed.body['detail']]).toEqual([422, expect.stringContaining('no photograph')]);
    const bomb = Buffer.from(pixel);
    bomb.writeUInt32BE(10_000, 16);
    bomb.writeUInt32BE(10_000, 20);
    expect((await sendPhoto(job, bomb)).body['detail']).toContain('100 megapixels');
    expect((await sendPhoto(job, pixel.subarray(0, 40))).status).toBe(422);
    expect((await sendPhoto(job, Buffer.alloc(17 * 1024 * 1024))).status).toBe(413);
    expect((await sendPhoto(job, pixel, 'text/html')).status).toBe(415);
    expect((await sendPhoto(randomUUID(), pixel)).status).toBe(404);
    expect(readdirSync(join(api.folder, 'photos'))).toHaveLength(1);
  });

  it('come before the event that names them, and belong to their job', async () => {
    const photo = event('photo', { shown: 'a'.repeat(64), thumb: 'a'.repeat(64), width: 1, height: 1 });
    expect((await send(photo)).body['rejected'][0].problem).toContain('photograph itself first');
    const { body } = await sendPhoto(job, pixel);
    expect((await fetch(`${api.base}/jobs/${randomUUID()}/photos/${body['hash']}`)).status).toBe(404);
    expect((await fetch(`${api.base}/jobs/${job}/photos/..%2f..%2fnibrel.sqlite`)).status).toBe(404);
  });
});

describe('the parts desk', () => {
  const part = randomUUID();
  it('lists the parts of all jobs with their verdict and the days left where the workshop is', async () => {
    const arrived = {
      part,
      mapPart: 'lower-board',
      source: 'Quayside Seconds',
      arrived: '2026-10-01',
      window_days: 56,
    };
    const { body } = await send(
      event('part-arrived', arrived),
      event('part-arrived', { ...arrived, part: randomUUID(), window_days: -3 }),
      event('part-number', { part, place: 'label', value: '2605317931138O7' }),
    );
    expect(body['accepted']).toHaveLength(2);
    expect(body['rejected'][0].problem).toContain('enter 0');
    const [line] = (await call('GET', '/parts')).body['parts'];
    // the window runs over the end of European summer time, and it is the 25th in Athens already
    expect(line).toMatchObject({ id: part, verdict: 'hold', accepted: false, returnBy: '2026-11-26', daysLeft: 1 });
    expect(line.reasons.join()).toContain('something else than digits');
  });

  it('gives the last day of return as a whole day of a calendar', async () => {
    const answer = await fetch(`${api.base}/parts/${part}/return.ics`);
    const text = await answer.text();
    expect(answer.headers.get('content-type')).toContain('text/calendar');
    expect(text).toContain('DTSTART;VALUE=DATE:20261126');
    expect(text).toContain('DTEND;VALUE=DATE:20261127');
    expect(text).toContain('BEGIN:VALARM');
    expect((await fetch(`${api.base}/parts/none/return.ics`)).status).toBe(404);
  });
});

describe('stand-ins', () => {
  it('answer for a register, slowly, and say that they are simulated', async () => {
    const asked = await call('POST', '/stand-ins/registry', { number: '00999901 000025 9' });
    expect(asked.body).toMatchObject({
      answer: 'barred',
      simulated: true,
      where: expect.stringContaining('simulated'),
    });
    expect((await call('POST', '/stand-ins/registry', {})).status).toBe(422);
  });

  it('a register that hangs is not reachable, and keeps nobody waiting for good', async () => {
    const hangs = {
      ask: (_: string, signal: AbortSignal) =>
        new Promise<never>((_, reject) => signal.addEventListener('abort', () => reject(signal.reason as Error))),
    };
    expect(await askWithin(hangs, '1', 30)).toBe('not-reachable');
    await expect(askWithin({ ask: () => Promise.reject(new Error('broken')) }, '1', 30)).rejects.toThrow('broken');
  });

  it('a power meter streams a falling charge', async () => {
    const abort = new AbortController();
    const answer = await fetch(`${api.base}/stand-ins/power-meter?charge=0.6&energy_Wh=15&load_W=3&pace=600`, {
      signal: abort.signal,
    });
    expect(answer.headers.get('content-type')).toContain('text/event-stream');
    const reader = answer.body!.getReader();
    let text = '';
    while (text.split('data:').length < 4) text += Buffer.from((await reader.read()).value!).toString();
    abort.abort();
    const readings = [...text.matchAll(/data: (.*)/g)].map(
      (each) => JSON.parse(each[1]!) as { charge: number; simulated: boolean },
    );
    expect(readings[2]!.charge).toBeLessThan(readings[0]!.charge);
    expect(readings.every((each) => each.simulated)).toBe(true);
    expect((await call('GET', '/stand-ins/power-meter?charge=2&energy_Wh=15&load_W=0')).body['errors']).toHaveLength(2);
  });

  it('falls by load over energy', () => {
    const settings = { charge: 0.6, energy_Wh: 15, load_W: 3, pace: 3600 };
    // one step of half a second stands for half an hour: 1.5 of 15 Wh
    expect(meterReading(settings, 1).charge).toBeCloseTo(0.5, 3);
    expect(meterReading(settings, 100).charge).toBe(0);
  });

  it('are not there outside the demonstration', async () => {
    const plain = new TestServer();
    await plain.start();
    expect((await plain.call('POST', '/stand-ins/registry', { number: '1' })).status).toBe(404);
    expect((await plain.call('GET', '/shop')).body).toMatchObject({ standIns: false, zone: 'UTC' });
    await plain.stop();
  });
});
