import { describe, expect, it } from 'vitest';
import { changed, dunlinOpen, tern5 } from '../../../test/maps.ts';
import { planRepair } from '../../planner/plan/index.ts';
import { type Policy, POLICY_OPTIONS } from '../../model/policy/index.ts';
import { DEFAULT_LIMITS } from '../../model/limits/index.ts';
import { costWords, figuresOf, QUESTIONS, questionsFor } from './index.ts';

const budget = { now: () => performance.now(), limitMs: 600 };

function figures(key: keyof Policy, value: string, part = 'display', map = tern5(), limits = DEFAULT_LIMITS) {
  const policy = { display: 'taken-off', [key]: value === 'map' ? null : value } as Partial<Policy>;
  const plan = planRepair({ map, targets: [{ replace: part }], policy }, budget);
  return figuresOf({ map, key, value, plan, limits, charge: 0.6, unit: 'C' });
}

describe('schools', () => {
  it('ask every question of the policy, with every option of it', () => {
    expect(QUESTIONS.map((each) => each.key).toSorted()).toEqual(Object.keys(POLICY_OPTIONS).toSorted());
    for (const { key, options } of QUESTIONS) {
      const values = options.map((each) => each.value).filter((each) => each !== 'map');
      expect(values.toSorted()).toEqual([...POLICY_OPTIONS[key]].toSorted());
    }
  });

  it('ask only what means something on the device', () => {
    const keys = (map: ReturnType<typeof tern5>, ...parts: string[]) =>
      questionsFor(map, parts).map((each) => each.key);
    expect(keys(dunlinOpen(), 'loudspeaker')).toEqual([
      'batteryBefore',
      'test',
      'order',
      'screws',
      'tools',
      'tightening',
    ]);
    expect(keys(tern5(), 'cell')).toContain('newBattery');
    expect(keys(tern5(), 'display')).not.toContain('newBattery');
  });

  it('have their risk in figures of their own plan', () => {
    expect(figures('display', 'taken-off').risk).toBe('2 connectors of it reconnected once more');
    expect(figures('display', 'on-flexes', 'cell').risk).toMatch(/^2 flexes under strain for \d+ min$/);
    // 4.1 Ah × 3.86 V = 15.8 Wh, a quarter of it, and 60 % of it
    expect(figures('batteryBefore', 'run-down').risk).toContain('4.0 Wh');
    expect(figures('batteryBefore', 'charged').risk).toContain('9.5 Wh');
    // a workshop that runs down to 10 % has 1.6 Wh left
    const own = { ...DEFAULT_LIMITS, runDownTo: 0.1 };
    expect(figures('batteryBefore', 'run-down', 'display', tern5(), own).risk).toContain('1.6 Wh');
    expect(figures('heat', 'air').risk).toContain('80 °C, one half at a time');
    expect(figures('heat', 'none').risk).toContain('cut cold');
    expect(figures('test', 'after').risk).toMatch(/1 seal and \d+ min/);
    expect(figures('screws', 'map-mat', 'lower-board').risk).toMatch(/^2\.\d min of mix-ups .*mixes \d+ screws$/);
    expect(figures('screws', 'containers-apart', 'lower-board').risk).toContain('4 containers');
    expect(figures('tightening', 'snug').risk).toContain('by feel');
    expect(figures('closing', 'liquid').risk).toContain('cures 30 min');
    expect(figures('newBattery', 'whole-pack', 'cell').risk).toContain('1 warning to disclose');
    expect(figures('newBattery', 'cell-transplant', 'cell').risk).toContain('15.8 Wh');
    expect(figures('firstGap', 'bench-cutter').risk).toMatch(/shallowest, \d/);
  });

  it('cost what their plans differ by, and what is no operation of a plan', () => {
    const more = (key: keyof Policy, a: string, b: string, part?: string) =>
      figures(key, b, part).seconds - figures(key, a, part).seconds;
    expect(more('firstGap', 'one-cup', 'two-cup')).toBe(20);
    // laying, ending the cure, and the cure; liquid has no liner
    expect(more('closing', 'map', 'liquid')).toBe(25 + 5 + 1800 - 10);
    expect(more('newBattery', 'whole-pack', 'cell-transplant', 'cell')).toBe(1500);
    // 35 % of 15.826 Wh at 3 W, against nothing to charge at 60 %
    expect(more('batteryBefore', 'charged', 'run-down')).toBe(Math.round((0.35 * 15.826 * 3600) / 3));
    // a warm pack for 90 s, laid on, and taken up as a tool, and the soak; straps are pulled dry first
    expect(more('batteryBond', 'tabs-then-solvent', 'solvent-and-heat', 'cell')).toBe(90 + 15 + 8 + 240 + 12);
  });

  it('never heats what was soaked: the warm pack comes first', () => {
    const policy = { batteryBond: 'solvent-and-heat' } as const;
    const { strip } = planRepair({ map: tern5(), targets: [{ replace: 'cell' }], policy }, budget);
    const at = (id: string) => strip.findIndex((op) => op.id === id);
    expect(at('heat:cell-straps')).toBeGreaterThan(-1);
    expect(at('soak:cell-straps')).toBeGreaterThan(at('heat:cell-straps'));
    expect(at('release:cell-straps')).toBeGreaterThan(at('soak:cell-straps'));
    expect(strip.slice(at('soak:cell-straps')).some((op) => op.name === 'heat')).toBe(false);
  });

  it('lay another seal where the closing school says so, and use up its own', () => {
    const plan = planRepair({ map: tern5(), targets: [{ replace: 'display' }], policy: { closing: 'tape' } }, budget);
    const seal = plan.consumables.find((each) => each.joint === 'front-seal')!;
    const length = tern5()
      .joints.filter((each) => each.id === 'front-seal')
      .flatMap((each) => (each.type === 'bond' ? (each.segments ?? []) : []))
      .reduce((sum, { from, to }) => sum + Math.hypot(to.x - from.x, to.y - from.y), 0);
    expect(seal).toMatchObject({ what: 'tape', length_mm: Math.round(length) });
  });

  it('put it into one sentence', () => {
    const chosen = { seconds: 600, risk: 'a' };
    expect(costWords('pad', chosen, { seconds: 780, risk: 'b' })).toBe('Pad: 3 min more, b.');
    expect(costWords('pad', chosen, { seconds: 570, risk: '' })).toBe('Pad: 30 s less.');
    expect(costWords('pad', chosen, chosen)).toBe('Pad: no difference on this device.');
    expect(costWords('pad', chosen, null)).toBe('Pad: no plan this way.');
  });

  it('fear no mix-up where every length is told at a glance', () => {
    const alone = changed(tern5(), (copy) => {
      copy.fasteners.forEach((each, index) => void (each.length = 1 + index * 2));
    });
    expect(figures('screws', 'containers-apart', 'lower-board', alone).risk).toContain('next to no mix-up');
  });
});
