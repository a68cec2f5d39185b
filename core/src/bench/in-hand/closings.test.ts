import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { bondOf, tern5 } from '../../../test/maps.ts';
import { bondToClose, closingChoices, lookAnswer, restWorks } from './index.ts';

const budget = { now: () => performance.now(), limitMs: 300 };

describe('a bond that is about to be closed', () => {
  const bench = new TestBench(tern5(), [{ replace: 'display' }]).until('clean:front-seal');
  const choices = closingChoices(bench.mechanism, bench.state, bondOf(tern5(), 'front-seal'), budget);
  const way = (name: string) => choices.find((each) => each.way === name)!;

  it('is kept, renewed or glued, each with what it takes and what is said of water', () => {
    expect(choices.map((each) => each.way)).toEqual(['reuse', 'renew', 'glue']);
    expect(way('reuse').uses).toEqual([]);
    expect(way('renew').uses).toMatchObject([{ what: 'precut-seal', joint: 'front-seal' }]);
    expect(way('glue').uses).toMatchObject([{ what: 'liquid-adhesive' }]);
    expect(way('reuse').hands_s).toBeLessThan(way('renew').hands_s);
    // clips or bands, and time
    expect(way('glue').wait_s).toBeGreaterThan(way('renew').wait_s);
    expect(way('reuse').water).toContain('no longer water-resistant');
    expect(way('renew').water).toContain('not proven');
    const pad = bondOf(tern5(), 'light-sensor-glue');
    expect(closingChoices(bench.mechanism, bench.state, pad, budget).map(({ water }) => water)).toEqual([
      null,
      null,
      null,
    ]);
  });

  it('is asked about where it is scraped, looked at or laid, and nowhere else', () => {
    const [op] = bench.ahead();
    expect(bondToClose(tern5(), op)?.id).toBe('front-seal');
    expect(bondToClose(tern5(), { ...op!, name: 'dry' })).toBeNull();
    expect(bondToClose(tern5(), undefined)).toBeNull();
  });
});

describe('what was tried in a row', () => {
  it('works in one press, and the test is through', () => {
    const bench = new TestBench(tern5(), [{ replace: 'display' }]).until('test:before');
    const [op] = bench.ahead();
    const said = restWorks(bench.mechanism.map, bench.state, op);
    expect(said.map(({ type }) => type)).toEqual([...op!.functions!.map(() => 'test'), 'did']);
    for (const { type, data } of said) expect(bench.send(type, data as never).problem).toBeNull();
    expect(bench.ahead()[0]!.id).not.toBe('test:before');
    expect(restWorks(bench.mechanism.map, bench.state, bench.ahead()[0])).toEqual([]);
    expect(restWorks(bench.mechanism.map, bench.state, undefined)).toEqual([]);
  });

  it('is no test at a look', () => {
    expect(lookAnswer({ name: 'inspect', part: 'lid' } as never, 'failed')).toMatchObject([
      { data: { result: 'failed' } },
    ]);
    expect(lookAnswer({ name: 'test' } as never, 'failed')).toEqual([]);
  });
});
