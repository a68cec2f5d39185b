import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { tern5 } from '../../../test/maps.ts';
import { usualSetting } from '../../physics/heat/index.ts';

// What goes with heat and solvent can be ticked like any other step, and says less than it should when it is.
const bond = 'cell-straps';
const tick = (name: string, joint = bond) => ({
  steps: [{ id: `${name}:${joint}`, kind: 'procedure' as const, name, joint }],
});
const atTheBench = () => new TestBench(tern5(), [{ replace: 'cell' }]).prepare();
const drops = (count: number) => ({ joint: bond, drops: count, away: true });

describe('a step that is only ticked', () => {
  it('is no soak where nobody said how many drops went on, whatever happened anyway', () => {
    const bench = atTheBench();
    expect(bench.send('did', tick('soak')).problem).toMatch(/how many drops/);
    expect(bench.send('did', { ...tick('soak'), anyway: 'it soaked' }).problem).toMatch(/how many drops/);
    expect(bench.send('solvent', drops(4)).problem).toBeNull();
    expect(bench.send('did', tick('soak')).problem).toBeNull();
  });

  it('is no soak of one bond where the drops went on another', () => {
    const bench = atTheBench();
    expect(bench.send('solvent', { ...drops(4), joint: 'front-seal' }).problem).toBeNull();
    expect(bench.send('did', tick('soak')).problem).toMatch(/how many drops/);
  });

  it('airs nothing while drops are in the air', () => {
    const bench = atTheBench().send('solvent', drops(6));
    expect(bench.send('did', tick('vent')).problem).toMatch(/Drops are in the air/);
    expect(bench.send('did', { ...tick('vent'), anyway: 'a window was open' }).problem).toMatch(/Drops are in the air/);
    expect(bench.send('aired', { step: 'vent' }).problem).toMatch(/Air it for/);
    expect(bench.wait(3600).send('aired', { step: 'vent' }).problem).toBeNull();
    expect(bench.send('did', tick('vent')).problem).toBeNull();
  });

  it('warms nothing while drops are in the air, as a source that is put on does not', () => {
    const bench = atTheBench().send('solvent', { ...drops(2), bench: 'west' });
    expect(bench.send('did', tick('heat', 'front-seal')).problem).toMatch(/vapour can catch fire/);
    const on = { joint: 'front-seal', setting: usualSetting('plate'), heat_s: 120, bench: 'west' };
    expect(bench.send('heat-on', on).problem).toMatch(/vapour can catch fire/);
    expect(bench.wait(3600).send('aired', { step: 'vent', bench: 'west' }).problem).toBeNull();
    expect(bench.send('did', tick('heat', 'front-seal')).problem).toBeNull();
    expect(bench.send('heat-on', on).problem).toBeNull();
  });
});
