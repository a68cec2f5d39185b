import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { loadFrom, loadRequest, type Weight } from './index.ts';

const over = { w: 160, h: 240 };
const shelf = (...kinds: readonly (readonly [kg: number, count: number])[]): Weight[] =>
  kinds.map(([mass_kg, count]) => ({ id: `${mass_kg} kg`, mass_kg, count }));

/** Every sum of at most nine weights. */
function leastSum(asked: number, weights: readonly Weight[]): number | null {
  let sums = [{ sum: 0, count: 0 }];
  for (const { mass_kg, count } of weights) {
    sums = sums.flatMap((each) =>
      Array.from({ length: count + 1 }, (_, n) => ({ sum: each.sum + n * mass_kg, count: each.count + n })),
    );
  }
  const enough = sums.filter(({ sum, count }) => count <= 9 && sum >= asked - 1e-9).map(({ sum }) => sum);
  return enough.length > 0 ? Math.min(...enough) : null;
}

describe('a load from the weights at hand', () => {
  it('of 32 kg is made of the fewest, and stands centred', () => {
    const load = loadFrom({ mass_kg: 32, weights: shelf([10, 2], [5, 2], [2, 6]), over })!;
    expect(load.mass_kg).toBe(32);
    expect(load.placed.map(({ mass_kg }) => mass_kg)).toEqual([10, 10, 5, 5, 2]);
    expect(load.off_mm).toBeLessThan(0.01);
    expect(loadFrom({ mass_kg: 8, weights: shelf([8, 1]), over })).toMatchObject({
      off_mm: 0,
      placed: [{ x: 80, y: 120 }],
    });
    const two = loadFrom({ mass_kg: 8, weights: shelf([4, 2]), over })!;
    expect(two.off_mm).toBeCloseTo(0, 9);
    const uneven = loadFrom({ mass_kg: 3, weights: shelf([2, 1], [1, 1]), over })!;
    expect(uneven.off_mm).toBeCloseTo(0, 9);
    expect(uneven.placed.every(({ y }) => y > 20 && y < 220)).toBe(true);
  });

  it('is the least sum that is enough (every sum tried), on places of its own', () => {
    const kinds = fc.array(fc.tuple(fc.constantFrom(0.5, 1, 2, 3, 5, 8), fc.integer({ min: 0, max: 4 })), {
      maxLength: 4,
    });
    fc.assert(
      fc.property(kinds, fc.integer({ min: 1, max: 24 }), (given, mass_kg) => {
        const weights = shelf(...new Map(given));
        const load = loadFrom({ mass_kg, weights, over });
        expect(load?.mass_kg ?? null).toBe(leastSum(mass_kg, weights));
        const places = load?.placed.map(({ x, y }) => `${x} ${y}`) ?? [];
        expect(new Set(places).size).toBe(places.length);
      }),
      { numRuns: 60 },
    );
  });

  it('is none where the shelf is too light, and of a mass of 0 is refused', () => {
    expect(loadFrom({ mass_kg: 32, weights: shelf([10, 2]), over })).toBeNull();
    expect(loadFrom({ mass_kg: 1, weights: [], over })).toBeNull();
    const refused = (mass_kg: number) => loadRequest.validate({ mass_kg, weights: [], over }).error?.message;
    expect(refused(0)).toContain('mass_kg');
    expect(refused(1)).toBeUndefined();
  });
});
