import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { bondOf, changed, shearwater11, tern5 } from '../../../test/maps.ts';
import { usualSetting } from '../../physics/heat/index.ts';
import { foldJob } from '../fold/fold.ts';
import { lastWarmed } from '../state/opening-state.ts';
import { zonesOf, zoneToWarm } from '../state/zones.ts';

const joint = 'front-seal';
const plate = { joint, setting: usualSetting('plate'), heat_s: 300 };
const atHeat = () => new TestBench(tern5(), [{ replace: 'display' }]).until('heat:front-seal');
const ids = (bench: TestBench) => bench.ahead().map((op) => op.id);
const edges = ['bottom', 'left', 'top', 'right'];

describe('heating', () => {
  it('is on, read, and off; with that the step of the plan is done', () => {
    const bench = atHeat().send('heat-on', plate);
    expect(bench.state.opening.heating).toMatchObject({ heat_s: 300, readings: [] });
    bench.send('heat-reading', { joint, readings: [{ at_s: 10, temp_C: 40, spot: 'face' }] });
    bench.send('heat-off', { joint, seconds: 310, bond_C: 64 });
    expect(bench.state.opening.heating).toBeNull();
    expect(bench.state.opening.warmed).toMatchObject([{ joint, seconds: 310, past: [] }]);
    expect(ids(bench)[0]).toBe('release:front-seal');
    expect(foldJob(bench.mechanism, bench.job, bench.state.events)).toEqual(bench.state);
  });

  it('refuses a second source, a bond that is none or released, and heat before the bench is prepared', () => {
    expect(atHeat().send('heat-on', plate).send('heat-on', plate).problem).toContain('is being heated');
    expect(atHeat().send('heat-on', { ...plate, joint: 'nothing' }).problem).toContain('no bond');
    expect(atHeat().send('heat-on', { ...plate, zone: 'upper' }).problem).toContain('no zone');
    const released = atHeat().send('heat-on', plate).send('heat-off', { joint, seconds: 300 }).release(joint);
    expect(released.send('heat-on', plate).problem).toContain('released already');
    const early = new TestBench(tern5(), [{ replace: 'display' }]).send('heat-on', plate);
    expect(early.problem).toContain('First prepare the bench');
    expect(atHeat().send('heat-off', { joint, seconds: 1 }).problem).toContain('No source is on');
  });

  it('refuses readings that can not be right, all of a batch, and keeps what was read', () => {
    const bench = atHeat().send('heat-on', plate);
    const read = (at_s: number, temp_C: number) =>
      bench.send('heat-reading', { joint, readings: [{ at_s, temp_C, spot: 'face' }] });
    expect(read(10, 38).problem).toBeNull();
    expect(read(5, 39).problem).toContain('go forward');
    expect(read(20, 900).problem).toContain('hotter than the source');
    const batch = [
      { at_s: 20, temp_C: 45, spot: 'face' },
      { at_s: 15, temp_C: 44, spot: 'face' },
    ] as const;
    expect(bench.send('heat-reading', { joint, readings: batch }).problem).toContain('go forward');
    expect(bench.state.opening.heating?.readings).toHaveLength(1);
    expect(atHeat().send('heat-reading', { joint, readings: batch }).problem).toContain('Put it on');
  });

  it('warms zones one after another, each when the cut comes to it', () => {
    const map = shearwater11();
    const bench = new TestBench(map, [{ replace: 'display' }]).until('heat:front-bond');
    const bond = bondOf(map, 'front-bond');
    expect(zonesOf(map, bond, undefined)).toEqual(['lower', 'upper']);
    expect(zonesOf(map, bond, 'all-round')).toEqual([]);
    const warm = (zone: string) =>
      bench
        .send('heat-on', { joint: 'front-bond', setting: usualSetting('air'), heat_s: 120, zone })
        .send('heat-off', { joint: 'front-bond', seconds: 120 });
    const next = () => zoneToWarm(map, bench.state.opening, bond, undefined);
    expect(next()).toBe('lower');
    // where the cut does not begin is not what the plan waits for
    warm('upper');
    expect(bench.state.steps.has('heat:front-bond')).toBe(false);
    warm('lower');
    expect(ids(bench)[0]).toBe('release:front-bond');
    for (const segment of ['bottom', 'lower-right', 'lower-left']) {
      expect(next()).toBe('lower');
      bench.send('edge', { joint: 'front-bond', segment });
    }
    expect(next()).toBe('upper');
    warm('upper');
    expect(ids(bench)[0]).toBe('release:front-bond');
    expect(bench.state.opening.warmed.map((each) => each.zone).toSorted()).toEqual(['lower', 'upper']);
    // each zone has its own past: the lower one is still warm from its own round, not from the upper one's
    warm('lower');
    const again = lastWarmed(bench.state.opening, 'front-bond', 'lower')!;
    expect(again.past).toEqual([
      { setting: usualSetting('air'), seconds: 120 },
      { setting: null, seconds: 6 },
    ]);
    expect(lastWarmed(bench.state.opening, 'front-bond', 'upper')!.past).toHaveLength(2);
    // the whole of it counts for every zone
    bench
      .send('heat-on', { joint: 'front-bond', setting: usualSetting('air'), heat_s: 60 })
      .send('heat-off', { joint: 'front-bond', seconds: 60 });
    expect(lastWarmed(bench.state.opening, 'front-bond', 'upper')).toMatchObject({ seconds: 60 });
    expect(bench.state.opening.warmed).toHaveLength(1);
    // and begins where its zones were left
    expect(bench.state.opening.warmed[0]!.past).toHaveLength(4);
  });

  it('warms all zones of a bond that is not cut, the one left alone longest first', () => {
    const map = changed(shearwater11(), (map) => {
      for (const segment of bondOf(map, 'front-bond').segments!) delete (segment as { depth?: number }).depth;
    });
    const bench = new TestBench(map, [{ replace: 'display' }]).until('heat:front-bond');
    const next = () => zoneToWarm(map, bench.state.opening, bondOf(map, 'front-bond'), undefined);
    const warmNext = () =>
      bench
        .send('heat-on', { joint: 'front-bond', setting: usualSetting('air'), heat_s: 120, zone: next()! })
        .send('heat-off', { joint: 'front-bond', seconds: 120 });
    expect(next()).toBe('lower');
    warmNext();
    expect(next()).toBe('upper');
    expect(bench.state.steps.has('heat:front-bond')).toBe(false);
    warmNext();
    expect(next()).toBe('lower');
    expect(bench.state.steps.has('heat:front-bond')).toBe(true);
  });

  it('keeps plastic picks out of hot air, and metal ones in', () => {
    const air = { ...plate, setting: usualSetting('air') };
    const wedged = (material: 'plastic' | 'metal', count = 2) =>
      atHeat().send('placeholder', { joint, material, count });
    expect(wedged('plastic').send('heat-on', air).problem).toContain('hot air softens them');
    expect(wedged('plastic').send('heat-on', plate).problem).toBeNull();
    expect(wedged('metal').send('heat-on', air).problem).toBeNull();
    expect(
      wedged('plastic').send('placeholder', { joint, material: 'plastic', count: 0 }).send('heat-on', air).problem,
    ).toBeNull();
  });
});

describe('cutting', () => {
  const cut = (bench: TestBench, ...segments: string[]) =>
    segments.reduce((each, segment) => each.send('edge', { joint, segment }), bench);
  const warm = () => atHeat().send('heat-on', plate).send('heat-off', { joint, seconds: 300 });
  // what is warm already is warmed for a shorter time, or the cell gets too hot
  const again = { ...plate, heat_s: 30 };

  it('goes edge by edge, and the last one releases the bond', () => {
    const bench = cut(warm(), 'bottom', 'left', 'top');
    expect([...bench.state.opening.cut.get(joint)!]).toEqual(['bottom', 'left', 'top']);
    expect(ids(bench)[0]).toBe('release:front-seal');
    cut(bench, 'right');
    expect(bench.state.done.at(-1)).toMatchObject({ kind: 'release', joint });
    expect(bench.state.opening.cut.has(joint)).toBe(false);
    bench.send('undo', { event: bench.state.events.at(-1)!.id });
    expect([...bench.state.opening.cut.get(joint)!]).toEqual(['bottom', 'left', 'top']);
  });

  it('refuses an edge twice, one that is none, and a cut under a source that is on', () => {
    expect(cut(warm(), 'bottom', 'bottom').problem).toContain('cut already');
    expect(cut(warm(), 'middle').problem).toContain('no edge');
    expect(cut(warm().send('heat-on', again), 'bottom').problem).toContain('still on');
    const screwed = new TestBench(tern5(), [{ replace: 'display' }]).until('release:edge-screws');
    const early = cut(screwed, 'bottom');
    if (screwed.ahead().some((op) => op.id === 'release:edge-screws')) expect(early.problem).toContain('Not yet');
  });

  it('warms again on the way without a change of plan', () => {
    const bench = cut(warm(), 'bottom').send('heat-on', again).send('heat-off', { joint, seconds: 120 });
    const { past } = lastWarmed(bench.state.opening, joint)!;
    // the clock of the test bench goes on by a second an event
    expect(past).toEqual([
      { setting: plate.setting, seconds: 300 },
      { setting: null, seconds: 2 },
    ]);
    cut(bench, ...edges.slice(1));
    expect(bench.problem).toBeNull();
    expect(bench.state.device.released.some(Boolean)).toBe(true);
  });
});
