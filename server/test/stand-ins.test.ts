import { workshop } from './workshop-server.ts';
import { describe, expect, it } from 'vitest';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { mechanismOf } from '@nibrel/core/planner/holds';
import type { JobState } from '@nibrel/core/job/state';
import { brokenFunctions, SelfTestStandIn } from '../src/stand-ins/self-test.ts';
import { meterReading } from '../src/stand-ins/power-meter.ts';
import { askWithin } from '../src/stand-ins/registry.ts';
import { readJson, TestServer } from './harness.ts';

const { api, call } = workshop();

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

  it('a device under test fails by the plug that is not home, until it is pressed again', () => {
    const map = readJson('demo/device-maps/tern-5.json') as DeviceMap;
    const mechanism = mechanismOf(map);
    const pressed = (...kinds: string[]) => kinds.map((kind) => ({ kind, joint: 'touch-plug' }));
    const state = (done: object[], more: object = {}) =>
      ({
        done,
        tests: [],
        troubles: [],
        targets: [],
        unsure: new Set(),
        steps: new Map(),
        ...more,
      }) as unknown as JobState;
    const broken = (given: JobState) => [...brokenFunctions(mechanism, given, new Set(['touch-plug']))];
    expect(broken(state(pressed('release', 'make')))).toEqual(['touch']);
    expect(broken(state(pressed('release', 'make', 'release', 'make')))).toEqual([]);
    const unsure = state(pressed('release', 'make'), { unsure: new Set(['touch-plug']) });
    expect([...brokenFunctions(mechanism, unsure, new Set())]).toEqual(['touch']);
    const old = { tests: [{ function: 'call', stage: 'intake', result: 'fails' }], targets: [{ replace: 'side-key' }] };
    expect([...brokenFunctions(mechanism, state([], old), new Set())]).toEqual(['call', 'side-key']);
    const device = new SelfTestStandIn(['picture', 'touch'], new Set(['touch']));
    expect([device.reading(0)?.result, device.reading(1), device.reading(2)]).toEqual([
      'works',
      { function: 'touch', result: 'fails', isLast: true, simulated: true },
      null,
    ]);
  });

  it('a device under test answers for a job, and for nothing that its map does not have', async () => {
    const made = await call('POST', '/jobs', { map: 'tern-5', targets: [{ replace: 'display' }] });
    const { id } = made.body as { id: string };
    const answer = await fetch(`${api.base}/stand-ins/self-test?job=${id}&functions=picture`);
    expect(await answer.text()).toContain('"result":"works"');
    const refused = (query: string) => call('GET', `/stand-ins/self-test?${query}`);
    expect((await refused('job=none&functions=picture')).status).toBe(404);
    expect((await refused(`job=${id}&functions=flies,__proto__&faults=none`)).body['errors']).toHaveLength(3);
    expect((await refused(`job=${id}`)).status).toBe(422);
  });
});
