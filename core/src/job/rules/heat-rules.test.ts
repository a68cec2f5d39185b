import { stopText } from './stops.ts';
import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { bondOf, tern5 } from '../../../test/maps.ts';
import { cellHeatedBy, longestForCells_s, usualSetting } from '../../physics/heat/index.ts';

const joint = 'front-seal';
const plate = { joint, setting: usualSetting('plate'), heat_s: 300 };
const atHeat = () => new TestBench(tern5(), [{ replace: 'display' }]).until('heat:front-seal');
const ids = (bench: TestBench) => bench.ahead().map((op) => op.id);
const drops = { joint: 'cell-straps', drops: 6, away: true };

describe('solvent and heat', () => {
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
    expect(bench.send('aired', aired).problem).toContain('vapour can catch fire');
    expect(bench.wait(wait_s!).send('solvent', drops).problem).toBeNull();
    expect(bench.send('aired', aired).problem).toContain('vapour can catch fire');
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
    const undo = () => bench.send('undo', { event: bench.state.inForce.findLast(({ type }) => type === 'did')!.id });
    expect(undo().problem).toContain('Heat and solvent are not undone');
    expect(bench.send('undo', { event: bench.state.inForce.at(-1)!.id }).problem).toContain('not undone');
    bench.send('heat-off', { joint, seconds: 1 });
    expect(undo().problem).toContain('not undone');
  });
});

describe('a lying client', () => {
  it('can not set a source beyond what it is, nor leave it on for ever', () => {
    const on = (kind: 'plate' | 'air' | 'pack', temp_C: number, heat_s = 300) =>
      atHeat().send('heat-on', { joint, setting: { ...usualSetting(kind), temp_C }, heat_s }, 'Maren').problem;
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
        .send('heat-on', { ...plate, setting: usualSetting('plate', 100) }, 'Maren')
        .send('heat-reading', { joint, readings: [{ at_s: 60, temp_C, spot }] });
    expect(read('cell', 60).state.stopped).toBeNull();
    expect(read('cell', 61).state.stopped).toMatchObject({
      reason: 'heat',
      read: { temp_C: 61, max_C: 60 },
    });
    const stop = read('cell', 61).state.stopped!;
    expect(stopText(stop, 'C')).toContain('read at 61 °C, and 60 °C is the most');
    expect(stopText(stop, 'F')).toContain('read at 141.8 °F, and 140 °F is the most');
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

  it('can not move a device, or write a bench otherwise, to be rid of its solvent or its heat', () => {
    const wet = atHeat().send('solvent', { ...drops, bench: 'Bench A' });
    for (const bench of ['bench a', '  BENCH\u00a0A', 'by the door', undefined]) {
      const { problem } = wet.send('heat-on', { ...plate, ...(bench === undefined ? {} : { bench }) });
      expect([bench, problem]).toEqual([bench, expect.stringContaining('6 drops')]);
    }
    // aired where it lies now: it is dry, and the other bench is not
    expect(wet.wait(1200).send('aired', { step: 'vent:bench', bench: 'by the door' }).problem).toBeNull();
    expect(wet.send('heat-on', { ...plate, bench: 'by the door' }).problem).toBeNull();
    expect([...wet.state.opening.solvent.keys()]).toEqual(['Bench A']);
    const hot = atHeat().send('heat-on', { ...plate, bench: 'Bench A' });
    expect(hot.send('solvent', { ...drops, bench: 'by the door' }).problem).toContain('source is on');
    expect(hot.send('heat-on', { ...plate, bench: 'Bench\u200bA' }).problem).toContain('is being heated');
  });

  it('can not cool a bond by a milder setting than was set', () => {
    const coolAfter = (setting: object) => {
      const bench = atHeat().send('heat-on', plate).wait(300);
      bench.send('heat-off', { joint, seconds: 300, setting: { ...plate.setting, ...setting } });
      expect(bench.problem).toBeNull();
      for (let minutes = 1; minutes < 60; minutes++) {
        if (bench.wait(59).send('solvent', { ...drops, drops: 1 }).problem === null) return minutes;
      }
      return 60;
    };
    const asSet = coolAfter({});
    expect(coolAfter({ temp_C: 30 })).toBe(asSet);
    expect(coolAfter({ kind: 'pack', temp_C: 30, capacity_J_m2K: 1 })).toBe(asSet);
    expect(coolAfter({ transfer: { low: 0.01, likely: 0.01, high: 0.01 } })).toBe(asSet);
    expect(coolAfter({ temp_C: 110, transfer: { low: 900, likely: 900, high: 2000 } })).toBeGreaterThan(asSet);
  });

  it('has no instrument that only stands in for one, and no faster clock, outside of a demonstration', () => {
    const bench = atHeat();
    bench.hasStandIns = false;
    expect(bench.send('heat-on', { ...plate, simulated: true, pace: 60 }).problem).toMatch(/^pace: /);
    expect(bench.send('heat-on', { ...plate, simulated: true }).problem).toMatch(/^simulated: /);
    expect(bench.send('charge', { charge: 0.1, source: 'meter', simulated: true }).problem).toMatch(/^simulated: /);
    expect(bench.send('heat-on', plate).problem).toBeNull();
  });
});

describe('heat', () => {
  it('is for bonds that the map lets be heated, once they lie bare', () => {
    const bench = atHeat();
    const on = (id: string) => bench.send('heat-on', { ...plate, joint: id }).problem;
    expect(on('cell-straps')).toContain('does not let');
    expect(on('nothing')).toContain('no bond');
    expect(on('earpiece-glue')).toContain('does not lie bare. First: Display open');
    expect(on('front-seal')).toBeNull();
    // where the school warms the bond of a cell, it may be
    const school = new TestBench(tern5(), [{ replace: 'cell' }]).send('policy', {
      change: { batteryBond: 'solvent-and-heat' },
    });
    school.until('heat:cell-straps');
    expect(
      school.send('heat-on', { ...plate, joint: 'cell-straps', setting: usualSetting('pack', 50) }).problem,
    ).toBeNull();
  });

  it('that would bring a cell past its limit is for a lead to allow, whatever the transfer is that was sent', () => {
    const hot = { ...plate, setting: usualSetting('air', 300), heat_s: 600 };
    const bench = atHeat();
    expect([bench.send('heat-on', hot).problem, bench.needs]).toEqual([
      expect.stringMatching(/would come to \d+ °C, and 60 °C is its limit/),
      'lead',
    ]);
    const mild = { ...hot, setting: { ...hot.setting, transfer: { low: 0.1, likely: 0.1, high: 0.1 } } };
    expect(bench.send('heat-on', mild).problem).toContain('is its limit');
    bench.isConfirmed = false;
    expect([bench.send('heat-on', hot, 'Maren').problem !== null, bench.needs]).toEqual([true, 'secret']);
    bench.isConfirmed = true;
    expect(bench.send('heat-on', hot, 'Maren').problem).toBeNull();
  });

  it('is put on by the bench for no longer than the cell beside it bears', () => {
    const map = tern5();
    const bond = bondOf(map, joint);
    const warming = { setting: usualSetting('plate', 95), heat_s: 900, past: [] };
    const longest_s = longestForCells_s(map, bond, warming);
    expect(longest_s).toBeGreaterThan(10);
    expect(longest_s).toBeLessThan(900);
    expect(cellHeatedBy(map, bond, { ...warming, heat_s: longest_s })).toBeNull();
    expect(cellHeatedBy(map, bond, { ...warming, heat_s: longest_s + 20 })).toMatchObject({ max_C: 60 });
    expect(atHeat().send('heat-on', { joint, setting: warming.setting, heat_s: longest_s }).problem).toBeNull();
  });
});
