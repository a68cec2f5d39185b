import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { tern5 } from '../../../test/maps.ts';
import { usualSetting } from '../../physics/heat/index.ts';
import { benchItems, tellAnyhow } from '../../workshop/prepare/index.ts';
import { DEFAULT_LIMITS } from '../../model/limits/index.ts';
import { DEFAULT_POLICY } from '../../model/policy/index.ts';

const map = tern5();
const targets = [{ replace: 'display' }];
const shown = (more: object = {}) => ({
  items: benchItems(map, targets, { ...DEFAULT_POLICY, ...DEFAULT_LIMITS }).map(({ id }) => id),
  skipped: [],
  told: tellAnyhow(map, targets),
  ...more,
});
const bench = () => new TestBench(map, targets);
const heat = { joint: 'front-seal', setting: usualSetting('plate'), heat_s: 120 };
const edge = { joint: 'front-seal', segment: 'bottom' };
/** What is refused at the cut and at the heat before it, once the screws are out. */
const atTheCut = (each: TestBench) => {
  each.release('edge-screws');
  return (['heat-on', 'edge'] as const).map((type) => {
    const before = each.state;
    const { problem } = each.send(type, (type === 'edge' ? edge : heat) as never);
    each.state = before;
    return problem;
  });
};
const REFUSED = [expect.stringMatching(/^charge: /), expect.stringMatching(/^charge: /)];

describe('a full cell at the cut', () => {
  it('passes by no way round the gate', () => {
    // switched off before the bench was shown
    const off = bench().send('did', { steps: [{ id: 'power-off', kind: 'procedure', name: 'power-off' }] });
    expect(off.send('prepared', shown({ charge: 1 })).problem).toMatch(/^charge: /);
    expect(off.send('prepared', shown()).problem).toMatch(/^charge: Nobody has read it/);
    // shown as low, and read as full afterwards
    const later = bench()
      .send('prepared', shown({ charge: 0.2 }))
      .send('charge', { charge: 1, source: 'meter' });
    expect(atTheCut(later)).toEqual(REFUSED);
    // the school that takes the cell out first, with the cell still in
    const school = bench()
      .send('policy', { change: { batteryWhilePrying: 'out' } })
      .send('prepared', shown());
    expect(school.problem).toBeNull();
    expect(atTheCut(school)).toEqual(REFUSED);
    // called wet
    const wet = bench().send('wet', { indicator: 'clear', text: '' });
    expect(wet.send('prepared', shown()).problem).toMatch(/^charge: /);
    // opened against the rules, so that the gate lies behind
    const torn = bench().send('did', {
      steps: [{ id: 'release:edge-screws', kind: 'release', joint: 'edge-screws' }],
      anyway: 'they were out',
    });
    expect(atTheCut(torn)).toEqual(REFUSED);
  });

  it('is let pass by a low reading, or by a decision with its reason until a reading says otherwise', () => {
    const low = bench().send('prepared', shown({ charge: 0.25 }));
    expect(atTheCut(low)).toEqual([null, null]);
    const dead = bench().send('decision', { about: 'charge', text: 'it does not switch on: it can not be run down' });
    expect(dead.send('prepared', shown()).problem).toBeNull();
    expect(atTheCut(dead)).toEqual([null, null]);
    dead.send('charge', { charge: 0.8, source: 'meter' });
    expect(atTheCut(dead)).toEqual(REFUSED);
    dead.send('decision', { about: 'charge', text: 'the lead has seen it' });
    expect(atTheCut(dead)).toEqual([null, null]);
    // the bench says the last reading again: that is none of its own
    const decided = bench().send('charge', { charge: 0.7, source: 'typed' });
    decided.send('decision', { about: 'charge', text: 'no load at hand' }).send('prepared', shown({ charge: 0.7 }));
    expect(atTheCut(decided)).toEqual([null, null]);
  });

  it('is not asked of a cut away from the cell, nor once the cell is out', () => {
    const out = new TestBench(map, [{ replace: 'cell' }]).until('lift:cell');
    const { cell } = { cell: out.ahead()[0]! };
    out.do(cell).send('charge', { charge: 1, source: 'typed' });
    const ahead = out.ahead().find(({ id }) => id === 'heat:front-seal');
    expect(ahead).toBeUndefined();
    // the display lies on the mat by then: its own small bonds are cut whatever the cell holds
    const mat = bench().until('fit:display');
    mat.send('charge', { charge: 1, source: 'typed' });
    expect(mat.state.done.some(({ part }) => part === 'display')).toBe(true);
    expect(mat.problem).toBeNull();
  });

  it('is planned for, also half way, and for a wet device decided and not waited for', () => {
    const half = bench()
      .send('prepared', shown({ charge: 0.2 }))
      .release('edge-screws');
    half.send('charge', { charge: 0.9, source: 'typed' });
    expect(half.ahead()[0]!.id).toBe('run-down');
    const wet = bench().send('wet', { indicator: 'tripped', text: '' });
    expect(wet.aheadWhole().charge).toMatchObject({
      way: 'run-down',
      seconds: null,
      why: expect.stringContaining('wet'),
    });
    expect(wet.ahead().map(({ id }) => id)).not.toContain('run-down');
    wet.send('decision', { about: 'charge', text: 'it stays off' });
    expect(wet.aheadWhole().charge).toBeNull();
  });
});
