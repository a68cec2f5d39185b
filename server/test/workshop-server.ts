import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll } from 'vitest';
import { readJson, TestServer } from './harness.ts';

/** Half past one at night in the east, the day before in the west. */
const now = () => new Date('2026-11-24T23:30:00Z');
const at = '2026-11-24T23:30:00.000Z';
export const event = (type: string, data: object) => ({ id: randomUUID(), type, at, by: 'Maren', data });

/** A server of its own for a file of tests, with the stand-ins and one job for a board. */
export function workshop() {
  const api = new TestServer({ standIns: true, now });
  const call = api.call.bind(api);
  let job = '';
  beforeAll(async () => {
    await api.start();
    await call('POST', '/device-maps', readJson('demo/device-maps/tern-5.json'));
    job = (await call('POST', '/jobs', { map: 'tern-5', targets: [{ replace: 'lower-board' }] })).body['id'] as string;
  });
  afterAll(() => api.stop());
  return {
    api,
    call,
    now,
    job: () => job,
    send: (...events: object[]) => call('POST', `/jobs/${job}/events`, { events }),
    shop: (...events: object[]) => call('POST', '/shop/events', { events }),
  };
}
