import { event, workshop } from './workshop-server.ts';
import { describe, expect, it } from 'vitest';
import { lead } from './harness.ts';

const { call, send, shop } = workshop();

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
