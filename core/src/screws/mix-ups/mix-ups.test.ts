import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoMaps, gannetWorks, tern5 } from '../../../test/maps.ts';
import { DEFAULT_LIMITS as LIMITS } from '../../model/limits/index.ts';
import { planRepair } from '../../planner/plan/index.ts';
import {
  BY_CALIPER,
  harmOf,
  holesOf,
  judgedDoubt,
  keepings,
  kindsIn,
  lookAlikes,
  lostScrew,
  takenFor,
  turnsOf,
} from './index.ts';

const kind = (length: number, { drive = 'PH000', thread = 'M1.4x0.3', head = 2, colour }: Partial<Kind> = {}) => ({
  drive,
  thread,
  length,
  head,
  ...(colour === undefined ? {} : { colour }),
});
interface Kind {
  readonly drive: string;
  readonly thread: string;
  readonly head: number;
  readonly colour: string;
}
const board = { depth: 1.2, below: 'board' } as const;
const planned = (map = tern5()) =>
  planRepair({ map, targets: [{ full: true }] }, { now: () => 0, limitMs: 1000 }).strip;

describe('the harm of a screw in a hole that is not its own', () => {
  it('flags 3.1 mm in a hole for 1.2 mm before anybody drives it (common practice)', () => {
    expect(harmOf(kind(3.1), kind(1.2), board, LIMITS)).toEqual({
      minutes: LIMITS.hurtBoard_min,
      text: 'sticks out 1.9 mm, into the board',
    });
  });
  it('costs as much as what lies below', () => {
    const over = (below: 'battery' | 'metal') => harmOf(kind(3.1), kind(1.2), { depth: 1.2, below }, LIMITS)!.minutes;
    expect(over('battery')).toBe(LIMITS.hurtBattery_min);
    expect(over('metal')).toBe(LIMITS.hurtMetal_min);
  });
  it('says how much less one holds that is short, and that one that is too thin holds nothing', () => {
    const hole = { depth: 4, below: 'board' } as const;
    expect(harmOf(kind(2.4), kind(3.6), hole, LIMITS)!.text).toBe('holds by 1.2 mm less');
    expect(harmOf(kind(3.6, { thread: 'M1.2x0.25' }), kind(3.6), hole, LIMITS)!.text).toContain('too thin');
    expect(harmOf(kind(3.6, { thread: 'M1.6x0.35' }), kind(3.6), hole, LIMITS)!.minutes).toBe(LIMITS.hurtThread_min);
  });
  it('is nothing where only the drive differs', () => {
    expect(harmOf(kind(1.2, { drive: 'T5' }), kind(1.2), board, LIMITS)).toBeNull();
  });
});

describe('look-alikes', () => {
  it('are a tossed coin where they are alike, and tell apart by Φ(−D/√2) (Φ(−1) = 0.1587, normal tables)', () => {
    const tells = { tellLength_mm: 0.3, tellHead_mm: 0.3 };
    expect(takenFor(kind(2), kind(2), tells)).toBeCloseTo(0.5, 6);
    expect(takenFor(kind(2), kind(2 + 0.3 * Math.SQRT2), tells)).toBeCloseTo(0.1587, 4);
    expect(takenFor(kind(2), kind(2, { drive: 'T5' }), tells)).toBeLessThan(0.02);
  });
  it('are told apart better the more they differ, and by a caliper better than by eye', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.1, max: 3, noNaN: true }), (by) => {
        const seen = takenFor(kind(3), kind(3 + by), LIMITS);
        expect(takenFor(kind(3), kind(3 + 2 * by), LIMITS)).toBeLessThanOrEqual(seen);
        expect(takenFor(kind(3), kind(3 + by), BY_CALIPER)).toBeLessThanOrEqual(seen);
        expect(takenFor(kind(3 + by), kind(3), LIMITS)).toBe(seen);
      }),
    );
  });
});

describe('how screws are kept', () => {
  it.each(demoMaps().map((map) => [map.id, map] as const))('never costs more in more containers: %s', (_, map) => {
    const strip = planned(map);
    const risk = (containers: number) =>
      keepings(map, strip, { ...LIMITS, containers }).find(({ school }) => school === 'containers-apart')!.risk_min;
    const risks = [1, 2, 3, 4, 6, 50].map(risk);
    expect(risks).toEqual(risks.toSorted((a, b) => b - a));
    expect(risks.at(-1)).toBe(0);
  });
  it('puts every kind that comes out into one container', () => {
    const map = tern5();
    const strip = planned(map);
    const apart = keepings(map, strip, LIMITS).find(({ school }) => school === 'containers-apart')!;
    const kinds = kindsIn(holesOf(map)).map((each) => each.kind.id);
    expect(apart.kept.flatMap(({ fasteners }) => fasteners).toSorted()).toEqual(kinds.toSorted());
    expect(apart.kept.length).toBeLessThanOrEqual(LIMITS.containers);
  });
  it('is at no risk where one screw has two names, nor where there are no screws', () => {
    const map = tern5();
    const [first] = map.fasteners;
    const twice = {
      ...map,
      fasteners: [first!, { ...first!, id: 'again' }],
      joints: map.joints
        .filter((each) => each.type === 'screw')
        .slice(0, 2)
        .map((each, at) => ({
          ...each,
          fastener: at === 0 ? first!.id : 'again',
          points: each.points.map(({ id, x, y, below }) => ({ id, x, y, below, depth: first!.length })),
        })),
    };
    expect(lookAlikes(twice, undefined, LIMITS)).toEqual([]);
    const none = { ...map, fasteners: [], joints: [] };
    expect(keepings(none, [], LIMITS).map(({ risk_min, kept }) => [risk_min, kept])).toEqual([
      [0, []],
      [0, []],
      [0, []],
    ]);
    expect(judgedDoubt(none, undefined, { length_mm: 3 }, LIMITS).kinds).toEqual([{ fastener: null, p: 1 }]);
  });
  it.each([0, -1, 1.5])('refuses %s containers', (containers) => {
    expect(() => keepings(tern5(), planned(), { ...LIMITS, containers })).toThrow();
  });
});

describe('a screw in doubt', () => {
  const map = gannetWorks();
  it('says what it can be, where it may go and what would tell', () => {
    const doubt = judgedDoubt(map, undefined, { length_mm: 2.45, drive: 'PH000' }, LIMITS);
    expect(doubt.kinds.map(({ fastener }) => fastener).toSorted()).toEqual(['holder', 'lid']);
    expect(doubt.tells).toMatch(/^Measure its length \d+ times/);
    expect(doubt.holes[0]!.risk_min).toBeLessThan(1);
    const worst = doubt.holes.at(-1)!;
    expect(worst.risk_min).toBeGreaterThan(doubt.holes[0]!.risk_min);
  });
  it('never sends a long one to a short hole over the board first', () => {
    const doubt = judgedDoubt(map, undefined, { length_mm: 4.2, drive: 'PH000' }, LIMITS);
    const lid = doubt.holes.find(({ joint }) => joint === 'lid-screws')!;
    expect(lid.harm!.text).toBe('sticks out 1.5 mm, into the board');
    expect(doubt.holes[0]).toMatchObject({ joint: 'clamp-screw', risk_min: 0, harm: null });
  });
  it.each([-1, 0, 900])('refuses a length of %s mm by its name', (length_mm) => {
    expect(() => judgedDoubt(map, undefined, { length_mm }, LIMITS)).toThrow(/length/i);
  });
  it('refuses a measure without scatter', () => {
    expect(() => judgedDoubt(map, undefined, { length_mm: 3, sd_mm: 0 }, LIMITS)).toThrow(/scatter/i);
  });
});

describe('a lost screw', () => {
  it('names what fits its hole without harm, what it risks, and what is ordered', () => {
    const lid = lostScrew(gannetWorks(), { joint: 'lid-screws', point: 'l1' }, LIMITS)!;
    expect(lid.substitutes).toEqual(['holder']);
    expect(lid.risk).toContain('Compass shield first: magnets');
    expect(lid.order).toBe('M1.4x0.3 × 2.4 mm, PH000, head 2.2 mm');
    expect(lostScrew(gannetWorks(), { joint: 'lid-screws', point: 'more-1' }, LIMITS)).toBeNull();
    // brass is held by no magnet
    expect(lostScrew(gannetWorks(), { joint: 'shield-screws', point: 'c1' }, LIMITS)!.risk).not.toContain('magnets');
  });
});

it('turns are the depth over the pitch: 3.6 mm of M1.4 half in a board are 6', () => {
  const map = gannetWorks();
  const turns = (id: string) => turnsOf(map, holesOf(map, [id])[0]!);
  expect(turns('board-screws')).toBe(6);
  expect(turns('lid-screws')).toBe(Math.round(1.4 / 0.3));
});
