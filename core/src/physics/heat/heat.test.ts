import { FRONT_ON_PLATE } from '../../../test/phone-stack.ts';
import { readAt } from '../../../test/read-at.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { heatRequest, type HeatRequest, heatThrough, materialNamed, MATERIALS } from './index.ts';

const front: HeatRequest = {
  ...FRONT_ON_PLATE,
  total_s: 900,
  probes: [
    { id: 'bond', layer: 1, fraction: 0.5 },
    { id: 'cell', layer: 4, fraction: 0 },
    { id: 'display', layer: 0, fraction: 0 },
  ],
  bond: { probe: 'bond', soften_C: 55 },
  limits: [
    { probe: 'cell', max_C: 60 },
    { probe: 'display', max_C: 66 },
  ],
};

describe('what is read off it', () => {
  it('ready, limit and working time lie where the curves cross', () => {
    const { ready_s, limit_s, workingTime_s } = heatThrough(front);
    expect(readAt(front, 'bond', ready_s!)).toBeCloseTo(55, 1);
    expect(ready_s!).toBeLessThan(300);
    expect(readAt(front, 'display', limit_s!)).toBeCloseTo(66, 1);
    expect(readAt(front, 'bond', 300 + workingTime_s!)).toBeCloseTo(55, 1);
    expect(workingTime_s!).toBeGreaterThan(0);
  });

  it('is null where a bond never gets soft, no limit is met, or it is still soft at the end', () => {
    expect(heatThrough({ ...front, bond: { probe: 'bond', soften_C: 75 } })).toMatchObject({
      ready_s: null,
      workingTime_s: null,
    });
    expect(heatThrough({ ...front, limits: [] }).limit_s).toBeNull();
    expect(heatThrough({ ...front, total_s: 310 }).workingTime_s).toBeNull();
    expect(heatThrough({ ...front, bond: { probe: 'bond', soften_C: 10 } }).ready_s).toBe(0);
  });

  it('a warm pack can let the bond grow stiff again while it still lies there: no time to work', () => {
    const pack = { kind: 'pack', temp_C: 75, capacity_J_m2K: 4000, contact_W_m2K: 250 } as const;
    const found = heatThrough({ ...front, source: pack, bond: { probe: 'bond', soften_C: 36 }, heat_s: 800 });
    expect(found.ready_s).not.toBeNull();
    expect(found.workingTime_s).toBe(0);
  });

  it('keeps its heat: what went in is stored or lost, whatever the stack, and nothing gets hotter than its source', () => {
    const layer = fc.record({
      k: fc.double({ min: 0.02, max: 400, noNaN: true }),
      rho: fc.double({ min: 1, max: 9000, noNaN: true }),
      cp: fc.double({ min: 300, max: 2000, noNaN: true }),
      thickness_mm: fc.double({ min: 0.05, max: 6, noNaN: true }),
    });
    fc.assert(
      fc.property(
        fc.array(layer, { minLength: 1, maxLength: 6 }),
        fc.constantFrom('plate', 'air', 'pack'),
        fc.double({ min: 1, max: 500, noNaN: true }),
        (layers, kind, transfer) => {
          const source = { kind, temp_C: 90, contact_W_m2K: transfer, h_W_m2K: transfer, capacity_J_m2K: 6000 };
          const probes = layers.map((_, index) => ({ id: String(index), layer: index, fraction: 0.3 }));
          const found = heatThrough({
            ...front,
            layers,
            source: source as HeatRequest['source'],
            probes,
            bond: undefined,
            limits: [],
          });
          expect(found.energyError).toBeLessThan(1e-3);
          for (const values of Object.values(found.probes)) {
            expect(Math.max(...values)).toBeLessThan(90.01);
            expect(Math.min(...values)).toBeGreaterThan(21.9);
          }
        },
      ),
      { numRuns: 40 },
    );
  });

  it('loses no figures in layers of a picometre, nor hangs on them: they are at rest between their faces', () => {
    for (const count of [1, 6]) {
      const layers = Array.from({ length: count }, () => ({ material: 'copper', thickness_mm: 1e-9 }));
      const found = heatThrough({
        layers,
        source: { kind: 'air', temp_C: 80, h_W_m2K: 30 },
        after: { h_W_m2K: 10, temp_C: 22 },
        far: { h_W_m2K: 10, temp_C: 20 },
        initial_C: 22,
        heat_s: 600,
        total_s: 600,
        probes: [{ id: 'middle', layer: 0, fraction: 0.5 }],
      });
      // 30 W/m²K from 80 °C and 10 W/m²K from 20 °C: (30·80 + 10·20)/40 = 65 °C
      expect(found.probes['middle']!.at(-1)!).toBeCloseTo(65, 6);
      expect(found.energyError).toBeLessThan(1e-9);
    }
  });

  it('refuses a layer that vanishes, by name', () => {
    for (const [field, value] of [
      ['thickness_mm', 1e-300],
      ['k', 5e-324],
      ['rho', 0],
      ['cp', 1e-12],
    ] as const) {
      const layers = [{ k: 1, rho: 1000, cp: 1000, thickness_mm: 1, [field]: value }];
      const { error } = heatRequest.validate({ ...front, layers });
      expect(error?.message, field).toContain(`layers[0].${field}`);
    }
  });

  it('counts the time to work from the end of heating also where nothing heats: it came warm', () => {
    const cooling = { ...front, source: { kind: 'none' }, initial_C: 70, far: front.after } as const;
    const atOnce = heatThrough({ ...cooling, heat_s: 0 }).workingTime_s!;
    expect(atOnce).toBeGreaterThan(60);
    expect(heatThrough({ ...cooling, heat_s: 40 }).workingTime_s!).toBeCloseTo(atOnce - 40, 1);
    expect(heatThrough({ ...cooling, heat_s: 800 }).workingTime_s).toBe(0);
  });

  it('has no error of energy where nothing flows, and one of the heat that was exchanged where it only moves inside', () => {
    const sheet = { ...front, layers: [{ material: 'glass', thickness_mm: 1 }], far: { h_W_m2K: 0, temp_C: 22 } };
    const probes = [{ id: 'sheet', layer: 0, fraction: 0.5 }];
    const pack = (temp_C: number) => ({ kind: 'pack', temp_C, capacity_J_m2K: 4000, contact_W_m2K: 250 }) as const;
    const whole = { ...sheet, probes, bond: undefined, limits: [], heat_s: 900 };
    // a pack and an insulated sheet share their heat, and nothing passes a face
    const shared = heatThrough({ ...whole, source: pack(75) });
    expect(shared.probes['sheet']!.at(-1)).toBeGreaterThan(30);
    expect(shared.energyError).toBeLessThan(1e-9);
    expect(heatThrough({ ...whole, source: pack(22) }).energyError).toBe(0);
    expect(heatThrough({ ...whole, source: { kind: 'none' } }).energyError).toBe(0);
  });

  it('does not depend on how a layer is cut in two', () => {
    const [first, ...others] = front.layers;
    const halves = { ...first!, thickness_mm: first!.thickness_mm / 2 };
    const cut = {
      ...front,
      layers: [halves, halves, ...others],
      probes: front.probes.map((each) => (each.layer === 0 ? each : { ...each, layer: each.layer + 1 })),
    };
    for (const time of [5, 60, 300, 600]) expect(readAt(cut, 'bond', time)).toBeCloseTo(readAt(front, 'bond', time), 1);
  });
});

describe('bad input', () => {
  const refused = (change: object) => heatRequest.validate({ ...front, ...change }).error?.message ?? '';
  const glass = { material: 'glass', thickness_mm: 1 };

  it('is refused plainly: thickness, materials, probes that are not there', () => {
    expect(refused({})).toBe('');
    expect(refused({ layers: [{ ...glass, thickness_mm: 0 }] })).toContain('more than 0 mm');
    expect(refused({ layers: [{ ...glass, thickness_mm: -1 }] })).toContain('more than 0 mm');
    expect(refused({ layers: [{ ...glass, material: 'cheese' }] })).toContain('soda-lime glass');
    expect(refused({ layers: [{ ...glass, k: 1, rho: 1, cp: 1 }] })).toContain('conflict');
    expect(refused({ layers: [{ k: 1, thickness_mm: 1 }] })).toContain('rho');
    expect(refused({ layers: [glass] })).toContain('layer');
    expect(refused({ bond: { probe: 'nothing', soften_C: 50 } })).toContain('There is no probe nothing');
    expect(refused({ total_s: 0 })).toContain('total_s');
    expect(refused({ source: { kind: 'plate', temp_C: 70 } })).toContain('contact_W_m2K');
  });

  it('a plate of 400 °C and a conductivity of 10⁹ are computed, and said to be what they are', () => {
    const hot = heatThrough({ ...front, source: { kind: 'plate', temp_C: 400, contact_W_m2K: 300 } });
    expect(hot.warnings.join()).toContain('destroys');
    const layers = [{ k: 1e9, rho: 2500, cp: 750, thickness_mm: 1 }, ...front.layers.slice(1)];
    expect(heatRequest.validate({ ...front, layers }).error).toBeUndefined();
    const odd = heatThrough({ ...front, layers });
    expect(odd.warnings.join()).toContain('Check the unit');
    expect(Object.values(odd.probes).flat().every(Number.isFinite)).toBe(true);
  });

  it('materials are found by what people call them, and every figure names its source', () => {
    expect(materialNamed('Soda-lime_GLASS')?.k).toBe(1.4);
    expect(materialNamed('aluminum')?.k).toBe(167);
    expect(materialNamed('cheese')).toBeUndefined();
    expect(MATERIALS.filter((each) => each.source.trim().length < 4)).toEqual([]);
  });
});
