import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { dunlinOpen, knotKeys } from '../../../test/maps.ts';
import { ids, plan } from '../../../test/played-plans.ts';
import { reportOf } from '../../after/report/index.ts';
import { nextPress, sideBySide } from '../../bench/in-hand/index.ts';

describe('a base that is replaced', () => {
  it('is taken up, compared, and what came on it counted, before the first piece goes onto it', () => {
    const { rebuild } = plan(knotKeys(), [{ replace: 'body' }]);
    expect(ids(rebuild)[0]).toBe('take-up:body');
    expect(ids(plan(knotKeys(), [{ full: true }]).rebuild)).not.toContain('take-up:body');
  });

  it('has its piece for one use renewed once', () => {
    const { rebuild } = plan(knotKeys(), [{ replace: 'body' }]);
    expect(
      rebuild.filter(({ part, name, isNew }) => part === 'board-shield' && (name === 'renew' || isNew)),
    ).toHaveLength(1);
  });

  it('is taken up also where the plan is made anew once the old one is bare, only if it is accepted, and is reported', () => {
    const bench = new TestBench(dunlinOpen(), [{ replace: 'tub', newIncludes: ['port-flex'] }]);
    bench.until('take-up:tub');
    const [op] = bench.ahead();
    expect(op?.id).toBe('take-up:tub');
    expect(nextPress(bench.mechanism, bench.state, bench.aheadWhole(), bench.now).isAllowed).toBe(true);
    expect(sideBySide(bench.mechanism, bench.state, op)?.part).toBe('tub');
    const part = '00000000-0000-4000-8000-0000000000aa';
    bench.send('part-arrived', { part, mapPart: 'tub', source: 'yard', arrived: '2026-11-20', window_days: 30 });
    expect(bench.do(op!).problem).toContain('not accepted');
    bench.send('part-decided', { part, decision: 'accept-anyway', text: 'looked at it' });
    expect(bench.do(op!).problem).toBeNull();
    expect(bench.ahead().map(({ id }) => id)).not.toContain('take-up:tub');
    expect(reportOf(bench.mechanism, bench.state).parts.map(({ name }) => name)).toEqual(['Chassis']);
  });
});
