import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { seedDemo } from '../src/demo/seed.ts';
import { openApi } from '../src/http/openapi.ts';
import { openDatabase } from '../src/store/database.ts';
import { DeviceMaps } from '../src/store/device-maps.ts';
import { Jobs } from '../src/store/jobs.ts';

describe('the demo workshop', () => {
  it('has three repairs that play: one to start, one half way, one finished; a second start adds nothing', () => {
    const db = openDatabase(mkdtempSync(join(tmpdir(), 'nibrel-seed-')));
    const maps = new DeviceMaps(db);
    const jobs = new Jobs(db, maps);
    const now = new Date('2026-11-24T12:00:00Z');
    seedDemo(maps, jobs, now);
    seedDemo(maps, jobs, now);
    const states = jobs.list().map((job) => jobs.state(job));
    expect(
      maps
        .list()
        .map(({ id }) => id)
        .sort(),
    ).toEqual(['dunlin-open', 'tern-5']);
    expect(states.map((state) => state.events.length > 0)).toEqual(expect.arrayContaining([true, true, false]));
    const finished = states.filter((state) => state.finished);
    expect(finished).toHaveLength(1);
    expect(finished[0]!.ledger.onMat).toEqual([]);
    expect(finished[0]!.tests.every(({ result }) => result === 'works')).toBe(true);
    const half = states.find((state) => state.events.length > 0 && !state.finished)!;
    expect(half.ledger.onMat.length).toBeGreaterThan(0);
    for (const job of jobs.list()) expect(Date.parse(job.createdAt)).toBeLessThan(now.getTime() + 1);
    db.$client.close();
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
