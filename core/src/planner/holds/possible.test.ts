import { describe, expect, it } from 'vitest';
import { EFFORT } from '../../../test/effort.ts';
import { sample, tern5 } from '../../../test/maps.ts';
import { randomMap } from '../../../test/random-map.ts';
import { Simulator } from '../../../test/simulator.ts';
import { checkDeviceMap } from '../map-check/index.ts';
import { applied } from './operation.ts';
import { assembled } from './device-state.ts';
import { mechanismOf } from './mechanism.ts';
import { type NamedOp, numberedOp, possibleNow } from './possible.ts';
import { after, release, open, lift, names, blockedBy } from '../../../test/small-device.ts';

describe('the small example', () => {
  it('starts with the edge screws, and says what holds the rest', () => {
    const found = after(sample(), []);
    expect(names(found.possible)).toEqual(['release edge-screws']);
    expect(blockedBy(found, 'release seal')).toEqual([{ joint: 'edge-screws', need: 'released' }]);
    expect(blockedBy(found, 'release screen-plug')).toEqual([
      { part: 'lid', need: 'off' },
      { joint: 'cell-plug', need: 'isolated' },
    ]);
    expect(blockedBy(found, 'lift lid')).toEqual([
      { joint: 'lid-screws', need: 'released' },
      { part: 'screen', need: 'open' },
    ]);
  });

  it('never lists a condition that is met, and lists every part and joint once', () => {
    const found = after(sample(), [
      release('edge-screws'),
      release('seal'),
      open('screen'),
      release('lid-screws'),
      lift('lid'),
    ]);
    expect(blockedBy(found, 'release screen-plug')).toEqual([{ joint: 'cell-plug', need: 'isolated' }]);
    expect(blockedBy(found, 'lift screen')).toEqual([{ joint: 'screen-plug', need: 'released' }]);
    expect(names(found.possible)).toEqual(expect.arrayContaining(['release cell-plug', 'close screen', 'fit lid']));
    expect(found.illegal).toEqual([]);
  });

  it('goes on from a state that was reached against the rules', () => {
    const found = after(sample(), [lift('lid')]);
    expect(found.illegal.map(({ index }) => index)).toEqual([0]);
    expect(names(found.possible)).toContain('release cell-plug');
  });
});

describe('against a simulator written apart', () => {
  it('agrees on what is possible, in every state of a walk over random maps', () => {
    let compared = 0;
    for (let seed = 1; seed <= 60 * EFFORT; seed++) {
      const map = randomMap(seed);
      if (checkDeviceMap(map).errors.length > 0) continue;
      const mechanism = mechanismOf(map);
      const simulator = new Simulator(map);
      let state = assembled(mechanism);
      for (let turn = 0; turn < 60; turn++) {
        const { possible, blocked } = possibleNow(mechanism, state);
        const strip = (ops: readonly NamedOp[]) => ops.filter((op) => ['release', 'open', 'lift'].includes(op.kind));
        for (const op of strip(possible)) expect(`${seed}: ${simulator.objection(op)}`).toBe(`${seed}: null`);
        for (const op of strip(blocked))
          if (op.part !== 'p0') expect(simulator.objection(op), `${seed} ${names([op])[0]}`).not.toBeNull();
        compared += possible.length + blocked.length;
        const next = strip(possible)[(seed * 7 + turn * 13) % Math.max(1, strip(possible).length)];
        if (!next) break;
        simulator.apply(next);
        state = applied(mechanism, state, numberedOp(mechanism, next));
      }
    }
    expect(compared).toBeGreaterThan(10_000 * EFFORT);
  });

  it('knows every part and joint of a real map in every list', () => {
    const map = tern5();
    const found = after(map, []);
    const listed = new Set([...found.possible, ...found.blocked].map((op) => op.joint ?? op.part));
    for (const part of map.parts) expect(listed).toContain(part.id);
  });
});
