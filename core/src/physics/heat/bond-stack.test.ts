import { describe, expect, it } from 'vitest';
import { bondOf, changed, tern5 } from '../../../test/maps.ts';
import { checkDeviceMap } from '../../planner/map-check/index.ts';
import { heatThrough, materialNamed, stackOfBond } from './index.ts';

const own = {
  layers: [
    { material: 'soda-lime glass', thickness: 0.7 },
    { material: 'acrylic foam tape', thickness: 0.25 },
  ],
  bondLayer: 1,
  watch: [{ layer: 0, fraction: 0.5, what: 'Glass', max_C: 90 }],
};
const withStack = (stack: object) =>
  changed(tern5(), (copy) => {
    Object.assign(
      copy.joints.find((each) => each.id === 'front-seal')!,
      { stack },
    );
  });

describe("a bond's stack", () => {
  it('is the one in the map, where it has one', () => {
    const map = withStack(own);
    const seal = changed(map, (copy) => void (copy.parts.find(({ id }) => id === 'cell')!.hazards = []));
    expect(stackOfBond(seal, bondOf(seal, 'front-seal'))).toEqual({ ...own, isGuess: false });
    // the only thing to be said of it is that its battery is not said to hold lithium
    expect(checkDeviceMap(seal)).toMatchObject({ errors: [], warnings: [{ path: expect.stringMatching(/hazards$/) }] });
  });

  it('always watches the cell beneath it, over it, or that it is, with the lower of the limits', () => {
    const watched = (map: ReturnType<typeof tern5>, id: string) =>
      stackOfBond(map, bondOf(map, id)).watch.map(({ what, max_C }) => [what, max_C]);
    const bare = withStack(own);
    expect(watched(bare, 'front-seal')).toEqual([
      ['Glass', 90],
      ['Battery', 60],
    ]);
    // the map's own watch is lowered to what its chemistry bears, or to what the map says
    const hot = (limit_C: number, max_C: number) =>
      changed(tern5(), (copy) => {
        (copy.battery as { limit_C: number }).limit_C = limit_C;
        const seal = bondOf(copy, 'front-seal').stack!;
        (seal.watch[1] as { max_C: number }).max_C = max_C;
      });
    expect(watched(hot(75, 75), 'front-seal')[1]).toEqual(['Battery face', 60]);
    expect(watched(hot(50, 75), 'front-seal')[1]).toEqual(['Battery face', 50]);
    // the bond of the cell itself, and lithium that is not the battery's part
    expect(watched(tern5(), 'cell-straps')).toEqual([['Battery', 60]]);
    const spare = changed(tern5(), (copy) => {
      copy.parts.find(({ id }) => id === 'earpiece')!.hazards = ['lithium'];
    });
    expect(watched(spare, 'earpiece-glue')).toEqual([['Earpiece', 60]]);
    const finding = checkDeviceMap(bare).warnings.find(({ path }) => path.endsWith('.stack.watch'));
    expect(finding?.message).toContain('"cell" holds lithium');
    for (const limit_C of [44, 81]) {
      const { errors } = checkDeviceMap(hot(limit_C, 60));
      expect(errors).toMatchObject([{ path: 'battery.limit_C', message: expect.stringContaining('45 to 80') }]);
    }
  });

  it('is drawn up from kinds where it has none, marked as a guess, and watches the cell and the display', () => {
    const bare = changed(tern5(), (copy) => {
      for (const joint of copy.joints) if (joint.type === 'bond') delete joint.stack;
    });
    const stack = stackOfBond(bare, bondOf(bare, 'front-seal'));
    expect(stack.isGuess).toBe(true);
    expect(stack.layers.map((each) => each.material)).toEqual([
      'display stack',
      'acrylic foam tape',
      'aluminium alloy',
      'still air gap',
      'pouch cell',
    ]);
    expect(stack.watch.map((each) => [each.what, each.max_C])).toEqual([
      ['Display', 80],
      ['Battery', 60],
    ]);
    // the earpiece's pad is on the display, away from the cell
    expect(stackOfBond(tern5(), bondOf(tern5(), 'earpiece-glue')).watch).toEqual([]);
  });

  it('can be heated as it stands: 70 °C for 5 min on a plate softens the front of Tern 5 (common practice)', () => {
    for (const joint of tern5().joints) {
      if (joint.type !== 'bond' || !joint.heat) continue;
      const { layers, bondLayer, watch } = stackOfBond(tern5(), joint);
      for (const layer of layers) expect(materialNamed(layer.material)).toBeDefined();
      const found = heatThrough({
        layers: layers.map(({ material, thickness }) => ({ material, thickness_mm: thickness })),
        source: { kind: 'plate', temp_C: 70, contact_W_m2K: 350 },
        after: { h_W_m2K: 10, temp_C: 22 },
        far: { h_W_m2K: 8, temp_C: 22 },
        initial_C: 22,
        heat_s: 300,
        total_s: 300,
        probes: [
          { id: 'bond', layer: bondLayer, fraction: 0.5 },
          ...watch.map((each, index) => ({ id: `watch ${index}`, layer: each.layer, fraction: each.fraction })),
        ],
        bond: { probe: 'bond', soften_C: 55 },
        limits: watch.map((each, index) => ({ probe: `watch ${index}`, max_C: each.max_C })),
      });
      expect(found.ready_s, joint.id).not.toBeNull();
      expect(found.limit_s, joint.id).toBeNull();
    }
  });

  it('is refused where it names a layer that it has not', () => {
    const problems = (stack: object) => checkDeviceMap(withStack(stack)).errors.map((each) => each.path);
    const at = tern5().joints.findIndex((each) => each.id === 'front-seal');
    expect(problems({ ...own, bondLayer: 2 })).toEqual([`joints[${at}].stack.bondLayer`]);
    expect(problems({ ...own, watch: [{ ...own.watch[0], layer: 5 }] })).toEqual([
      `joints[${at}].stack.watch[0].layer`,
    ]);
    expect(problems({ ...own, layers: [{ material: 'soda-lime glass', thickness: 0 }] })[0]).toContain('thickness');
  });
});
