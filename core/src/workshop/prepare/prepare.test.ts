import { describe, expect, it } from 'vitest';
import { changed, dunlinOpen, shearwater11, tern5 } from '../../../test/maps.ts';
import { DEFAULT_POLICY, settled } from '../../model/policy/index.ts';
import { planRepair } from '../../planner/plan/index.ts';
import type { Target } from '../../planner/search/index.ts';
import { DEFAULT_LIMITS } from '../../model/limits/index.ts';
import {
  benchItems,
  chargeNeed,
  chargeSchool,
  crackedGlass,
  isDelicate,
  ownerMustKnow,
  pinHoles,
  whileOpen,
} from './index.ts';

const budget = { now: () => performance.now(), limitMs: 800 };
const planOf = (map: ReturnType<typeof tern5>, ...targets: Target[]) => planRepair({ map, targets }, budget);
const display = planOf(tern5(), { replace: 'display' });
const port = planOf(dunlinOpen(), { replace: 'port-board' });
const need = (...args: Parameters<typeof chargeNeed>) => chargeNeed(...args);

describe('the charge before opening', () => {
  it('is run down below 25 % before a bond near the cell is cut (common practice)', () => {
    const found = need(tern5(), display.strip, 'run-down', DEFAULT_LIMITS, 0.6)!;
    // 4.1 Ah × 3.86 V = 15.826 Wh; 35 % of it at 3 W
    expect(found).toMatchObject({ way: 'run-down', target: 0.25, seconds: Math.round((0.35 * 15.826 * 3600) / 3) });
    expect(need(tern5(), display.strip, 'run-down', DEFAULT_LIMITS, 0.25)).toBeNull();
    expect(need(tern5(), display.strip, 'run-down', DEFAULT_LIMITS, null)).toMatchObject({ seconds: null });
  });

  it('need not be run down where no bond is cut near the cell, but for a reset not under 10 % (common practice)', () => {
    expect(need(dunlinOpen(), port.strip, 'run-down', DEFAULT_LIMITS, 0.9)).toBeNull();
    expect(need(dunlinOpen(), port.strip, 'run-down', DEFAULT_LIMITS, 0.04)).toMatchObject({
      way: 'charge-up',
      target: 0.1,
    });
    expect(need(dunlinOpen(), port.strip, 'run-down', DEFAULT_LIMITS, null)).toBeNull();
  });

  it('or is enough to test the result, where it is to arrive charged', () => {
    const found = need(dunlinOpen(), port.strip, 'charged', DEFAULT_LIMITS, 0.2)!;
    // 3 Ah × 3.8 V = 11.4 Wh; 20 % of it at 10 W
    expect(found).toMatchObject({ way: 'charge-up', target: 0.4, seconds: Math.round((0.2 * 11.4 * 3600) / 10) });
    expect(need(dunlinOpen(), port.strip, 'charged', DEFAULT_LIMITS, 0.5)).toBeNull();
  });

  it('is arrived with by default where a hand takes the cell out', () => {
    expect(settled(dunlinOpen()).policy.batteryBefore).toBe('charged');
    expect(settled(dunlinOpen(), { batteryBefore: 'run-down' }).policy.batteryBefore).toBe('run-down');
    expect(settled(tern5()).policy.batteryBefore).toBe('run-down');
    // not for a cell that a new one goes in for
    const school = (part: string) => chargeSchool(dunlinOpen(), [{ replace: part }], settled(dunlinOpen()).policy);
    expect([school('port-board'), school('cell')]).toEqual(['charged', 'run-down']);
  });

  it('does not matter without a battery', () => {
    const map = changed(tern5(), (copy) => void (copy.battery = null as never));
    expect(need(map, display.strip, 'charged', DEFAULT_LIMITS, null)).toBeNull();
  });
});

describe('the bench', () => {
  const ids = (map: ReturnType<typeof tern5>, target: Target) => {
    const plan = planOf(map, target);
    return benchItems(map, [target], { ...DEFAULT_POLICY, ...DEFAULT_LIMITS }, [...plan.strip, ...plan.rebuild]).map(
      (each) => each.id,
    );
  };
  it('asks for what this repair needs, and nothing else', () => {
    expect(ids(tern5(), { replace: 'display' })).toEqual(['strap', 'eyes', 'sand', 'heat', 'seals']);
    expect(ids(tern5(), { replace: 'cell' })).toEqual(['strap', 'eyes', 'sand', 'heat', 'air', 'seals']);
    // a cell that a hand takes out is not pried at
    expect(ids(dunlinOpen(), { replace: 'loudspeaker' })).toEqual(['strap']);
    // gloves for a large cell
    expect(ids(shearwater11(), { replace: 'cell-left' })).toContain('gloves');
    expect(ids(tern5(), { replace: 'tray' })).not.toContain('heat');
  });

  it('asks for a new seal before the old one is opened', () => {
    const { strip, rebuild } = planOf(tern5(), { replace: 'cell' });
    const items = benchItems(tern5(), [{ replace: 'cell' }], { ...DEFAULT_POLICY, ...DEFAULT_LIMITS }, [
      ...strip,
      ...rebuild,
    ]);
    expect(items.find(({ id }) => id === 'seals')!.title).toBe('New seal at hand: Display');
    expect(ids(tern5(), { remove: 'tray' })).not.toContain('seals');
  });

  it('goes by the size of cell that the workshop has set for gloves', () => {
    const target = { replace: 'cell' };
    const { strip } = planOf(tern5(), target);
    const at = (gloves_Wh: number) =>
      benchItems(tern5(), [target], { ...DEFAULT_POLICY, gloves_Wh }, strip).some(({ id }) => id === 'gloves');
    // 4.1 Ah × 3.86 V = 15.8 Wh
    expect([at(15), at(16)]).toEqual([true, false]);
  });

  it('knows which holes a tray pin may enter', () => {
    const holes = pinHoles(tern5(), 'tray');
    expect(holes.right.map((each) => each.id)).toEqual(['tray-hole']);
    expect(holes.wrong.find((each) => each.id === 'side-mic')!.harm).toContain('pierces');
    expect(holes.wrong.find((each) => each.id === 'top-mic')!.harm).toContain('corner');
    expect(holes.unmapped).toEqual([]);
    const without = changed(tern5(), (copy) => void delete (copy as { pinHoles?: unknown }).pinHoles);
    expect(pinHoles(without, 'tray').unmapped.map((each) => each.id)).toEqual(['port-mic']);
  });

  it('tapes glass that is cracked, not what has no glass', () => {
    const marks = [
      { kind: 'crack', part: 'display' },
      { kind: 'crack', part: 'side-key' },
      { kind: 'dent', part: 'camera-window' },
    ];
    expect(crackedGlass(tern5(), marks).map((each) => each.id)).toEqual(['display']);
  });
});

describe('the owner', () => {
  it('is told of losses, seals, old faults and where the part comes from, each once', () => {
    const part = {
      id: 'p',
      mapPart: 'display',
      source: 'Harbour Parts, used',
      arrived: '2026-11-20',
      window_days: 30,
      looked: null,
      numbers: [],
      asked: [],
      decision: null,
      sentBack: null,
    };
    const items = ownerMustKnow(tern5(), display, [{ replace: 'display' }], [part], ['microphone']);
    expect(items[0]).toEqual({ kind: 'fault', text: 'Did not work when it came in: Microphone.' });
    expect(items.map((each) => each.kind)).toEqual(['fault', 'seal', 'warning', 'origin']);
    expect(items.at(-1)!.text).toContain('Harbour Parts, used');
    expect(ownerMustKnow(dunlinOpen(), port, [{ replace: 'port-board' }], [], [])).toEqual([]);
  });
});

describe('while it is open', () => {
  it('costs the difference of two plans against a job of its own', () => {
    const found = whileOpen(tern5(), [{ replace: 'display' }], {}, display, 'loudspeaker', budget)!;
    const total = ({ seconds }: typeof display) => seconds.strip + seconds.rebuild + seconds.waiting;
    const both = planOf(tern5(), { replace: 'display' }, { replace: 'loudspeaker' });
    const alone = planOf(tern5(), { replace: 'loudspeaker' });
    expect(found.now.seconds).toBeCloseTo(total(both) - total(display), 6);
    expect(found.later.seconds).toBeCloseTo(total(alone), 6);
    expect(found.now.seals).toBe(0);
    expect(found.later.seals).toBe(1);
    expect(found.now.seconds).toBeLessThan(found.later.seconds / 3);
    expect(found.now.delicate).toBeLessThan(found.later.delicate);
  });

  it('is null for what can not be planned', () => {
    expect(whileOpen(tern5(), [{ replace: 'display' }], {}, display, 'nothing', budget)).toBeNull();
  });

  it('marks what is delicate', () => {
    const delicate = display.strip.filter((op) => isDelicate(tern5(), op)).map((op) => op.id);
    expect(delicate).toContain('heat:front-seal');
    expect(delicate).toContain('open:display');
    expect(delicate).not.toContain('lift:connector-lid');
  });
});
