import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { lead, readJson, TestServer } from './harness.ts';

const api = new TestServer({ standIns: true });
const call = api.call.bind(api);
let job = '';
beforeAll(async () => {
  await api.start();
  await call('POST', '/device-maps', readJson('docs/examples/sample.json'));
  await call('POST', '/shop/events', { events: [lead('Maren')] });
  job = (await call('POST', '/jobs', { map: 'sample', targets: [{ replace: 'screen' }] })).body['id'] as string;
});
afterAll(() => api.stop());

const picture = (body: Uint8Array, type: string) => call('POST', `/jobs/${job}/photos`, body, { 'content-type': type });
const be32 = (value: number) => [24, 16, 8, 0].map((shift) => (value >>> shift) & 255);
/** The chunks of a PNG, with no checksums that fit: what looks at its size does not ask for them. */
const png = (width: number, height: number, ...more: number[][]) => {
  const chunk = (name: string, data: number[]) => [...be32(data.length), ...Buffer.from(name), ...data, 0, 0, 0, 0];
  const head = chunk('IHDR', [...be32(width), ...be32(height), 8, 6, 0, 0, 0]);
  const body = more.map((data) => chunk('IDAT', data)).flat();
  return new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, ...head, ...body, ...chunk('IEND', [])]);
};
/** A JPEG of as many frames of nothing as are asked for, before the one that tells its size. */
const jpeg = (width: number, height: number, before: Uint8Array = new Uint8Array()) => {
  const frame = [
    0xff,
    0xc0,
    0,
    17,
    8,
    height >> 8,
    height & 255,
    width >> 8,
    width & 255,
    3,
    1,
    17,
    0,
    2,
    17,
    1,
    3,
    17,
    1,
  ];
  const start = [0xff, 0xd8, 0xff, 0xe0, 0, 16, ...Buffer.from('JFIF\0'), 1, 1, 0, 0, 1, 0, 1, 0, 0];
  const scan = [0xff, 0xda, 0, 8, 1, 1, 0, 0, 63, 0, 1, 2, 3, 0xff, 0xd9];
  return Buffer.concat([Uint8Array.from(start), before, Uint8Array.from(frame), Uint8Array.from(scan)]);
};

describe('a picture', () => {
  it('of 60 megapixels is refused by what its head says, before it is unpacked', async () => {
    for (const [bytes, type] of [
      [png(10_000, 6000, [1]), 'image/png'],
      [jpeg(10_000, 6000), 'image/jpeg'],
    ] as const) {
      const { status, body } = await picture(bytes, type);
      expect([status, body['detail']]).toEqual([422, expect.stringContaining('60 megapixels')]);
    }
    expect((await picture(jpeg(4000, 3000), 'image/jpeg')).status).toBe(201);
  });

  it('that is searched for its size byte by byte takes no longer than another', async () => {
    const nothing = new Uint8Array(12_000_000);
    const empty = new Uint8Array(12_000_000);
    // a picture that takes longer than its pool waits is refused; four million segments without anything in them
    for (let at = 0; at < empty.length; at += 4) empty.set([0xff, 0xfe, 0, 2], at);
    expect((await picture(jpeg(40, 30, nothing), 'image/jpeg')).status).toBe(422);
    expect((await picture(jpeg(40, 30, empty), 'image/jpeg')).status).toBe(201);
  });

  it('that can not be read is left out of the report, which says so', async () => {
    const stored = await picture(png(8, 8, [1, 2, 3, 4, 5]), 'image/png');
    expect(stored.status).toBe(201);
    const { hash } = stored.body as { hash: string };
    const at = new Date().toISOString();
    const event = (type: string, data: object) => ({ id: randomUUID(), type, at, by: 'Ines', data });
    const photo = { shown: hash, thumb: hash, width: 8, height: 8, text: 'the rim' };
    const events = [event('photo', photo), event('photos-chosen', { photos: [hash] })];
    const { rejected } = (await call('POST', `/jobs/${job}/events`, { events })).body;
    expect(rejected).toEqual([]);
    const report = await fetch(`${api.base}/jobs/${job}/report.pdf`);
    expect([report.status, report.headers.get('content-type')]).toEqual([200, 'application/pdf']);
  });
});

describe('what is printed', () => {
  it('keeps no picture waiting: that is kept while the presses have work', async () => {
    const map = readJson<{
      outline: object;
      joints: object[];
      parts: { id: string; base?: boolean }[];
      fasteners: { id: string }[];
    }>('docs/examples/sample.json');
    const points = Array.from({ length: 100 }, (_, n) => ({
      id: `n${n}`,
      x: 20 + n * 29,
      y: 20 + n * 29,
      depth: 12,
      below: 'plastic',
    }));
    const [base] = map.parts.filter((each) => each.base);
    const [part] = map.parts.filter((each) => !each.base);
    const row = (n: number) => ({
      id: `row${n}`,
      type: 'screw',
      holds: [part!.id],
      to: base!.id,
      face: 'front',
      fastener: map.fasteners[0]!.id,
      points,
    });
    const long = {
      ...map,
      id: 'three-metres',
      outline: { width: 3000, height: 3000, thickness: 9, corner: 8 },
      joints: [...map.joints, row(1), row(2)],
    };
    expect((await call('POST', '/device-maps', long)).status).toBe(201);
    const ended: string[] = [];
    const prints = Array.from({ length: 6 }, async () => {
      const printed = await fetch(`${api.base}/device-maps/three-metres/screw-mat.pdf`);
      await printed.arrayBuffer();
      ended.push('print');
      return printed.status;
    });
    const kept = picture(jpeg(4000, 3001), 'image/jpeg').then(({ status }) => {
      ended.push('picture');
      return status;
    });
    expect(await kept).toBe(201);
    expect(await Promise.all(prints)).toEqual([200, 200, 200, 200, 200, 200]);
    expect(ended.indexOf('picture')).toBeLessThan(5);
  }, 60_000);
});

describe('another site', () => {
  it('uses up no stream and no meter, and asks nothing of the API', async () => {
    const from = (site: string) => ({ 'sec-fetch-site': site, 'sec-fetch-mode': 'no-cors' });
    const asked = ['/changes', '/stand-ins/caliper?screws=2:PH000', `/jobs/${job}`, `/jobs/${job}/report.pdf`];
    for (const path of asked) {
      for (const site of ['cross-site', 'same-site', 'cross-site', 'same-site', 'cross-site', 'same-site', 'same-site'])
        expect((await fetch(api.base + path, { headers: from(site) })).status).toBe(403);
    }
    expect((await fetch(`${api.base}/jobs`, { headers: { 'sec-fetch-site': 'same-origin' } })).status).toBe(200);
  });
});
