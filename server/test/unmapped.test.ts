import { randomUUID } from 'node:crypto';
import { bareMap } from '@nibrel/core/teardown/record';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TestServer } from './harness.ts';

const server = new TestServer();
beforeAll(() => server.start());
afterAll(() => server.stop());

const event = (type: string, data: object) => ({
  id: randomUUID(),
  type,
  at: new Date().toISOString(),
  by: 'Ines',
  data,
});
let job = '';
const tell = async (...events: readonly object[]) =>
  (await server.call('POST', `/jobs/${job}/events`, { events })).body;

const SCREWS = {
  joint: 's1',
  joints: [{ id: 's1', type: 'screw', count: 4, screw: 'A' }],
  screws: [{ id: 'A', drive: 'PH000' }],
};
const LID = { part: 'lid', to: 'off', parts: [{ id: 'lid', kind: 'bracket' }] };

describe('a device without a map, over HTTP', () => {
  it('is a job like any other, and its map is kept once nothing more comes off', async () => {
    const bare = bareMap({ id: 'kittiwake-lite', name: 'Kittiwake Lite', kind: 'phone' });
    expect((await server.call('POST', '/device-maps', bare)).status).toBe(201);
    const made = await server.call('POST', '/jobs', { map: bare.id, targets: [{ full: true }] });
    job = made.body['id'];
    const early = await tell(event('came-off', LID));
    expect(early['rejected'][0].problem).toContain('not being taken apart');
    await tell(event('take-apart', {}), event('charge', { charge: 0.2, source: 'typed' }));
    const shut = await tell(event('came-off', LID));
    expect(shut['rejected'][0].problem).toContain('prepare the bench');
    const ready = await tell(event('prepared', { items: ['strap', 'sand'], skipped: [], told: [], charge: 0.2 }));
    expect(ready['rejected']).toEqual([]);
    const told = await tell(event('came-off', SCREWS), event('came-off', LID));
    expect(told['rejected']).toEqual([]);
    expect((await server.call('GET', `/jobs/${job}`)).body['screws']).toMatchObject({ onMat: 4 });
    await tell(event('put-together', {}));
    const { body } = await server.call('GET', `/device-maps/${bare.id}`);
    expect(body['joints'].map((each: { id: string }) => each.id)).toContain('s1');
    expect(body['origin']).toMatchObject({ unmeasured: ['A'], record: expect.any(Object) });
    // the job goes by the map that it was taken in with, and by what it told
    expect((await server.call('GET', `/jobs/${job}`)).body['mapRevision']).toBe(1);
  });

  it('stands as it was told after the server has gone and come back', async () => {
    const before = await server.call('GET', `/jobs/${job}`);
    await server.stop();
    await server.start();
    expect((await server.call('GET', `/jobs/${job}`)).body).toEqual(before.body);
    const fitted = await tell(
      event('did', {
        steps: [
          { id: 'fit:lid', kind: 'fit', part: 'lid' },
          { id: 'make:s1', kind: 'make', joint: 's1' },
        ],
      }),
    );
    expect(fitted['rejected']).toEqual([]);
    expect((await server.call('GET', `/jobs/${job}`)).body['screws']).toMatchObject({ onMat: 0 });
  });

  it('a map with guesses is exported, imported and refused like any other', async () => {
    const { body: map } = await server.call('GET', '/device-maps/kittiwake-lite');
    expect((await server.call('POST', '/device-maps', { ...map, id: 'kittiwake-lite-2' })).status).toBe(201);
    const odd = { ...map, id: 'odd', origin: { ...map['origin'], guesses: [{ joint: 's1', certainty: 'sure' }] } };
    const refused = await server.call('POST', '/device-maps', odd);
    expect(refused.status).toBe(422);
    expect(refused.body['errors'][0].path).toContain('origin.guesses[0]');
  });

  it('whatever is told, nothing stops the server', async () => {
    const odd: readonly [string, unknown][] = [
      ['came-off', { part: '__proto__', to: 'off', parts: [{ id: '__proto__', kind: 'other' }] }],
      ['came-off', { joint: 'constructor', joints: [{ id: 'constructor', type: 'clip', holds: ['lid'] }] }],
      ['came-off', { joint: 'x', joints: [{ id: 'x', type: 'screw', count: 0 }] }],
      ['came-off', { joint: 'x', joints: [{ id: 'x', type: 'screw', count: 500 }] }],
      ['came-off', { joint: 'x', part: 'y', to: 'off' }],
      ['described', { outline: { width: -1, height: 1, thickness: 1, corner: 0 } }],
      [
        'described',
        {
          parts: [
            {
              id: 'lid',
              outline: [
                [0, 0],
                [10, 10],
                [10, 0],
                [0, 10],
              ],
            },
          ],
        },
      ],
      ['described', { parts: [{ id: 'lid', box: { x: 2999, y: 2999, w: 3000, h: 3000 } }] }],
      [
        'layer',
        {
          photo: randomUUID(),
          face: 'front',
          corners: [
            { x: 0, y: 0 },
            { x: 1, y: 1 },
            { x: 1, y: 0 },
            { x: 0, y: 1 },
          ],
        },
      ],
      ['first-seen', { part: 'lid', photo: randomUUID() }],
      ['what-held', { part: 'lid', options: [{ part: 'lid', until: 'off' }], by: [{ joint: 'nothing' }] }],
      ['put-together', {}],
      ['take-apart', {}],
      ['take-apart', {}],
    ];
    for (const [type, data] of odd) {
      const answer = await server.call('POST', `/jobs/${job}/events`, { events: [event(type, data as object)] });
      expect([type, answer.status]).toEqual([type, 200]);
    }
    expect((await server.call('GET', `/jobs/${job}`)).status).toBe(200);
    const many = Array.from({ length: 300 }, (_, at) =>
      event('came-off', { joint: `j${at}`, joints: [{ id: `j${at}`, type: 'clip' }] }),
    );
    const told = await tell(...many);
    expect(told['accepted'].length).toBeLessThanOrEqual(250);
    expect(told['rejected'].at(-1).problem).toContain('More than 250 joints');
    expect((await server.call('GET', '/health')).status).toBe(200);
  });
});
