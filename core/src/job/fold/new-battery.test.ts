import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { tern5 } from '../../../test/maps.ts';
import { before, plan } from '../../../test/played-plans.ts';
import { reportOf } from '../../after/report/index.ts';
import { opWords } from '../../planner/words/index.ts';
import { handOverPoints } from '../state/index.ts';

describe('a battery that is renewed', () => {
  it('is looked at as it goes in, and its report read before it is sealed in', () => {
    const { rebuild } = plan(tern5(), [{ replace: 'cell' }]);
    before(rebuild, 'read-battery:cell', 'test:before');
    const fit = rebuild.find(({ id }) => id === 'fit:cell')!;
    expect(opWords(tern5(), fit).hint).toContain('No dent, no swelling, its wrap whole.');
    expect(plan(tern5(), [{ remove: 'cell' }]).rebuild.some(({ name }) => name === 'read-battery')).toBe(false);
  });

  it('is proven in the record and at the hand-over, by figures before and after and its origin as foretold', () => {
    const bench = new TestBench(tern5(), [{ replace: 'cell' }]);
    expect(bench.send('battery-read', { of: 'old', health: 0.71, charge: 0.4 }).problem).toBeNull();
    bench.until('test:before');
    const point = () =>
      handOverPoints(bench.mechanism, bench.state, bench.now).find(({ what }) => what === 'battery-report');
    expect(point()?.isDone).toBe(false);
    bench.send('battery-read', { of: 'new', capacity_mAh: 4100, charge: 0.6, origin: 'not-foretold' });
    expect(point()).toMatchObject({ isDone: false, text: expect.stringContaining('was not foretold') });
    bench.send('battery-read', { of: 'new', capacity_mAh: 4100, charge: 0.6, origin: 'as-foretold' });
    expect(point()?.isDone).toBe(true);
    const { toKnow } = reportOf(bench.mechanism, bench.state);
    expect(toKnow).toContain('Battery report, the old one: health 71 %, charge 40 %.');
    expect(toKnow.filter((text) => text.startsWith('Battery report, the new one'))).toHaveLength(2);
  });
});
