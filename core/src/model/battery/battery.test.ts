import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { foreseen, packOf, packRequest, runDown, transportHints } from './index.ts';

const cell = { capacity_mAh: 5400, nominal_V: 3.8 };

describe('a pack', () => {
  it('adds capacity in parallel: 2 × 5 400 mAh = 10 800 mAh (common practice)', () => {
    expect(packOf([cell, cell], 'parallel').capacity_mAh).toBe(10_800);
    expect(packOf([cell, cell], 'parallel').nominal_V).toBeCloseTo(3.8, 12);
  });

  it('adds voltage in series, where the smaller cell ends the discharge', () => {
    const pack = packOf([cell, { ...cell, capacity_mAh: 5000 }], 'series');
    expect(pack.capacity_mAh).toBe(5000);
    expect(pack.nominal_V).toBeCloseTo(7.6, 12);
  });

  it('holds Wh = Ah × V, the sum of its cells where these are in parallel', () => {
    const pack = packOf([cell, { capacity_mAh: 1000, nominal_V: 3.0 }], 'parallel');
    expect(pack.energy_Wh).toBeCloseTo(5.4 * 3.8 + 1.0 * 3.0, 9);
  });

  it('is run down in energy over load', () => {
    // 20.52 Wh from 75 % to 25 % at 5.13 W: two hours
    const down = runDown({ cells: [cell], wiring: 'parallel', charge: 0.75, target: 0.25, load_W: 5.13 });
    expect(down.seconds).toBeCloseTo(7200, 6);
    expect(
      runDown({ cells: [cell], wiring: 'parallel', health: 0.5, charge: 0.75, target: 0.25, load_W: 5.13 }),
    ).toEqual({
      capacity_mAh: 2700,
      nominal_V: 3.8,
      energy_Wh: 2.7 * 3.8,
      seconds: expect.closeTo(3600, 6),
    });
    expect(runDown({ cells: [cell], wiring: 'parallel', charge: 0.2, target: 0.25, load_W: 5 }).seconds).toBe(0);
  });

  it('hints at transport bounds of 20 Wh a cell and 100 Wh a battery (packing instructions 965 to 967, from memory)', () => {
    expect(transportHints([cell], 'parallel').join()).toContain('20.5 Wh is over 20 Wh');
    expect(transportHints([{ capacity_mAh: 5000, nominal_V: 3.8 }], 'parallel')).toEqual([]);
    expect(
      transportHints(
        Array.from({ length: 6 }, () => ({ capacity_mAh: 5000, nominal_V: 3.8 })),
        'series',
      ).join(),
    ).toContain('over 100 Wh');
  });

  it('refuses what no pack is', () => {
    const request = { cells: [cell], wiring: 'parallel', charge: 0.5, target: 0.2, load_W: 3 };
    const refused = (change: object) => packRequest.validate({ ...request, ...change }).error?.message ?? '';
    expect(refused({})).toBe('');
    expect(refused({ cells: [] })).toContain('cells');
    expect(refused({ load_W: 0 })).toContain('load_W');
    expect(refused({ charge: 1.2 })).toContain('charge');
    expect(refused({ wiring: 'crossed' })).toContain('wiring');
  });
});

describe('the alarm follows the readings', () => {
  it('on a straight line it is exact, whatever the line', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.3, max: 1, noNaN: true }),
        fc.double({ min: 1e-5, max: 1e-3, noNaN: true }),
        fc.integer({ min: 2, max: 40 }),
        (from, slope, count) => {
          const readings = Array.from({ length: count }, (_, n) => ({ at_s: n * 5, charge: from - slope * n * 5 }));
          const last = readings.at(-1)!.charge;
          fc.pre(last > 0.25);
          expect(foreseen(readings, 0.25)! * slope).toBeCloseTo(last - 0.25, 6);
        },
      ),
    );
  });

  it('and says nothing where they do not tell', () => {
    expect(foreseen([], 0.25)).toBeNull();
    expect(foreseen([{ at_s: 0, charge: 0.6 }], 0.25)).toBeNull();
    expect(
      foreseen(
        [
          { at_s: 0, charge: 0.6 },
          { at_s: 60, charge: 0.61 },
        ],
        0.25,
      ),
    ).toBeNull();
    expect(
      foreseen(
        [
          { at_s: 9, charge: 0.6 },
          { at_s: 9, charge: 0.5 },
        ],
        0.25,
      ),
    ).toBeNull();
    expect(foreseen([{ at_s: 0, charge: 0.2 }], 0.25)).toBe(0);
  });

  it('by how it falls now, not by how it fell an hour ago', () => {
    const slow = Array.from({ length: 10 }, (_, n) => ({ at_s: n * 60, charge: 0.9 - n * 0.001 }));
    const fast = Array.from({ length: 10 }, (_, n) => ({ at_s: 4000 + n * 60, charge: 0.8 - n * 0.01 }));
    expect(foreseen([...slow, ...fast], 0.25)).toBeCloseTo(((0.71 - 0.25) / 0.01) * 60, 3);
  });
});
