import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { bondOf, dunlinOpen, gannetWorks, petrelGlass, tern5 } from '../../../test/maps.ts';
import { usualSetting } from '../../physics/heat/index.ts';
import { leaving } from './index.ts';

const judged = (bench: TestBench) => leaving(bench.mechanism, bench.state, bench.ahead(), bench.now);
const texts = (bench: TestBench) => judged(bench).bad.map(({ text }) => text);

describe('may it be left now', () => {
  it('yes, before anything is open', () => {
    const bench = new TestBench(gannetWorks(), [{ remove: 'board' }]).prepare();
    expect(judged(bench)).toMatchObject({ bad: [], mayLeave: true, next: null });
  });

  it('never while it is stopped, however it lies, and no clock is told', () => {
    const bench = new TestBench(gannetWorks(), [{ remove: 'board' }]).prepare();
    bench.send('stop', { reason: 'smell', text: 'sweet' });
    expect(judged(bench)).toMatchObject({ bad: [], mayLeave: false, next: null, isStopped: true, runsOn: [] });
    bench.send('clear', { stop: bench.state.stopped!.id, text: 'it was the cleaner' }, 'Maren');
    expect(judged(bench)).toMatchObject({ mayLeave: true, isStopped: false });
  });

  it('not with the board live and open; some steps on it is dead, and then it may', () => {
    const bench = new TestBench(tern5(), [{ remove: 'cell' }]).prepare().until('release:connector-lid-screws');
    const now = judged(bench);
    expect(now.mayLeave).toBe(false);
    expect(texts(bench).join()).toContain('battery is connected');
    expect(now.next!.after.id).toBe('release:cell-plug');
    bench.until('release:cell-plug').do(bench.ahead()[0]!);
    expect(judged(bench).mayLeave).toBe(true);
  });

  it('says when a warm bond grabs again, and that the source stays on', () => {
    const bench = new TestBench(petrelGlass(), [{ replace: 'back-glass' }]).prepare().until('heat:back-bond');
    const setting = usualSetting('plate');
    bench.send('heat-on', { joint: 'back-bond', setting, heat_s: 300 });
    expect(bench.problem).toBeNull();
    expect(texts(bench)[0]).toContain('source is on');
    bench.wait(300).send('heat-off', { joint: 'back-bond', seconds: 300 });
    const { bad, next } = judged(bench);
    expect(bad[0]).toMatchObject({ isSlight: false, text: expect.stringContaining('re-sets') });
    expect(bad[0]!.in_s).toBeGreaterThan(0);
    // nothing of this plan makes it dead: it may be left once it is closed
    expect(next!.after.id).toBe('make:back-bond');
    expect(texts(bench.wait(3600)).join()).not.toContain('re-sets');
  });

  it('says of the bond in hand the very window that is said beside its edge', () => {
    const bench = new TestBench(petrelGlass(), [{ replace: 'back-glass' }]).prepare().until('heat:back-bond');
    bench.send('heat-on', { joint: 'back-bond', setting: usualSetting('plate'), heat_s: 300 });
    bench.wait(300).send('heat-off', { joint: 'back-bond', seconds: 300 });
    const bond = bondOf(petrelGlass(), 'back-bond');
    const softFor_s = Object.fromEntries(bond.segments!.map(({ id }) => [id, 40]));
    const off = { since_s: 10, isEarly: false, working_s: 100, drags_s: null, coolIn_s: null };
    const reach = { low: 50, likely: 60, high: 70 };
    const warm = {
      on: null,
      off: { ...off, byEdge: { softFor_s, dragFor_s: {} } },
      bond_C: reach,
      soften_C: 58,
      drag: { ...reach, from: 0 },
      problem: null,
    };
    const { mechanism, state } = bench;
    expect(leaving(mechanism, state, bench.ahead(), bench.now, warm as never).bad[0]!.in_s).toBe(30);
  });

  it('not with adhesive bare; a cell that lies out is said and no reason to stay', () => {
    const bench = new TestBench(tern5(), [{ replace: 'cell' }]).prepare().until('fit:cell');
    expect(bench.state.steps.get('liner-off:cell-straps')).toBe(1);
    const { bad, next } = judged(bench);
    expect(bad.map(({ text, isSlight }) => [text.split(':')[0], isSlight])).toEqual(
      expect.arrayContaining([
        [expect.stringContaining('Adhesive of'), false],
        [expect.stringContaining('A bare cell lies out'), true],
      ]),
    );
    expect(next!.steps).toBeGreaterThan(0);
  });

  it('is told for every step of a repair to its end, and is over when that is', () => {
    const bench = new TestBench(dunlinOpen(), [{ full: true }]).prepare();
    while (bench.ahead().length > 0) {
      const { mayLeave, next } = judged(bench);
      expect(mayLeave || next !== null, bench.ahead()[0]!.id).toBe(true);
      bench.do(bench.ahead()[0]!);
    }
    expect(judged(bench).bad).toEqual([]);
  });
});
