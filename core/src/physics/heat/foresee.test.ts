import { WARM_SOURCES } from '../../model/sources/index.ts';
import { describe, expect, it } from 'vitest';
import { bondOf, changed, petrelGlass, shearwater11, tern5 } from '../../../test/maps.ts';
import type { BondJoint, DeviceMap } from '../../model/device-map/index.ts';
import { checkDeviceMap } from '../../planner/map-check/index.ts';
import { planRepair } from '../../planner/plan/index.ts';
import {
  foresee,
  foreseeBond,
  heatClock,
  MATERIALS,
  measuredSource,
  nearestLimit,
  RECIPES,
  settingFor,
  settingOfRecipe,
  stackOfBond,
  untilBelow_s,
  usualSetting,
  type Warming,
  warmingTime_s,
} from './index.ts';

const front = (change: Partial<Warming> = {}): Warming => ({
  stack: stackOfBond(tern5(), bondOf(tern5(), 'front-seal')),
  soften_C: 55,
  setting: usualSetting('plate'),
  heat_s: 300,
  ...change,
});

describe('a warming foreseen', () => {
  it('is ready by its slow end and reaches limits by its fast one', () => {
    const found = foresee(front());
    expect(found.advice).toBe('ready');
    expect(found.ready.early!).toBeLessThan(found.ready.likely!);
    expect(found.ready.likely!).toBeLessThan(found.ready.late!);
    for (const { low, likely, high } of found.bands) {
      // while the source is on, more transfer is more heat everywhere
      found.times_s.forEach((time, index) => {
        if (time > 300) return;
        expect(low[index]!).toBeLessThanOrEqual(likely[index]! + 0.05);
        expect(likely[index]!).toBeLessThanOrEqual(high[index]! + 0.05);
        // nothing is ever hotter than its source (docs/check-values.md)
        expect(high[index]!).toBeLessThanOrEqual(70 + 1e-6);
      });
    }
  });

  it('gives as working time what the end that cools first gives', () => {
    const { working_s } = foresee(front());
    const alone = (['low', 'likely', 'high'] as const).map((end) => {
      const value = usualSetting('plate').transfer[end];
      return foresee(
        front({ setting: { ...usualSetting('plate'), transfer: { low: value, likely: value, high: value } } }),
      ).working_s!;
    });
    expect(working_s).toBeCloseTo(Math.min(...alone), 6);
  });

  it('lets a cut go on to 5 °C below where the bond is soft: softening is gradual (docs/check-values.md, limits; guess)', () => {
    const { times_s, bands, working_s } = foresee(front());
    const low = bands[0]!.low;
    const at = times_s.findIndex((time) => time > 300 + working_s!);
    expect(low[at]!).toBeLessThan(50);
    expect(low[at - 1]!).toBeGreaterThanOrEqual(50 - 1e-9);
  });

  it('says so where no time is enough, where the time is not, and where only the slow end is late', () => {
    expect(foresee(front({ setting: usualSetting('plate', 54) })).advice).toBe('never');
    // hotter than where it softens, yet not by enough: the bond stands between the source and the room
    const feeble = foresee(front({ setting: usualSetting('pad', 55.5), heat_s: 60 }));
    expect(feeble.advice).toBe('never');
    expect(feeble.most_C).toBeLessThan(55);
    expect(foresee(front({ heat_s: 20 })).advice).toBe('not-ready');
    const { ready } = foresee(front());
    const between = (ready.likely! + ready.late!) / 2;
    const perhaps = foresee(front({ heat_s: between }));
    expect(perhaps.advice).toBe('perhaps');
    expect(perhaps.working_s).toBeNull();
  });

  it('knows what a source could come to: a composite wall at rest (Incropera & DeWitt, ch. 3)', () => {
    const still = { low: 350, likely: 350, high: 350 };
    const { most_C, bands, times_s } = foresee(
      front({ heat_s: 30_000, total_s: 30_000, setting: { ...usualSetting('plate'), transfer: still } }),
    );
    expect(times_s.at(-1)).toBe(30_000);
    expect(bands[0]!.likely.at(-1)!).toBeCloseTo(most_C, 1);
    // a pack that has given what it has comes to no more than it had
    const small = { ...usualSetting('pack', 70), capacity_J_m2K: 3000 };
    const spent = foresee(front({ setting: small, heat_s: 240 }));
    expect(spent.advice).toBe('never');
    expect(spent.most_C).toBeCloseTo(Math.max(...spent.bands[0]!.high), 6);
  });

  it('counts a limit that is reached only when the source is gone', () => {
    const setting = usualSetting('plate', 78);
    const found = foresee(front({ setting, heat_s: 280 }));
    expect(found.limit!.seconds).toBeGreaterThan(280);
    expect(found.advice).toBe('limit');
  });

  it('names the limit that comes first, and marks a plate of 400 °C as destructive', () => {
    const found = foresee(front({ setting: usualSetting('plate', 400) }));
    expect(found.advice).toBe('limit');
    expect(found.limit).toMatchObject({ what: 'Display', max_C: 80 });
    expect(found.warnings.join()).toContain('destroys');
    const gentle = foresee(front({ heat_s: 1800, setting: usualSetting('plate', 75) }));
    expect(gentle.limit?.what).toBe('Battery face');
  });

  it("counts the workshop's own figures for a material", () => {
    const own = [{ id: 'acrylic foam tape', k: 0.04, rho: 800, cp: 1700, source: 'measured here' }];
    const materials = MATERIALS.filter(({ id }) => id !== 'acrylic foam tape');
    const slow = foresee(front({ materials: [...materials, ...own] }));
    expect(slow.ready.late ?? Infinity).not.toBeCloseTo(foresee(front()).ready.late!, 0);
    expect(() => foresee(front({ materials }))).toThrow('acrylic foam tape');
  });
});

describe('the recipes in use (docs/check-values.md, heat; common practice)', () => {
  const used: readonly [string, DeviceMap, string][] = [
    ['plate', tern5(), 'front-seal'],
    ['pad', petrelGlass(), 'front-bond'],
    ['air-halves', petrelGlass(), 'back-bond'],
    ['air-low', shearwater11(), 'front-bond'],
    ['pack-edge', tern5(), 'front-seal'],
    ['dryer', petrelGlass(), 'ring-bond'],
    ['small-part', tern5(), 'earpiece-glue'],
  ];
  it.each(used)('%s comes out ready and within its limits on a device of its kind', (id, map, joint) => {
    const recipe = RECIPES.find((each) => each.id === id)!;
    const bond = bondOf(map, joint);
    const found = foresee({
      stack: stackOfBond(map, bond),
      soften_C: bond.soften_C!,
      setting: settingOfRecipe(recipe),
      heat_s: recipe.seconds,
    });
    expect(found.advice).toBe('ready');
    expect(found.limit).toBeNull();
  });

  it('leaves none out', () => {
    expect(used.map(([id]) => id)).toEqual(RECIPES.map(({ id }) => id));
  });

  it("are what every hot bond of the demonstration is ready with by its own map's recipe", () => {
    for (const map of [tern5(), petrelGlass(), shearwater11()]) {
      for (const bond of map.joints.filter((each): each is BondJoint => each.type === 'bond' && each.heat === true)) {
        const found = foreseeBond(map, bond, bond.recipe!.source as 'plate')!;
        expect([map.id, bond.id, found.advice]).toEqual([map.id, bond.id, 'ready']);
        const nearest = nearestLimit(found);
        if (nearest) expect(nearest.peak_C).toBeLessThan(nearest.max_C);
      }
    }
  });
});

describe('how a bond is warmed', () => {
  const seal = bondOf(tern5(), 'front-seal');

  it('is by its recipe, by another source at its usual temperature, or as measured here', () => {
    expect(settingFor(seal, null)).toMatchObject({ kind: 'plate', temp_C: 70 });
    expect(settingFor(seal, 'air')).toMatchObject({ kind: 'air', temp_C: 80, origin: 'guess' });
    const measured = {
      setting: { ...usualSetting('plate', 75), transfer: { low: 290, likely: 300, high: 310 }, origin: 'measured' },
    };
    expect(settingFor(seal, null, measured)).toMatchObject({
      temp_C: 70,
      transfer: { likely: 300 },
      origin: 'measured',
    });
    expect(settingFor(seal, 'air', measured).origin).toBe('guess');
    const sources = [
      { ...measured, map: 'tern-5', joint: 'window-glue' },
      { ...measured, map: 'tern-5', joint: 'front-seal' },
      { setting: usualSetting('air'), map: 'tern-5', joint: 'window-glue' },
    ];
    const here = { map: 'tern-5', joint: 'window-glue' };
    expect(measuredSource(sources, 'plate', here)).toBe(sources[0]);
    // what was measured on another bond is offered, less sure of itself
    const elsewhere = measuredSource(sources, 'plate', { map: 'petrel-glass', joint: 'back-bond' })!;
    expect(elsewhere).toMatchObject({ map: 'tern-5', joint: 'front-seal' });
    expect(elsewhere.setting.transfer.low).toBeLessThan(sources[1]!.setting.transfer.low / 1.2);
    expect(elsewhere.setting.transfer.likely).toBe(sources[1]!.setting.transfer.likely);
    expect(elsewhere.setting.transfer.high).toBeGreaterThan(sources[1]!.setting.transfer.high * 1.2);
    // hot air measured elsewhere came from another distance
    expect(measuredSource(sources, 'air', here)).toBe(sources[2]);
    expect(measuredSource(sources, 'air', { map: 'tern-5', joint: 'front-seal' })).toBeUndefined();
    // air from far away is slower air
    const far = settingFor(bondOf(shearwater11(), 'front-bond'), null);
    expect(far.transfer.likely).toBeLessThan(usualSetting('air').transfer.likely);
  });

  it("takes the recipe's time with the recipe's source, else until it is soft by the slow end", () => {
    expect(warmingTime_s(tern5(), seal, 'plate')).toBe(300);
    for (const kind of WARM_SOURCES) {
      const seconds = warmingTime_s(tern5(), seal, kind);
      const { ready } = foresee({ ...front(), setting: settingFor(seal, kind), heat_s: seconds });
      expect(ready.likely).not.toBeNull();
    }
    const stubborn = bondOf(
      changed(tern5(), (copy) => {
        for (const joint of copy.joints) if (joint.type === 'bond') joint.soften_C = 84;
      }),
      'front-seal',
    );
    // never soft on a pad: the usual time of a pad stands, and the advice says why
    expect(warmingTime_s(tern5(), stubborn, 'pad')).toBe(360);
    expect(foreseeBond(tern5(), stubborn, 'pad')!.advice).toBe('never');
  });
});

describe('a bond of which a layer is in no table', () => {
  const strange = changed(tern5(), (copy) => {
    const bond = copy.joints.find((each) => each.id === 'front-seal')!;
    if (bond.type === 'bond') Object.assign(bond.stack!.layers[0]!, { material: 'cheese' });
  });
  const bond = bondOf(strange, 'front-seal');

  it('is planned with the usual times, foreseen by nobody, and warned about', () => {
    expect(warmingTime_s(strange, bond, 'air')).toBe(240);
    expect(foreseeBond(strange, bond, 'air')).toBeNull();
    expect(checkDeviceMap(strange)).toMatchObject({
      errors: [],
      warnings: [
        { path: expect.stringContaining('stack.layers[0].material'), message: expect.stringContaining('cheese') },
      ],
    });
    const budget = { now: () => 0, limitMs: 100 };
    const plan = planRepair({ map: strange, targets: [{ replace: 'display' }], policy: { heat: 'air' } }, budget);
    expect(plan.strip.find((op) => op.id === 'heat:front-seal')?.wait_s).toBe(240);
  });
});

describe('where a warming stands', () => {
  const long = foresee(front({ heat_s: 1200, total_s: 1200 }));

  it('counts down to soft by the slow end and to a limit by the fast one', () => {
    const { toSoft_s, bond_C, toLimit } = heatClock(long, 60);
    expect(toSoft_s).toBeCloseTo(long.ready.late! - 60, 6);
    expect(heatClock(long, 600).toSoft_s).toBe(0);
    expect(bond_C.low).toBeLessThan(bond_C.likely);
    expect(bond_C.likely).toBeLessThan(bond_C.high);
    expect(toLimit).toMatchObject({ what: 'Battery face', max_C: 60 });
    expect(heatClock(long, 2000).toLimit!.seconds).toBe(0);
    expect(heatClock(foresee(front({ setting: usualSetting('plate', 50) })), 10)).toMatchObject({
      toSoft_s: null,
      toLimit: null,
      toLikely_s: null,
    });
    expect(heatClock(long, 40).toLikely_s!).toBeLessThan(heatClock(long, 40).toSoft_s!);
  });

  it('is where the next warming begins: sooner soft, and sooner at a limit', () => {
    const past = [
      { setting: usualSetting('plate'), seconds: 300 },
      { setting: null, seconds: 100 },
    ];
    const again = foresee(front({ heat_s: 1200, total_s: 1200, past }));
    expect(again.ready.late!).toBeLessThan(long.ready.late!);
    expect(again.limit!.seconds).toBeLessThan(long.limit!.seconds);
    // it begins where the time before ended
    const before = foresee(front({ heat_s: 300, total_s: 400 }));
    before.bands.forEach(({ low, high }, index) => {
      expect(again.bands[index]!.low[0]!).toBeCloseTo(low.at(-1)!, 1);
      expect(again.bands[index]!.high[0]!).toBeCloseTo(high.at(-1)!, 1);
    });
  });

  it('says how long solvent has to wait: Newton cooling of a thin metal sheet (lumped, Incropera & DeWitt, ch. 5)', () => {
    // 2 mm of aluminium, 10 and 8 W/m²K on its faces: ρcpL/(h₁+h₂) = 268.8 s; from 70 to 40 °C in a room of 22 °C
    const sheet = {
      layers: [{ material: 'aluminium alloy', thickness: 2 }],
      bondLayer: 0,
      watch: [],
    };
    const setting = { ...usualSetting('plate', 70), transfer: { low: 1e5, likely: 1e5, high: 1e5 } };
    const found = foresee({ stack: sheet, soften_C: 60, setting, heat_s: 100, total_s: 1500 });
    const expected = ((2700 * 896 * 0.002) / 18) * Math.log((70 - 22) / (40 - 22));
    expect(Math.abs(untilBelow_s(found, 40, 100)! - expected)).toBeLessThan(8);
    expect(untilBelow_s(found, 10, 100)).toBeNull();
  });
});
