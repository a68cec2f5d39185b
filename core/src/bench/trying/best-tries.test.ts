import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bestTries, expectedOf, type TryProblem } from './best-tries.ts';

/** A made-up way back of eight operations, tried at the end, whatever else. */
const problem = fc
  .record({
    doubts: fc.array(
      fc.record({
        p: fc.double({ min: 0, max: 0.5, noNaN: true }),
        shows: fc.integer({ min: 1, max: 8 }),
        step: fc.integer({ min: 0, max: 300 }),
      }),
      { maxLength: 5 },
    ),
    more: fc.subarray([2, 5]),
    test_s: fc.array(fc.integer({ min: 0, max: 120 }), { minLength: 9, maxLength: 9 }),
  })
  .map(({ doubts, more, test_s }): TryProblem => ({
    doubts: doubts.map(({ p, shows, step }) => ({ p, shows, undo_s: (at: number) => step * (at - shows + 1) })),
    fixed: [...more, 8],
    places: [1, 2, 3, 4, 5, 6, 7],
    test_s: (before, at) => test_s[at]! + (at - before),
  }));

/** Every choice of places that has the fixed ones. */
function choices({ fixed, places }: TryProblem): number[][] {
  const free = places.filter((at) => !fixed.includes(at));
  return Array.from({ length: 2 ** free.length }, (_, bits) =>
    [...fixed, ...free.filter((_at, index) => (bits >> index) & 1)].toSorted((a, b) => a - b),
  );
}

describe('where to try', () => {
  it('is no dearer than any other choice of places (every one of them tried)', () => {
    fc.assert(
      fc.property(problem, (given) => {
        const { at, expected_s } = bestTries(given);
        const least = Math.min(...choices(given).map((each) => expectedOf(given, each)));
        expect(expected_s).toBeCloseTo(least, 9);
        expect(expectedOf(given, at)).toBeCloseTo(least, 9);
        expect(at).toEqual(expect.arrayContaining([...given.fixed]));
      }),
    );
  });

  it('is before the lid where a fault is likely and the lid takes long, and not where trying takes longer', () => {
    const lid = (p: number, test_s: number): TryProblem => ({
      doubts: [{ p, shows: 1, undo_s: (at) => (at < 2 ? 10 : 400) }],
      fixed: [2],
      places: [1],
      test_s: (_, at) => (at === 1 ? test_s : 0),
    });
    expect(bestTries(lid(0.2, 60)).at).toEqual([1, 2]);
    expect(bestTries(lid(0.2, 90)).at).toEqual([2]);
    expect(bestTries(lid(0.02, 60)).at).toEqual([2]);
    expect(bestTries({ ...lid(0.5, 0), doubts: [], fixed: [], places: [] })).toEqual({ at: [], expected_s: 0 });
  });
});
