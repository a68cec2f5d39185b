import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { EFFORT } from '../../../test/effort.ts';
import { random, randomMap } from '../../../test/random-map.ts';
import { checkDeviceMap } from '../map-check/index.ts';
import { planRepair } from './plan.ts';
import { type Target } from '../search/index.ts';
import type { Policy } from '../../model/policy/index.ts';
import { playBack } from '../../../test/played-plans.ts';
const hasty = { now: () => performance.now(), limitMs: 250 };

describe('every plan of random maps', () => {
  it('is found where a part leaves with what it is soldered to (a case that failed once)', () => {
    const map = randomMap(28_611);
    expect(playBack(map, planRepair({ map, targets: [{ full: true }] }, hasty))).toEqual([]);
  });

  it('is replayed without a violation by a simulator written apart', () => {
    let played = 0;
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1_000_000 }), (seed) => {
        const map = randomMap(seed);
        if (checkDeviceMap(map).errors.length > 0) return;
        const next = random(seed);
        const part = map.parts[1 + Math.floor(next() * (map.parts.length - 1))]!.id;
        const joint = map.joints[Math.floor(next() * map.joints.length)]!.id;
        const targets: Target[][] = [
          [{ replace: part }],
          [{ remove: part }, { reach: joint }],
          [{ full: true }],
          [{ replace: 'p0' }],
        ];
        const policy: Partial<Policy> = {
          display: next() < 0.5 ? 'on-flexes' : 'taken-off',
          batteryWhilePrying: next() < 0.5 ? 'in' : 'out',
        };
        for (const each of targets) {
          const made = planRepair({ map, targets: each, policy }, hasty);
          expect({ seed, each, wrong: playBack(map, made) }).toEqual({ seed, each, wrong: [] });
          expect(made.lowerBoundSeconds).toBeLessThanOrEqual(made.seconds.strip + made.seconds.rebuild);
          played++;
        }
      }),
      // a fixed seed: what passes here passes everywhere
      { numRuns: 60 * EFFORT, seed: 20_261_124 },
    );
    expect(played).toBeGreaterThan(100 * EFFORT);
  });

  it('and so is every plan of maps with hinges, gaskets and thermal material', () => {
    let played = 0;
    for (let seed = 1; seed <= 60 * EFFORT; seed++) {
      const map = randomMap(seed, true);
      if (checkDeviceMap(map).errors.length > 0) continue;
      const hinged = new Set(map.joints.flatMap((each) => (each.type === 'hinge' ? [...each.holds, each.to] : [])));
      const part = map.parts.find((each) => !each.base && !hinged.has(each.id))?.id;
      const targets: Target[][] = [[{ full: true }], [{ replace: 'p0' }], ...(part ? [[{ replace: part }]] : [])];
      for (const each of targets) {
        expect({ seed, each, wrong: playBack(map, planRepair({ map, targets: each }, hasty)) }).toEqual({
          seed,
          each,
          wrong: [],
        });
        played++;
      }
    }
    expect(played).toBeGreaterThan(100 * EFFORT);
  });
});
