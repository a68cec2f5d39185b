import { describe, expect, it } from 'vitest';
import { type CheckedOp, orderFaults } from '../../../test/careful-checker.ts';
import { EFFORT, IS_LONG, sampled } from '../../../test/effort.ts';
import { demoMaps, petrelGlass, tern5 } from '../../../test/maps.ts';
import { ids, plan } from '../../../test/played-plans.ts';
import { random, randomMap } from '../../../test/random-map.ts';
import type { DeviceMap } from '../../model/device-map/index.ts';
import { checkDeviceMap } from '../map-check/index.ts';
import type { Policy } from '../../model/policy/index.ts';
import type { Plan } from './plan.ts';

const POLICIES: Partial<Policy>[] = [
  {},
  { display: 'taken-off' },
  { display: 'on-flexes' },
  { sealLaid: 'after-test' },
  { closing: 'liquid' },
];

/** Parts that can be replaced by themselves; what is hinged to the base can not. */
function singles(map: DeviceMap): string[] {
  const hinged = new Set(map.joints.flatMap((each) => (each.type === 'hinge' ? [...each.holds, each.to] : [])));
  return map.parts.flatMap(({ id, base }) => (base || hinged.has(id) ? [] : [id]));
}

describe('the order of a careful technician', () => {
  it('is kept by the plan of every single part of every demo device, whatever the policy', () => {
    for (const [device, map] of demoMaps().entries()) {
      const parts = singles(map);
      const tried = sampled(parts);
      for (const [at, part] of tried.entries()) {
        // in turn, so that every device meets every policy; all of them with `npm run test:long`
        const policies = IS_LONG ? POLICIES : [POLICIES[(device + at) % POLICIES.length]!];
        for (const policy of policies) {
          const faults = orderFaults(map, plan(map, [{ replace: part }], policy), policy);
          expect({ map: map.id, part, policy, faults }).toEqual({ map: map.id, part, policy, faults: [] });
        }
      }
    }
  }, 600_000);

  it('is kept by orders of fewest changes, save that parts are not finished one by one', () => {
    const policy = { order: 'fewest-changes' } as const;
    for (const map of demoMaps()) {
      for (const part of singles(map).filter((_, at) => at % (IS_LONG ? 1 : Math.round(3 / EFFORT)) === 0)) {
        const faults = orderFaults(map, plan(map, [{ replace: part }], policy), {});
        const others = faults.filter((each) => !each.startsWith('part-by-part:'));
        expect({ map: map.id, part, others }).toEqual({ map: map.id, part, others: [] });
      }
    }
  }, 180_000);

  it('is kept by plans for single parts of random maps', () => {
    let kept = 0;
    for (let seed = 1; seed <= 200 * EFFORT; seed++) {
      const map = randomMap(seed);
      if (checkDeviceMap(map).errors.length > 0) continue;
      const next = random(seed);
      const parts = singles(map);
      const policy = POLICIES[seed % POLICIES.length]!;
      const part = parts[Math.floor(next() * parts.length)]!;
      const faults = orderFaults(map, plan(map, [{ replace: part }], policy), policy);
      expect({ seed, part, policy, faults }).toEqual({ seed, part, policy, faults: [] });
      kept++;
    }
    expect(kept).toBeGreaterThan(50 * EFFORT);
  });

  it('does not depend on the order of parts and joints in a map', () => {
    for (const map of demoMaps()) {
      const turned = {
        ...map,
        parts: map.parts.toReversed(),
        joints: map.joints.toReversed(),
        fasteners: map.fasteners.toReversed(),
      };
      const [part] = singles(map).slice(-1);
      expect(plan(turned, [{ replace: part! }])).toEqual(plan(map, [{ replace: part! }]));
    }
  });

  it('is the same plan at every step of it', () => {
    const map = petrelGlass();
    const made = plan(map, [{ replace: 'port-board' }]);
    const steps = [...made.strip, ...made.rebuild].filter((op) => op.kind !== 'procedure');
    steps.forEach((step, at) => {
      const done = steps.slice(0, at).map(({ kind, joint, part, onto, staysOpen, isNew }) => ({
        kind: kind as 'lift',
        joint,
        part,
        onto,
        staysOpen,
        new: isNew,
      }));
      const now = plan(map, [{ replace: 'port-board' }], { display: made.display }, done);
      const next = [...now.strip, ...now.rebuild].find((op) => op.kind !== 'procedure');
      expect(next?.id).toBe(step.id);
    });
  });
});

describe('the check of the order', () => {
  const map = tern5();
  const made = plan(map, [{ replace: 'cell' }]);
  const moved = (ops: readonly CheckedOp[], what: string, before: string): CheckedOp[] => {
    const op = ops.find(({ id }) => id === what)!;
    const rest = ops.filter((each) => each !== op);
    const at = rest.findIndex(({ id }) => id === before);
    expect(at, before).toBeGreaterThan(-1);
    return rest.toSpliced(at, 0, op);
  };
  const faultsOf = (change: Partial<Pick<Plan, 'strip' | 'rebuild'>>) =>
    new Set(orderFaults(map, { ...made, ...change } as Plan).map((each) => each.split(':')[0]));

  it.each([
    ['removed-first', 'strip', 'lift:tray', 'open:display'],
    ['dead-first', 'strip', 'release:speaker-screws', 'release:cell-plug'],
    ['test', 'rebuild', 'close:display', 'test:before'],
    ['seal', 'rebuild', 'lay:front-seal', 'test:before'],
    ['seal', 'rebuild', 'liner-off:front-seal', 'test:before'],
    ['count', 'rebuild', 'count:cell', 'test:before'],
    ['film', 'rebuild', 'film-off:display', 'test:after'],
  ] as const)('finds a planted fault of %s', (rule, side, what, before) => {
    const ops = made[side];
    if (!ops.some(({ id }) => id === what)) {
      const extra = { id: what, kind: 'release', joint: what.slice(8) };
      const at = ops.findIndex(({ id }) => id === before);
      expect(faultsOf({ [side]: ops.toSpliced(at, 0, extra as never) })).toContain(rule);
      return;
    }
    expect(faultsOf({})).not.toContain(rule);
    expect(faultsOf({ [side]: moved(ops, what, before) as never })).toContain(rule);
  });

  it('finds work beneath a standing display, a second part begun, and a display put in too soon', () => {
    const wide = plan(map, [{ remove: 'loudspeaker' }, { remove: 'vibrator' }], { display: 'taken-off' });
    expect(orderFaults(map, wide, { display: 'taken-off' })).toEqual([]);
    const faults = (change: object) =>
      orderFaults(map, { ...wide, ...change }, { display: 'taken-off' }).map((each) => each.split(':')[0]);
    const lifts = ids(wide.strip).filter((id) => /^lift:(loudspeaker|vibrator)$/.test(id));
    const later = wide.strip[ids(wide.strip).indexOf(lifts[1]!) - 1]!.id;
    expect(
      faults({ strip: moved(wide.strip, later, wide.strip[ids(wide.strip).indexOf(lifts[0]!) - 1]!.id) }),
    ).toContain('part-by-part');
    expect(faults({ strip: moved(wide.strip, later, 'lift:display') })).toContain('display-off');
    const fitted = wide.rebuild.find((op) => op.kind === 'fit')!.id;
    expect(faults({ rebuild: moved(wide.rebuild, 'fit:display', fitted) })).toContain('display-last');
    expect(faults({ rebuild: moved(wide.rebuild, fitted, 'power-on') })).toContain('dead-long');
  });
});
