import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { bondOf, changed, tern5 } from '../../../test/maps.ts';
import { foresee, heatClock, settingFor, stackOfBond } from '../../physics/heat/index.ts';
import { bondBasis, nextPress } from '../../bench/in-hand/index.ts';
import { putOnFor_s } from '../../bench/in-hand/to-warm.ts';
import { asItLies, cutShort, handOverPoints, isCellBehind } from './index.ts';

const watched = (bench: TestBench, id: string) => {
  const lying = asItLies(bench.mechanism.map, bench.state.device, bondOf(bench.mechanism.map, id));
  return stackOfBond(lying.map, lying.bond).watch.map(({ what }) => what);
};

describe('heat goes through what is there now', () => {
  it('knows no cell beneath what lies on the mat, nor one that is out', () => {
    const layers = ['polycarbonate', 'acrylic foam tape', 'display stack', 'still air gap', 'pouch cell'];
    const map = changed(tern5(), (copy) => {
      const stack = {
        layers: layers.map((material) => ({ material, thickness: 0.5 })),
        bondLayer: 1,
        watch: [{ layer: 4, fraction: 0, what: 'Battery face', max_C: 60 }],
      };
      Object.assign(
        copy.joints.find(({ id }) => id === 'earpiece-glue')!,
        { stack },
      );
    });
    const bench = new TestBench(map, [{ replace: 'display' }, { remove: 'cell' }]);
    expect(watched(bench, 'front-seal')).toContain('Battery face');
    expect(watched(bench, 'earpiece-glue')).toContain('Battery face');
    bench.until('heat:earpiece-glue');
    expect(watched(bench, 'earpiece-glue')).toEqual([]);
    expect(watched(bench, 'front-seal')).toEqual(['Display']);
    const { stack } = bondBasis(map, bondOf(map, 'earpiece-glue'), bench.state, undefined);
    expect(stack.layers.map(({ material }) => material)).toEqual(layers.slice(0, 3));
  });

  it('is the map itself while all of it is there', () => {
    const bench = new TestBench(tern5(), [{ replace: 'display' }]);
    const bond = bondOf(bench.mechanism.map, 'front-seal');
    expect(asItLies(bench.mechanism.map, bench.state.device, bond)).toMatchObject({ bond, isOnMat: false });
  });
});

describe('a warming that is offered', () => {
  it('is as long as softens the bond, where its recipe does not', () => {
    const short = changed(tern5(), (copy) => {
      const bond = copy.joints.find(({ id }) => id === 'front-seal')!;
      if (bond.type === 'bond') bond.recipe = { source: 'plate', temp_C: 70, seconds: 20 };
    });
    const bench = new TestBench(short, [{ replace: 'display' }]);
    const bond = bondOf(short, 'front-seal');
    const setting = settingFor(bond, 'plate');
    const heat_s = putOnFor_s(short, bench.state, bond, setting, []);
    expect(heat_s).toBeGreaterThan(20);
    expect(foresee({ ...bondBasis(short, bond, bench.state, undefined), setting, heat_s }).ready.likely).not.toBeNull();
  });

  it('says which comes first, the limit or the softening, and by how much, by the same end', () => {
    const bond = bondOf(tern5(), 'front-seal');
    const stack = { ...stackOfBond(tern5(), bond), watch: [{ layer: 1, fraction: 0.5, what: 'Display', max_C: 58 }] };
    const foresight = foresee({ stack, soften_C: 55, setting: settingFor(bond, 'plate'), heat_s: 900, total_s: 900 });
    const { toLimit } = heatClock(foresight, 0);
    expect(toLimit!.afterSoft_s).toBeCloseTo(foresight.limit!.seconds - foresight.ready.early!, 9);
    const never = { ...foresight, ready: { early: null, likely: null, late: null } };
    expect(heatClock(never, 0).toLimit!.afterSoft_s).toBeNull();
  });
});

describe('alcohol', () => {
  it('is wiped onto no bond that was hot a moment ago, whoever says so', () => {
    const bench = new TestBench(tern5(), [{ replace: 'display' }]).until('heat:earpiece-glue');
    const setting = settingFor(bondOf(tern5(), 'earpiece-glue'), 'air');
    bench.send('heat-on', { joint: 'earpiece-glue', setting, heat_s: 120 });
    bench.wait(120).send('heat-off', { joint: 'earpiece-glue', seconds: 120 });
    for (const op of bench.ahead()) {
      if (op.name === 'clean') break;
      bench.do(op);
    }
    bench.do(bench.ahead()[0]!);
    const [wipe] = bench.ahead();
    expect(wipe).toMatchObject({ name: 'wipe', joint: 'earpiece-glue' });
    const press = nextPress(bench.mechanism, bench.state, bench.aheadWhole(), bench.now);
    expect(press).toMatchObject({ label: 'Too warm for alcohol: let it cool', isAllowed: false });
    const step = { id: wipe!.id, kind: 'procedure', name: 'wipe', joint: 'earpiece-glue' } as const;
    expect(bench.send('did', { steps: [step] }).problem).toContain('before solvent');
    expect(bench.wait(1200).send('did', { steps: [step] }).problem).toBeNull();
  });
});

describe('metal in the gap', () => {
  it('is not advised where a cell lies behind the edge', () => {
    const bench = new TestBench(tern5(), [{ replace: 'display' }]).until('heat:front-seal');
    const bond = bondOf(tern5(), 'front-seal');
    expect(isCellBehind(tern5(), bench.state, bondOf(bench.mechanism.map, 'front-seal'))).toBe(true);
    bench.send('placeholder', { joint: 'front-seal', material: 'plastic', count: 1 });
    bench.send('heat-on', { joint: 'front-seal', setting: settingFor(bond, 'air'), heat_s: 60 });
    expect(bench.problem).toMatch(/Take them out.*cell lies behind/);
  });
});

describe('a wait that is cut short', () => {
  it('is kept in the record, in the strength by when and in the hand-over, until it is waited for in full', () => {
    const bench = new TestBench(tern5(), [{ replace: 'display' }]).until('press:front-seal');
    const press = { id: 'press:front-seal', kind: 'procedure', name: 'press', joint: 'front-seal' } as const;
    bench
      .send('timer', { step: press.id, seconds: 120 })
      .wait(40)
      .send('did', { steps: [press] });
    expect(cutShort(bench.state)).toMatchObject([{ step: press.id, of_s: 120 }]);
    const points = handOverPoints(bench.mechanism, bench.state, bench.now);
    expect(points.find(({ what }) => what === 'short:front-seal')?.text).toMatch(/pressed for 0:41 of 2:00/);
    bench.send('timer', { step: press.id, seconds: 120 }).wait(130);
    bench.send('did', { steps: [{ ...press, again: true }] });
    expect(cutShort(bench.state)).toEqual([]);
  });
});
