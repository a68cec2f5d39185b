import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { partVerdict } from '@nibrel/core/workshop/parts';
import { failedTests } from '@nibrel/core/job/state';
import { ownTimes } from '@nibrel/core/after/own-times';
import { stockLevels } from '@nibrel/core/workshop/shop';
import { createApp } from '../src/app.ts';
import { seedDemo } from '../src/demo/seed.ts';
import { openApi } from '../src/http/openapi.ts';
import { openDatabase } from '../src/store/database.ts';

describe('the demo workshop', () => {
  it('has repairs at every stage and parts in every state that all play; a second start adds nothing', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'nibrel-seed-'));
    const now = new Date('2026-11-24T12:00:00Z');
    const nibrel = createApp({
      db: openDatabase(folder),
      photoFolder: join(folder, 'photos'),
      standIns: true,
      now: () => now,
    });
    await seedDemo(nibrel, now);
    await seedDemo(nibrel, now);
    const { maps, jobs, shop } = nibrel;
    const states = await Promise.all(jobs.all().map(async (job) => (await jobs.live(job)).going.state));
    const state = (title: string) => states.find((each) => each.job.title === title)!;
    expect(maps.list().map(({ id }) => id)).toEqual([
      'dunlin-open',
      'gannet-works',
      'kittiwake-lite',
      'knot-keys',
      'petrel-glass',
      'shearwater-11',
      'tern-5',
    ]);
    expect(states).toHaveLength(14);
    expect(state('Wheelhouse 2').finished).not.toBeNull();
    expect(state('Wheelhouse 2').ledger.onMat).toEqual([]);
    expect(state('Purser 3').ledger.onMat.length).toBeGreaterThan(0);
    expect(state('Deck crane 1').ledger.onMat.length).toBe(20);
    expect(failedTests(maps.find('tern-5')!.map, state('Car deck 7'))).toEqual(['touch']);
    // half taken apart, with its photographs
    expect(state('Bridge 7')).toMatchObject({ teardown: 'on', photos: { length: 2 } });
    expect(state('Bridge 7').ledger.onMat).toHaveLength(6);
    expect(state('Mess 4')).toMatchObject({ finished: expect.any(String), handedOver: null });
    expect(state('Radio room 2').done.some(({ kind, part }) => kind === 'lift' && part === 'display')).toBe(true);
    expect([...state('Car deck 7').unsure]).toEqual(['touch-plug']);
    expect(state('Galley 4').stopped?.reason).toBe('swelling');
    expect(state('Deck crew 14')).toMatchObject({ prepared: {}, agreed: {} });
    const parts = states.flatMap((each) =>
      each.parts.map((part) => [partVerdict(maps.find(each.job.map)!.map, part).verdict, part.decision?.decision]),
    );
    expect(new Set(parts.map(([verdict]) => verdict))).toEqual(new Set(['use', 'hold', 'send-back']));
    expect(new Set(parts.map(([, decision]) => decision))).toEqual(
      new Set(['accept', 'accept-anyway', 'hold', 'send-back', undefined]),
    );
    for (const job of jobs.all()) expect(Date.parse(job.createdAt)).toBeLessThan(now.getTime() + 1);
    expect(stockLevels(shop.shop, jobs.used()).some((each) => each.low)).toBe(true);
    // finished work tells how long things take
    const times = ownTimes(jobs.times());
    expect(times.length).toBeGreaterThan(3);
    for (const { low, likely, high, from } of times)
      expect([low <= likely, likely <= high, from! > 0]).toEqual([true, true, true]);
    return nibrel.close();
  });
});

describe('the description of the API', () => {
  it('names a schema for every reference', () => {
    const text = JSON.stringify(openApi());
    const schemas = Object.keys((openApi() as { components: { schemas: object } }).components.schemas);
    const named = [...text.matchAll(/#\/components\/schemas\/(\w+)/g)].map((match) => match[1]);
    expect(schemas).toEqual(expect.arrayContaining([...new Set(named)]));
  });
});
