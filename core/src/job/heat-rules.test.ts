import { describe, expect, it } from 'vitest';
import { TestBench } from '../../test/bench.ts';
import { tern5 } from '../../test/maps.ts';
import { usualSetting } from '../heat/index.ts';

const joint = 'front-seal';
const plate = { joint, setting: usualSetting('plate'), heat_s: 300 };
const atHeat = () => new TestBench(tern5(), [{ replace: 'display' }]).until('heat:front-seal');
const ids = (bench: TestBench) => bench.ahead().map((op) => op.id);
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
