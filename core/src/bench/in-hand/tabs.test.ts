import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { changed, shearwater11 } from '../../../test/maps.ts';
import { putOn } from '../../job/state/index.ts';
import { nextPress } from './index.ts';

const press = (bench: TestBench) => nextPress(bench.mechanism, bench.state, bench.aheadWhole(), bench.now);
const say = (bench: TestBench) => {
  const { does } = press(bench);
  if (does.kind === 'say') for (const { type, data } of does.events) bench.send(type, data as never);
};

describe('pull tabs', () => {
  it('are a tick of their own each, in the printed order, and the last lets the cell go', () => {
    const bench = new TestBench(shearwater11(), [{ remove: 'cell-right' }]).until('release:right-tabs');
    expect(press(bench).label).toBe('Bottom left tab is out');
    say(bench);
    expect(bench.problem).toBeNull();
    expect(press(bench).label).toBe('Bottom right tab is out');
    // nothing is cut: no cup is on it, and it does not count twice
    expect(putOn(bench.mechanism.map, bench.state).some(({ kind }) => kind === 'cup')).toBe(false);
    expect(bench.send('edge', { joint: 'right-tabs', segment: 'a' }).problem).toContain('out already');
    say(bench);
    expect(bench.state.done.at(-1)).toMatchObject({ kind: 'release', joint: 'right-tabs' });
    expect(bench.ahead()[0]!.id).toBe('lift:cell-right');
  });

  it('are one step where the map does not tell them apart', () => {
    const map = changed(shearwater11(), (copy) => {
      for (const joint of copy.joints) if (joint.type === 'bond' && joint.style === 'tabs') delete joint.segments;
    });
    const bench = new TestBench(map, [{ remove: 'cell-right' }]).until('release:right-tabs');
    expect(press(bench).label).toMatch(/^Done/);
  });
});
