import { randomUUID } from 'node:crypto';
import { usualSetting } from '@nibrel/core/physics/heat';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readJson, shownFor, TestServer } from './harness.ts';
import { linesOf } from './pdf-lines.ts';

const api = new TestServer({ standIns: true });
const call = api.call.bind(api);
const event = (type: string, data: object) => ({
  id: randomUUID(),
  type,
  at: new Date().toISOString(),
  by: 'Maren',
  data,
});

beforeAll(async () => {
  await api.start();
  for (const map of ['tern-5', 'petrel-glass', 'shearwater-11', 'dunlin-open']) {
    await call('POST', '/device-maps', readJson(`demo/device-maps/${map}.json`));
  }
});
afterAll(() => api.stop());

const card = async (path: string) => {
  const response = await fetch(`${api.base}/device-maps/${path}`);
  return {
    status: response.status,
    type: response.headers.get('content-type'),
    bytes: new Uint8Array(await response.arrayBuffer()),
  };
};

describe('the pick card', () => {
  it('has a bar of 50 mm on paper, and marks at the depths of the device, in the PDF', async () => {
    for (const [path, depths] of [
      ['tern-5/pick-card/front-seal.pdf', [1.5, 2, 3]],
      ['shearwater-11/pick-card/front-bond.pdf', [1.5, 2, 3, 8]],
    ] as const) {
      const { status, type, bytes } = await card(path);
      expect([status, type]).toEqual([200, 'application/pdf']);
      const pdf = Buffer.from(bytes).toString('latin1');
      expect(pdf.startsWith('%PDF-')).toBe(true);
      // A4 is 595.28 by 841.89 points
      expect(pdf).toMatch(/MediaBox \[0 0 595\.28 841\.89\]/);
      const lines = linesOf(pdf).map(([x1, y1, x2, y2]) => ({
        x: x1!,
        y: y1!,
        mm: (Math.hypot(x2! - x1!, y2! - y1!) * 25.4) / 72,
      }));
      const bar = lines.filter(({ mm }) => Math.abs(mm - 50) < 0.02);
      expect(bar).toHaveLength(1);
      // a thick and a thin line of 24 mm for each depth, that far apart
      const marks = lines.filter(({ mm }) => Math.abs(mm - 24) < 0.02);
      expect(marks).toHaveLength(2 * depths.length);
      const apart = depths.map((_, index) => (Math.abs(marks[2 * index]!.y - marks[2 * index + 1]!.y) * 25.4) / 72);
      depths.forEach((depth, index) => expect(apart[index]).toBeCloseTo(depth, 2));
    }
  });

  it('is the same drawing as an SVG in millimetres, mirrored for a back', async () => {
    const { type, bytes } = await card('petrel-glass/pick-card/back-bond.svg');
    const svg = Buffer.from(bytes).toString('utf8');
    expect(type).toContain('image/svg+xml');
    expect(svg).toContain('width="210mm" height="297mm" viewBox="0 0 210 297"');
    expect(svg).toContain('<path id="bar" d="M0 4L50 4"');
    expect(svg).toContain('Seen from the back. Opens toward the right');
    expect(svg).toContain('(Right cell behind)');
    expect(svg).toContain('keep out: Left cell');
  });

  it('is of the revision that a repair was taken in with', async () => {
    const map = readJson<{ id: string; name: string }>('demo/device-maps/tern-5.json');
    await call('POST', '/device-maps', { ...map, id: 'twice', name: 'First' });
    await call('PUT', '/device-maps/twice', { ...map, id: 'twice', name: 'Second' });
    const titled = async (query: string) =>
      Buffer.from((await card(`twice/pick-card/front-seal.svg${query}`)).bytes).toString('utf8');
    expect(await titled('?revision=1')).toContain('First: pick card');
    expect(await titled('')).toContain('Second: pick card');
  });

  it('escapes whatever a map is called, and says why there is none', async () => {
    const hostile = { ...readJson<object>('demo/device-maps/tern-5.json'), id: 'hostile', name: '<script>&" Чайка 雪' };
    await call('POST', '/device-maps', hostile);
    const svg = Buffer.from((await card('hostile/pick-card/front-seal.svg')).bytes).toString('utf8');
    expect(svg).not.toContain('<script>');
    expect(svg).toContain('&lt;script&gt;&amp;&quot;');
    expect((await card('hostile/pick-card/front-seal.pdf')).status).toBe(200);
    for (const [path, said] of [
      ['tern-5/pick-card/nothing.svg', 'no bond'],
      ['tern-5/pick-card/cell-straps.pdf', 'Give its segments a depth'],
      ['nowhere/pick-card/front-seal.svg', 'no device map'],
    ]) {
      const answer = await call('GET', `/device-maps/${path}`);
      expect([answer.status, answer.body['detail']]).toEqual([404, expect.stringContaining(said!)]);
    }
    expect((await call('GET', '/device-maps/tern-5/pick-card/front-seal.exe')).status).toBe(404);
  });
});

describe('the thermocouple stand-in', () => {
  const readings = async (query: string, count: number) => {
    const stop = new AbortController();
    const response = await fetch(`${api.base}/stand-ins/thermocouple?${query}`, { signal: stop.signal });
    const reader = response.body!.getReader();
    const found: { at_s: number; temp_C: number; simulated: boolean; source_C: number }[] = [];
    let text = '';
    while (found.length < count) {
      const { value, done } = await reader.read();
      if (done) break;
      text += new TextDecoder().decode(value);
      found.length = 0;
      for (const [, data] of text.matchAll(/data: (.*)\n/g)) found.push(JSON.parse(data!));
    }
    stop.abort();
    return found;
  };

  it('warms as time goes by, never past its source, and says that it is simulated', async () => {
    const found = await readings('map=tern-5&joint=front-seal&kind=plate&temp_C=70&pace=60', 3);
    expect(found.map(({ at_s }) => at_s)).toEqual([0, 60, 120]);
    expect(found[0]!.temp_C).toBeLessThan(23);
    expect(found[2]!.temp_C).toBeGreaterThan(found[1]!.temp_C);
    expect(found.every(({ temp_C, simulated }) => temp_C < 71 && simulated)).toBe(true);
    const again = await readings('map=tern-5&joint=front-seal&kind=plate&temp_C=70&past=300,60', 1);
    expect(again[0]!.temp_C).toBeGreaterThan(50);
    const later = await readings('map=tern-5&joint=front-seal&kind=plate&temp_C=70&from_s=600', 1);
    expect(later[0]).toMatchObject({ at_s: 600 });
  });

  it('can not be set to nonsense', async () => {
    const refused = (query: string) => call('GET', `/stand-ins/thermocouple?${query}`);
    expect((await refused('map=tern-5&joint=front-seal&kind=sun&temp_C=9999')).body['errors']).toHaveLength(2);
    expect(
      (await refused('map=tern-5&joint=front-seal&kind=plate&temp_C=70&past=a,b')).body['errors'][0].message,
    ).toContain('300,60');
    expect((await refused('map=tern-5&joint=nothing&kind=plate&temp_C=70')).status).toBe(404);
    const strange = readJson<{ id: string; joints: { id: string; stack?: { layers: { material: string }[] } }[] }>(
      'demo/device-maps/tern-5.json',
    );
    strange.id = 'strange';
    strange.joints.find(({ id }) => id === 'front-seal')!.stack!.layers[0]!.material = 'cheese';
    await call('POST', '/device-maps', strange);
    const unknown = await refused('map=strange&joint=front-seal&kind=plate&temp_C=70');
    expect([unknown.status, unknown.body['detail']]).toEqual([422, expect.stringContaining('in no table')]);
    const plan = { map: strange, targets: [{ replace: 'display' }], policy: { heat: 'air' } };
    expect((await call('POST', '/compute/plan', plan)).status).toBe(200);
    expect((await refused('map=nowhere&joint=front-seal&kind=plate&temp_C=70')).status).toBe(404);
  });
});

describe("the workshop's own heat", () => {
  it('keeps measured sources and materials, and refuses figures that are none', async () => {
    const setting = { ...usualSetting('plate'), transfer: { low: 260, likely: 280, high: 300 }, origin: 'measured' };
    const source = { setting, residual_C: 0.3, map: 'tern-5', joint: 'front-seal', simulated: true };
    const foam = { id: 'acrylic foam tape', k: 0.07, rho: 750, cp: 1700, source: 'measured here' };
    const told = await call('POST', '/shop/events', { events: [event('source', source), event('material', foam)] });
    expect(told.body['accepted']).toHaveLength(2);
    const { sources, materials } = (await call('GET', '/shop')).body;
    expect(sources).toEqual([{ ...source, at: expect.any(String) }]);
    expect(materials.filter(({ id }: { id: string }) => id === foam.id)).toEqual([foam]);
    expect(materials.length).toBeGreaterThan(8);
    const wrong = [
      event('material', { ...foam, k: 0 }),
      event('material', { ...foam, k: 1e9 }),
      event('source', { ...source, setting: { ...setting, transfer: { low: 300, likely: 200, high: 100 } } }),
    ];
    expect((await call('POST', '/shop/events', { events: wrong })).body['rejected']).toHaveLength(3);
  });

  it('takes the events of an opening, and refuses what can not be', async () => {
    const id = (await call('POST', '/jobs', { map: 'tern-5', targets: [{ replace: 'display' }] })).body['id'] as string;
    const send = async (...events: object[]) => (await call('POST', `/jobs/${id}/events`, { events })).body;
    const on = { joint: 'front-seal', setting: usualSetting('plate'), heat_s: 300 };
    expect((await send(event('heat-on', on)))['rejected'][0].problem).toContain('prepare');
    await send(event('prepared', shownFor('tern-5', 'display')));
    expect((await send(event('heat-on', on)))['accepted']).toHaveLength(1);
    const reading = { at_s: 10, temp_C: 40, spot: 'bond' };
    const bad = [
      event('heat-reading', { joint: 'front-seal', readings: [{ ...reading, temp_C: 'hot' }] }),
      event('heat-reading', { joint: 'front-seal', readings: [{ ...reading, temp_C: 1e9 }] }),
      event('heat-on', { ...on, pace: 10 }),
      event('edge', { joint: 'front-seal', segment: 'bottom' }),
    ];
    expect((await send(...bad))['rejected']).toHaveLength(4);
    expect((await send(event('heat-reading', { joint: 'front-seal', readings: [reading] })))['accepted']).toHaveLength(
      1,
    );
    const off = await send(event('heat-off', { joint: 'front-seal', seconds: 300 }));
    expect(off['accepted']).toHaveLength(1);
  });
});
