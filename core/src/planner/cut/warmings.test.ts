import { describe, expect, it } from 'vitest';
import { bondOf, petrelGlass, shearwater11, tern5 } from '../../../test/maps.ts';
import type { BondSegment } from '../../model/device-map/index.ts';
import { planCut, warmedAs } from './index.ts';
import { warmingsOf } from './warmings.ts';

const speed_mm_s = 4;

// common practice, no source
describe('how often a bond is warmed for its cut', () => {
  const [phone, back, tablet] = [tern5(), petrelGlass(), shearwater11()];
  const seal = bondOf(phone, 'front-seal');

  it('is once for a phone on a plate of 70 °C for 5 min, cut all round', () => {
    expect(seal.recipe).toMatchObject({ source: 'plate', temp_C: 70, seconds: 300 });
    expect(warmingsOf(phone, seal, 'plate', { speed_mm_s, warm: 'all-round' })).toBe(1);
  });

  it('is once with hot air on the starting edge only, then round', () => {
    expect(warmingsOf(phone, seal, 'air', { speed_mm_s, warm: 'start-edge' })).toBe(1);
  });

  it('is twice for a back in two halves', () => {
    expect(warmingsOf(back, bondOf(back, 'back-bond'), 'air', { speed_mm_s, warm: 'halves' })).toBe(2);
  });

  it('is twice or three times for a tablet with a wide bond, all round', () => {
    for (const source of ['plate', 'air'] as const) {
      const often = warmingsOf(tablet, bondOf(tablet, 'front-bond'), source, { speed_mm_s, warm: 'all-round' });
      expect([2, 3], source).toContain(often);
    }
  });

  it('is not known for what is not cut, and for what a source never softens', () => {
    expect(warmingsOf(phone, bondOf(phone, 'cell-straps'), 'plate', { speed_mm_s })).toBeNull();
    const stubborn = { ...seal, soften_C: 84 };
    expect(warmingsOf(phone, stubborn, 'plate', { speed_mm_s })).toBeNull();
  });
});

describe('what is warmed at once', () => {
  const side = (id: string, from: [number, number], to: [number, number], zone?: string): BondSegment => ({
    id,
    from: { x: from[0], y: from[1] },
    to: { x: to[0], y: to[1] },
    depth: 2,
    ...(zone === undefined ? {} : { zone }),
  });
  const round = (zones: readonly string[] = []) => [
    side('top', [0, 0], [70, 0], zones[0]),
    side('right', [70, 0], [70, 140], zones[1]),
    side('bottom', [70, 140], [0, 140], zones[2]),
    side('left', [0, 140], [0, 0], zones[3]),
  ];
  const cut = (warm: 'as-mapped' | 'all-round' | 'halves' | 'start-edge', segments = round()) =>
    planCut({ segments, speed_mm_s, start: 'bottom', warm });

  it('is a zone of its own only where it is warmed for itself', () => {
    expect(cut('all-round').edges.map(({ zone }) => zone)).toEqual([undefined, undefined, undefined, undefined]);
    expect(cut('start-edge')).toMatchObject({ warmings: 1, reheats: 0 });
    expect(cut('start-edge').edges[0]).toMatchObject({ segment: 'bottom', zone: 'starting edge' });
    expect(cut('start-edge').edges[1]).not.toHaveProperty('zone');
  });

  it('is half of the way round, or the zones of the map where there are two', () => {
    const halves = cut('halves');
    expect(halves.edges.map(({ zone }) => zone)).toEqual(['first half', 'first half', 'second half', 'second half']);
    expect(halves).toMatchObject({ warmings: 2, edges: [{}, {}, { reheatBefore: true }, {}] });
    const mapped = round(['upper', 'upper', 'lower', 'lower']);
    expect(new Set(cut('halves', mapped).edges.map(({ zone }) => zone))).toEqual(new Set(['lower', 'upper']));
    // two halves also of a bond with one long edge
    expect(cut('halves', round().slice(2)).edges.map(({ zone }) => zone)).toEqual(['first half', 'second half']);
  });

  it('leaves out the zones of the map where it is warmed all round', () => {
    const zones = ['a', 'b', 'a', 'b'];
    expect(cut('as-mapped', round(zones)).warmings).toBe(2);
    expect(cut('all-round', round(zones)).warmings).toBe(1);
    const [map, bond] = [shearwater11(), bondOf(shearwater11(), 'front-bond')];
    expect(warmedAs(map, bond, 'all-round').segments!.some(({ zone }) => zone !== undefined)).toBe(false);
    expect(warmedAs(map, bond, 'as-mapped')).toBe(bond);
  });

  it('is heated again where an open seam drags, not where it is no longer soft', () => {
    const heat = { workingTime_s: 40, dragTime_s: 200 };
    expect(planCut({ segments: round(), speed_mm_s, heat }).warmings).toBe(1);
    expect(planCut({ segments: round(), speed_mm_s, heat: { workingTime_s: 40 } }).warmings).toBeGreaterThan(2);
    const cold = { ...heat, dragFor_s: { left: 10 } };
    const edge = planCut({ segments: round(), speed_mm_s, heat: cold }).edges.find(
      ({ segment }) => segment === 'left',
    )!;
    expect(edge).toMatchObject({ reheatBefore: true });
  });
});
