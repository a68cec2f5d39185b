import { describe, expect, it } from 'vitest';
import { bonded, bondRequest } from './index.ts';

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

  it('refuses a mass of 0, none, and two of one thing', () => {
    const refused = (body: object) => bondRequest.validate(body).error?.message;
    expect(refused({ area_mm2: 10, mass_kg: 0 })).toContain('mass_kg');
    expect(refused({ area_mm2: 10 })).toContain('mass_kg or a pressure_kPa');
    expect(refused({ area_mm2: 10, segments: [{ length_mm: 1, width_mm: 1 }], mass_kg: 1 })).toContain('one of each');
    expect(refused({ segments: [{ length_mm: -1, width_mm: 1 }], mass_kg: 1 })).toContain('length_mm');
  });
});
