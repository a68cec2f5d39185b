import { describe, expect, it } from 'vitest';
import { DEFAULT_LIMITS } from '../../model/limits/index.ts';
import { airing, soakProblem } from './index.ts';

const room = { drop_uL: 50, benchVolume_L: 100, airChanges_h: 6 };

describe('airing before heat', () => {
  it('knows the vapour of a drop: a millilitre of isopropanol makes some 314 mL (ideal gas at 20 °C, by hand)', () => {
    expect(airing(20, room).vapour_mL).toBeCloseTo(314.3, 0);
    // in 100 L that is 0.31 % by volume, a sixth of the lower limit of 2 % (NIOSH Pocket Guide, from memory)
    expect(airing(20, room).percent).toBeCloseTo(0.314, 2);
  });

  it('takes no time for no drops, dries off for a few, and thins as air changes do for more', () => {
    expect(airing(0, room).seconds).toBe(0);
    expect(airing(2, { ...room, benchVolume_L: 10_000 }).seconds).toBe(120);
    // five times the mean is 0.786 of the limit: ln(7.86) of 600 s each, after the 120 s
    expect(airing(20, room).seconds).toBe(Math.round(120 + 600 * Math.log(airing(20, room).shareOfLimit / 0.1)));
    expect(airing(20, { ...room, airChanges_h: 12 }).seconds).toBeLessThan(airing(20, room).seconds);
    expect(airing(40, room).seconds).toBeGreaterThan(airing(20, room).seconds);
  });

  it('lets solvent near only what is off, away and cool', () => {
    const said = (change: object) =>
      soakProblem({ heating: false, bond_C: 30, away: true, ...change }, DEFAULT_LIMITS, 'C')?.message ?? null;
    expect(said({})).toBeNull();
    expect(said({ bond_C: undefined })).toBeNull();
    expect(said({ heating: true })).toContain('source is on');
    expect(said({ away: false })).toContain('away from the heat source');
    expect(said({ bond_C: 47.4 })).toContain('47 °C');
  });
});
