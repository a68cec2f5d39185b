import { describe, expect, it } from 'vitest';
import { TestBench } from '../../test/bench.ts';
import { bondOf, changed, shearwater11, tern5 } from '../../test/maps.ts';
import { usualSetting } from '../heat/index.ts';
import { foldJob } from './fold.ts';
import { lastWarmed } from './opening-state.ts';
import { softensAt } from './trouble.ts';
import { TROUBLE_KINDS } from './events.ts';
import { zonesOf, zoneToWarm } from './zones.ts';

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
    expect(zonesOf(bond)).toEqual(['lower', 'upper']);
    const warm = (zone: string) =>
      bench
        .send('heat-on', { joint: 'front-bond', setting: usualSetting('air'), heat_s: 120, zone })
        .send('heat-off', { joint: 'front-bond', seconds: 120 });
    const next = () => zoneToWarm(map, bench.state.opening, bond);
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
    const next = () => zoneToWarm(map, bench.state.opening, bondOf(map, 'front-bond'));
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
    expect(cut(warm().send('heat-on', plate), 'bottom').problem).toContain('still on');
    const screwed = new TestBench(tern5(), [{ replace: 'display' }]).until('release:edge-screws');
    const early = cut(screwed, 'bottom');
    if (screwed.ahead().some((op) => op.id === 'release:edge-screws')) expect(early.problem).toContain('Not yet');
  });

  it('warms again on the way without a change of plan', () => {
    const bench = cut(warm(), 'bottom').send('heat-on', plate).send('heat-off', { joint, seconds: 120 });
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

describe('solvent and heat', () => {
  const drops = { joint: 'cell-straps', drops: 6, away: true };
  it('never meet: no solvent at a source that is on or a bond that is warm, no heat before the bench is aired', () => {
    const bench = atHeat().send('heat-on', plate).wait(300);
    expect(bench.send('solvent', drops).problem).toContain('source is on');
    bench.send('heat-off', { joint, seconds: 300 });
    // what a client says of the bond only raises what was computed, and to leave it out changes nothing
    expect(bench.send('solvent', drops).problem).toContain('below 40 °C');
    expect(bench.send('solvent', { ...drops, bond_C: 25 }).problem).toContain('below 40 °C');
    bench.wait(1800);
    expect(bench.send('solvent', { ...drops, bond_C: 55 }).problem).toContain('below 40 °C');
    expect(bench.send('solvent', { ...drops, away: false }).problem).toContain('away from the heat source');
    expect(bench.send('solvent', { ...drops, bond_C: 35 }).problem).toBeNull();
    expect(bench.send('heat-on', plate).problem).toContain('Air the bench');
    bench.send('trouble', { kind: 'will-not-lift', text: '', joint });
    expect(ids(bench).slice(0, 2)).toEqual(['vent:front-seal', 'heat:front-seal']);
    const { wait_s } = bench.ahead()[0]!;
    // it is the time that has gone by since the last drops, not what is said
    const aired = { step: 'vent:front-seal', seconds: wait_s! };
    expect(bench.send('aired', aired).problem).toContain('Vapour can catch fire');
    expect(bench.wait(wait_s!).send('solvent', drops).problem).toBeNull();
    expect(bench.send('aired', aired).problem).toContain('Vapour can catch fire');
    expect(bench.send('heat-on', plate).problem).toContain('Air the bench');
    expect(bench.wait(wait_s! * 3).send('aired', { step: 'vent:front-seal' }).problem).toBeNull();
    expect(ids(bench)[0]).toBe('heat:front-seal');
    expect(bench.send('heat-on', plate).problem).toBeNull();
  });

  it('count for a bench over all the repairs there', () => {
    const bench = atHeat();
    const at = new Date(Date.UTC(2026, 10, 24, 8, 0, 0)).toISOString();
    bench.others = { sourceOn: null, drops: [{ at, drops: 8 }], airedAt: null };
    expect(bench.send('heat-on', plate).problem).toContain('8 drops');
    bench.wait(3600);
    expect(bench.send('heat-on', plate).problem).toContain('say so');
    expect(bench.send('aired', { step: 'vent:bench' }).problem).toBeNull();
    expect(bench.send('heat-on', plate).problem).toBeNull();
    const other = atHeat().wait(7200);
    other.others = { sourceOn: 'Galley 7', drops: [], airedAt: null };
    expect(other.send('solvent', drops).problem).toContain('source is on');
    // two sources at one bench are no hazard to each other
    expect(other.send('heat-on', plate).problem).toBeNull();
  });

  it('are not undone, and nothing before them is in their place', () => {
    const bench = atHeat().send('heat-on', plate);
    const undo = () => bench.send('undo', { event: bench.state.standing.findLast(({ type }) => type === 'did')!.id });
    expect(undo().problem).toContain('Heat and solvent are not undone');
    expect(bench.send('undo', { event: bench.state.standing.at(-1)!.id }).problem).toContain('not undone');
    bench.send('heat-off', { joint, seconds: 1 });
    expect(undo().problem).toContain('not undone');
  });
});

describe('a lying client', () => {
  it('can not set a source beyond what it is, nor leave it on for ever', () => {
    const on = (kind: 'plate' | 'air' | 'pack', temp_C: number, heat_s = 300) =>
      atHeat().send('heat-on', { joint, setting: { ...usualSetting(kind), temp_C }, heat_s }).problem;
    for (const [kind, least, most] of [
      ['plate', 30, 120],
      ['pack', 30, 110],
      ['air', 30, 450],
    ] as const) {
      expect(on(kind, least - 1)).toContain('setting.temp_C');
      expect(on(kind, most + 1)).toContain('setting.temp_C');
      expect([on(kind, least), on(kind, most)]).toEqual([null, null]);
    }
    expect(on('plate', 70, 3601)).toContain('heat_s');
    expect(on('plate', 70, 0.5)).toContain('heat_s');
  });

  it('can not release a bond, or one that is warmed with it, while its source is on', () => {
    const bench = atHeat().send('heat-on', plate);
    expect(bench.send('edge', { joint, segment: 'bottom' }).problem).toContain('still on');
    expect(bench.release(joint).problem).toContain('still on');
    bench.send('did', { steps: [{ id: 'x', kind: 'release', joint }], anyway: 'it fell off' });
    expect(bench.problem).toContain('still on');
  });

  it('can not cool a bond by saying so: it is computed, hotter where it was read hotter', () => {
    const warm = (read: number | null, off: object = {}) => {
      const bench = atHeat().send('heat-on', plate).wait(300);
      if (read !== null) bench.send('heat-reading', { joint, readings: [{ at_s: 290, temp_C: read, spot: 'bond' }] });
      bench.send('heat-off', { joint, seconds: 300, ...off });
      const coolAfter = () => {
        for (let minutes = 1; minutes < 60; minutes++) {
          if (bench.wait(59).send('solvent', { joint: 'cell-straps', drops: 1, away: true }).problem === null)
            return minutes;
        }
        return 60;
      };
      return coolAfter();
    };
    const computed = warm(null);
    expect(computed).toBeGreaterThan(2);
    expect(warm(null, { bond_C: 20 })).toBe(computed);
    expect(warm(75)).toBeGreaterThan(computed);
    // said to have been on for a second, with a plate that gives nothing
    const setting = { ...plate.setting, transfer: { low: 0.001, likely: 0.001, high: 0.001 } };
    const liar = atHeat()
      .send('heat-on', { ...plate, setting })
      .wait(300)
      .send('heat-off', { joint, seconds: 1 });
    expect(liar.send('solvent', { joint: 'cell-straps', drops: 1, away: true }).problem).toContain('below 40 °C');
  });

  it('stops the work with a reading of a watched place over its limit', () => {
    const read = (spot: string, temp_C: number) =>
      atHeat()
        .send('heat-on', { ...plate, setting: usualSetting('plate', 100) })
        .send('heat-reading', { joint, readings: [{ at_s: 60, temp_C, spot }] });
    expect(read('cell', 60).state.stopped).toBeNull();
    expect(read('cell', 61).state.stopped).toMatchObject({
      reason: 'heat',
      text: expect.stringContaining('60 °C is the most'),
    });
    // a cell that heats itself is believed
    expect(read('cell', 300).state.stopped).toMatchObject({ reason: 'heat' });
    expect(read('display', 81).state.stopped).toMatchObject({ reason: 'heat' });
    expect(read('far', 61).state.stopped).toMatchObject({ reason: 'heat' });
    expect(read('bond', 90).state.stopped).toBeNull();
    expect(read('nothing', 50).problem).toContain('no part');
    const stopped = read('cell', 61);
    expect(stopped.send('edge', { joint, segment: 'bottom' }).problem).toContain('Stopped');
    expect(stopped.send('heat-off', { joint, seconds: 61 }).problem).toBeNull();
  });
});

describe('when it goes wrong', () => {
  const trouble = (kind: (typeof TROUBLE_KINDS)[number], more: object = {}) =>
    atHeat()
      .send('heat-on', plate)
      .send('heat-off', { joint, seconds: 300 })
      .send('trouble', { kind, text: '', joint, ...more });
  const seal = tern5().joints.find((each) => each.id === joint) as Parameters<typeof softensAt>[1];

  it('a bond that will not lift is heated again and thought to soften hotter', () => {
    const bench = trouble('will-not-lift', { bond_C: 61 });
    expect(ids(bench).slice(0, 2)).toEqual(['heat:front-seal', 'release:front-seal']);
    expect(softensAt(bench.state, seal)).toBe(64);
    expect(bench.state.corrections).toEqual([
      {
        path: expect.stringMatching(/^joints\[\d+\]\.soften_C$/),
        from: 55,
        to: 64,
        text: expect.stringContaining('64 °C'),
      },
    ]);
    bench.send('trouble', { kind: 'will-not-lift', text: '', joint, bond_C: 50 });
    // it was colder than where it is thought to soften: nothing new is learned
    expect(softensAt(bench.state, seal)).toBe(64);
    expect(softensAt(trouble('will-not-lift').state, seal)).toBe(60);
  });

  it('adhesive that grabbed again is heated again, and teaches nothing', () => {
    const bench = trouble('grabbed-again');
    expect(ids(bench)[0]).toBe('heat:front-seal');
    expect(softensAt(bench.state, seal)).toBe(55);
  });

  it('a cup that slips and a cracked face get tape', () => {
    expect(ids(trouble('cup-slips'))[0]).toBe('tape:display');
    const cracked = new TestBench(tern5(), [{ replace: 'cell' }])
      .until('heat:front-seal')
      .send('trouble', { kind: 'part-cracked', text: '', part: 'display' });
    expect(ids(cracked)).toContain('tape:display');
    expect(cracked.state.targets).toContainEqual({ replace: 'display' });
  });

  it('a cut too deep over a cell stops the work; elsewhere what lies there is looked at', () => {
    const bench = trouble('cut-too-deep', { segment: 'top' });
    expect(bench.state.stopped).toBeNull();
    const look = bench.ahead()[0]!;
    expect(look).toMatchObject({ id: 'look:front-seal', name: 'look' });
    // at that edge, not at every one
    expect(look.why).toContain('Earpiece');
    expect(look.why).not.toContain('Port module');
    const over = trouble('cut-too-deep', { segment: 'left' });
    expect(over.state.stopped).toMatchObject({ reason: 'puncture' });
    expect(over.send('edge', { joint, segment: 'left' }).problem).toContain('Stopped');
  });

  it('a broken clip is looked at when it is made again', () => {
    const map = changed(shearwater11(), () => {});
    const bench = new TestBench(map, [{ replace: 'display' }]).until('release:front-hooks');
    bench.send('trouble', { kind: 'clip-broken', text: '', joint: 'front-hooks' });
    const plan = ids(bench);
    expect(plan.indexOf('look:front-hooks')).toBe(plan.indexOf('make:front-hooks') - 1);
    expect(plan.indexOf('look:front-hooks')).toBeGreaterThan(0);
  });
});
