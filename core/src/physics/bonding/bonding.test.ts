import { describe, expect, it } from 'vitest';
import type { BondJoint } from '../../model/device-map/index.ts';
import { bonded, bondRequest, pressOf, secondsToStrength, strengthAfter } from './index.ts';

describe('a weight on a bond', () => {
  it('of 32 kg on 3 mm strips, 1 013 mm together, is about 103 kPa = 15 psi (a data sheet, from memory)', () => {
    const said = bonded({ segments: [{ length_mm: 1013, width_mm: 3 }], mass_kg: 32 });
    expect(said.area_mm2).toBe(3039);
    expect(said.force_N).toBeCloseTo(32 * 9.80665, 9);
    expect(said.pressure_kPa).toBeCloseTo(103.3, 1);
    expect(said.pressure_psi).toBeCloseTo(15, 1);
  });

  it('is found for a pressure, and gives that pressure back', () => {
    const { mass_kg } = bonded({ area_mm2: 3039, pressure_kPa: 103 });
    expect(bonded({ area_mm2: 3039, mass_kg }).pressure_kPa).toBeCloseTo(103, 9);
  });

  it.each([
    [0, 0],
    [600, 0.25],
    [1200, 0.5],
    [86_400, 0.9],
    [259_200, 1],
    [1e6, 1],
    // half way on the logarithm of time between 20 min and 24 h
    [Math.sqrt(1200 * 86_400), 0.7],
  ])('after %s s has %s of its strength (a data sheet, from memory)', (dwell_s, share) => {
    expect(bonded({ area_mm2: 100, mass_kg: 1, dwell_s }).strengthFraction).toBeCloseTo(share, 9);
  });

  it('is strong by when, read the other way', () => {
    for (const share of [0, 0.2, 0.5, 0.7, 0.9, 0.97, 1]) {
      expect(strengthAfter(secondsToStrength(share))).toBeCloseTo(share, 9);
    }
    expect(secondsToStrength(0.9)).toBeCloseTo(86_400, 6);
    expect(secondsToStrength(2)).toBe(259_200);
  });

  it('refuses a mass of 0, none, and two of one thing', () => {
    const refused = (body: object) => bondRequest.validate(body).error?.message;
    expect(refused({ area_mm2: 10, mass_kg: 0 })).toContain('mass_kg');
    expect(refused({ area_mm2: 10 })).toContain('mass_kg or a pressure_kPa');
    expect(refused({ area_mm2: 10, segments: [{ length_mm: 1, width_mm: 1 }], mass_kg: 1 })).toContain('one of each');
    expect(refused({ segments: [{ length_mm: -1, width_mm: 1 }], mass_kg: 1 })).toContain('length_mm');
  });
});

describe('the press of a bond of a device', () => {
  const side = (x1: number, y1: number, x2: number, y2: number) => ({
    id: `${x1}${y1}`,
    from: { x: x1, y: y1 },
    to: { x: x2, y: y2 },
  });
  // all four sides, 1 013 mm together
  const bond = (more: object) =>
    ({
      width: 3,
      segments: [side(0, 0, 250, 0), side(250, 0, 250, 256.5), side(250, 256.5, 0, 256.5), side(0, 256.5, 0, 0)],
      ...more,
    }) as unknown as BondJoint;
  it('is 32 kg for 15 psi on 1 013 mm of 3 mm strips, either way (a data sheet, from memory)', () => {
    expect(pressOf(bond({ close: { mass_kg: 32 } }))).toMatchObject({
      from: 'map',
      pressure_kPa: expect.closeTo(103, 0),
    });
    expect(pressOf(bond({}))).toMatchObject({ from: 'tape', mass_kg: expect.closeTo(32, 0) });
  });
  it('is unknown where the map says neither width nor segments', () => {
    expect(pressOf(bond({ width: undefined }))).toBeNull();
    expect(pressOf(bond({ segments: [] }))).toBeNull();
    expect(pressOf(bond({ segments: [side(1, 1, 1, 1)] }))).toBeNull();
  });
});
