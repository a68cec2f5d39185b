import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { changed, tern5 } from '../../../test/maps.ts';
import { expectedSeconds, explain, type Look, priorOf, searchOrder } from './index.ts';

const atTheTest = (notSure?: string) => {
  const bench = new TestBench(tern5(), [{ replace: 'display' }]);
  if (!notSure) return bench.until('test:before');
  bench.until(`make:${notSure}`);
  return bench.do(bench.ahead()[0]!).send('click', { joint: notSure, heard: 'not-sure' }).until('test:before');
};
const tried = (bench: TestBench, result: 'works' | 'fails', ...ids: string[]) => {
  for (const id of ids) bench.send('test', { function: id, result, stage: 'before' });
  return bench;
};
const chances = (bench: TestBench) => explain(bench.mechanism, bench.state).marginals;

describe('what explains a failed test', () => {
  it('is the plug that serves it and was pressed in this job', () => {
    const bench = tried(tried(atTheTest(), 'fails', 'touch'), 'works', 'picture', 'brightness');
    const { sets, marginals } = explain(bench.mechanism, bench.state);
    expect(sets[0]!.connectors).toEqual(['joint:touch-plug']);
    expect(marginals['joint:touch-plug']).toBeGreaterThan(0.5);
    expect(marginals['joint:display-plug']).toBeLessThan(0.01);
  });

  it('is likelier where nobody was sure that it clicked, and every press counts', () => {
    const sure = chances(tried(atTheTest(), 'fails', 'touch'))['joint:touch-plug']!;
    const unsure = chances(tried(atTheTest('touch-plug'), 'fails', 'touch'))['joint:touch-plug']!;
    expect(unsure).toBeGreaterThan(sure);
    const suspect = { joint: 'x', touched: 1, troubled: false, unsure: false, isNew: false };
    expect(priorOf({ ...suspect, touched: 2 })).toBeGreaterThan(priorOf(suspect));
    expect(priorOf({ part: 'y', touched: 1, troubled: false, unsure: false, isNew: false })).toBeLessThan(
      priorOf(suspect),
    );
  });

  it('says what to try next, and takes old faults and what the repair loses for no evidence', () => {
    const bench = tried(atTheTest(), 'fails', 'touch');
    expect(explain(bench.mechanism, bench.state).nextTests[0]!.bits).toBeGreaterThan(0);
    const old = new TestBench(tern5(), [{ replace: 'display' }]);
    old.send('test', { function: 'touch', result: 'fails', stage: 'intake' }).until('test:before');
    const before = chances(old)['joint:touch-plug'];
    expect(chances(tried(old, 'fails', 'touch'))['joint:touch-plug']).toBe(before);
  });

  it('goes by the newest word on a function, before sealing or after', () => {
    const bench = atTheTest();
    bench.send('test', { function: 'touch', result: 'fails', stage: 'after' });
    const failing = chances(bench)['joint:touch-plug']!;
    // opened again, pressed, and tried before it is sealed
    expect(chances(tried(bench, 'works', 'touch'))['joint:touch-plug']).toBeLessThan(failing / 2);
  });

  it('blames nothing for a function that no plug or part serves', () => {
    const unserved = changed(tern5(), (map) => map.functions.push({ id: 'shine', name: 'Shine', how: 'Look.' }));
    const bench = new TestBench(unserved, [{ replace: 'display' }]).until('test:before');
    const before = chances(bench);
    bench.send('test', { function: 'shine', result: 'fails', stage: 'before' });
    const after = chances(bench);
    for (const [id, p] of Object.entries(before)) expect(after[id]).toBeCloseTo(p, 9);
    expect(bench.aheadWhole().failed).toMatchObject([{ function: 'shine', suspects: [] }]);
  });

  it('explains all tests failing at once, and nothing where nothing was touched', () => {
    const bench = atTheTest();
    tried(bench, 'fails', ...tern5().functions.map(({ id }) => id));
    expect(explain(bench.mechanism, bench.state).sets.length).toBeGreaterThan(0);
    const whole = new TestBench(tern5(), []);
    expect(explain(whole.mechanism, whole.state).sets).toEqual([{ connectors: [], p: 1 }]);
  });
});

describe('the order of looking again', () => {
  const orders = <T>(all: readonly T[]): T[][] =>
    all.length < 2
      ? [[...all]]
      : all.flatMap((each, at) => orders(all.toSpliced(at, 1)).map((rest) => [each, ...rest]));
  it('is the least to be expected of all orders', () => {
    const look = fc.record({
      cost_s: fc.integer({ min: 1, max: 900 }),
      p: fc.double({ min: 0.01, max: 0.3, noNaN: true }),
    });
    fc.assert(
      fc.property(fc.array(look, { minLength: 1, maxLength: 6 }), (looks: Look[]) => {
        const least = Math.min(...orders(looks).map(expectedSeconds));
        expect(expectedSeconds(searchOrder(looks))).toBeCloseTo(least, 6);
      }),
      { numRuns: 40 },
    );
  });
  it('puts a cheap look before a likely dear one, and what can not be at fault last', () => {
    const looks = [
      { id: 'dear', cost_s: 900, p: 0.6 },
      { id: 'cheap', cost_s: 60, p: 0.3 },
      { id: 'never', cost_s: 1, p: 0 },
    ];
    expect(searchOrder(looks).map(({ id }) => id)).toEqual(['cheap', 'dear', 'never']);
  });
});
