import { lead } from './harness.ts';
import { event, workshop } from './workshop-server.ts';
import { randomUUID } from 'node:crypto';
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { unzipSync } from 'fflate';
import { describe, expect, it } from 'vitest';

const { api, call, job, send, shop } = workshop();
/** A picture of one pixel, as small as a PNG gets. */
const pixel = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);
const sendPhoto = (of: string, content: Uint8Array, type = 'image/png') =>
  call('POST', `/jobs/${of}/photos`, content, { 'content-type': type });

describe('photographs', () => {
  it('are stored by content, served as what they are, and exported with the job', async () => {
    const stored = await sendPhoto(job(), pixel);
    expect(stored).toMatchObject({ status: 201, body: { type: 'image/png', width: 1, height: 1 } });
    const hash = stored.body['hash'] as string;
    expect((await sendPhoto(job(), pixel)).body['hash']).toBe(hash);
    const photo = event('photo', { shown: hash, thumb: hash, width: 1, height: 1 });
    expect((await send(photo)).body['accepted']).toEqual([photo.id]);
    const served = await fetch(`${api.base}/jobs/${job()}/photos/${hash}`);
    expect([served.headers.get('content-type'), served.headers.get('x-content-type-options')]).toEqual([
      'image/png',
      'nosniff',
    ]);
    expect(Buffer.from(await served.arrayBuffer()).equals(pixel)).toBe(true);
    const zip = unzipSync(new Uint8Array(await (await fetch(`${api.base}/jobs/${job()}/export`)).arrayBuffer()));
    expect(Object.keys(zip)).toEqual(['job.json', 'events.csv', 'device-map.json', `photos/${hash}.png`]);
    expect(Buffer.from(zip[`photos/${hash}.png`]!).equals(pixel)).toBe(true);
  });

  it('are pictures, whole, and not too large, whatever they are called', async () => {
    const executable = Buffer.concat([Buffer.from('MZ\u0090\u0000'), Buffer.alloc(400)]);
    const renamed = await sendPhoto(job(), executable, 'image/jpeg');
    expect([renamed.status, renamed.body['detail']]).toEqual([422, expect.stringContaining('no photograph')]);
    const bomb = Buffer.from(pixel);
    bomb.writeUInt32BE(10_000, 16);
    bomb.writeUInt32BE(10_000, 20);
    expect((await sendPhoto(job(), bomb)).body['detail']).toContain('100 megapixels');
    expect((await sendPhoto(job(), pixel.subarray(0, 40))).status).toBe(422);
    expect((await sendPhoto(job(), Buffer.alloc(17 * 1024 * 1024))).status).toBe(413);
    expect((await sendPhoto(job(), pixel, 'text/html')).status).toBe(415);
    expect((await sendPhoto(randomUUID(), pixel)).status).toBe(404);
    expect(readdirSync(join(api.folder, 'photos'))).toHaveLength(1);
  });

  it('come before the event that names them, and belong to their job', async () => {
    const photo = event('photo', { shown: 'a'.repeat(64), thumb: 'a'.repeat(64), width: 1, height: 1 });
    expect((await send(photo)).body['rejected'][0].problem).toContain('photograph itself first');
    const { body } = await sendPhoto(job(), pixel);
    expect((await fetch(`${api.base}/jobs/${randomUUID()}/photos/${body['hash']}`)).status).toBe(404);
    expect((await fetch(`${api.base}/jobs/${job()}/photos/..%2f..%2fnibrel.sqlite`)).status).toBe(404);
  });
});

describe('the parts desk', () => {
  const part = randomUUID();
  it('lists the parts of all jobs with their verdict and the days left where the workshop is', async () => {
    await shop(lead('Maren'), event('zone', { zone: 'Europe/Athens' }));
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
