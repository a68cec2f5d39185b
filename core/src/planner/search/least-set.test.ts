import { describe, expect, it } from 'vitest';
import { EFFORT } from '../../../test/effort.ts';
import { randomMap } from '../../../test/random-map.ts';
import {
  applied,
  assembled,
  type DeviceState,
  everyOp,
  liveJoints,
  type Mechanism,
  mechanismOf,
  OPEN,
  SEATED,
  unmetFor,
} from '../holds/index.ts';
import { checkDeviceMap } from '../map-check/index.ts';
import { goalOf } from './goal.ts';
import { housekeeping } from './housekeeping.ts';
import { type Goal, leastSets } from './least-set.ts';
import { noWork } from './work-set.ts';

/** Dijkstra over every state that can be reached: a release 1, an open 1, a part off 2. Null where it is too many. */
function leastWeight(mechanism: Mechanism, goal: Goal, live: ReadonlySet<number>): number | null {
  const start = assembled(mechanism);
  const keyOf = (state: DeviceState) => `${state.status.join('')}/${state.released.join('')}/${state.group.join()}`;
  const levels: Map<string, DeviceState>[] = [new Map([[keyOf(start), start]])];
  const seen = new Set<string>();
  const ops = everyOp(mechanism);
  for (let weight = 0; weight < levels.length; weight++) {
    for (const [key, state] of levels[weight] ?? []) {
      if (seen.has(key)) continue;
      seen.add(key);
      if (seen.size > 60_000) return null;
      if (goal(state).length === 0 && housekeeping(mechanism, state).length === 0) return weight;
      for (const op of ops) {
        if (op.kind === 'release' ? state.released[op.joint] : state.status[op.part] === 2) continue;
        if (op.kind === 'open' && state.status[op.part] !== SEATED) continue;
        if (unmetFor(mechanism, state, op, { live }).length > 0) continue;
        const next = applied(mechanism, state, op);
        const cost = op.kind === 'lift' && state.status[op.part] !== OPEN ? 2 : 1;
        (levels[weight + cost] ??= new Map()).set(keyOf(next), next);
      }
    }
  }
  return Infinity;
}

describe('leastSets', () => {
  it('is as small as the smallest found by searching every state of small random maps', () => {
    let compared = 0;
    for (let seed = 1; seed <= 400 && compared < 60 * EFFORT; seed++) {
      const map = randomMap(seed);
      if (map.parts.length > 6 || checkDeviceMap(map).errors.length > 0) continue;
      const mechanism = mechanismOf(map);
      const start = assembled(mechanism);
      const live = liveJoints(mechanism, start);
      if (live.size > 0) continue;
      for (const part of map.parts.filter((each) => !each.base)) {
        const goal = goalOf(mechanism, start, [{ remove: part.id }], { live });
        const found = leastSets(mechanism, start, goal, { live }, noWork(mechanism));
        const least = leastWeight(mechanism, goal, live);
        if (least === null) continue;
        expect(`${seed} ${part.id} ${found[0]?.weight}`).toBe(`${seed} ${part.id} ${least}`);
        compared++;
      }
    }
    expect(compared).toBeGreaterThan(40 * EFFORT);
  });

  it('finds nothing where a part can never come off', () => {
    const map = randomMap(1);
    const mechanism = mechanismOf(map);
    const start = assembled(mechanism);
    const never: Goal = () => [{ options: [] }];
    expect(leastSets(mechanism, start, never, { live: new Set() }, noWork(mechanism))).toEqual([]);
  });
});
