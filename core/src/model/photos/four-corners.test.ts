import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cssOf, seen, viewOf } from './four-corners.ts';

const square = [
  { x: 0, y: 0 },
  { x: 100, y: 0 },
  { x: 100, y: 100 },
  { x: 0, y: 100 },
];

describe('a picture laid over another by four corners', () => {
  it('takes each corner to its own, wherever they are seen from', () => {
    // so far that the four stay the corners of something convex
    const by = fc.integer({ min: -20, max: 20 });
    fc.assert(
      fc.property(fc.array(fc.tuple(by, by), { minLength: 4, maxLength: 4 }), (off) => {
        const to = square.map(({ x, y }, at) => ({ x: x + off[at]![0], y: y + off[at]![1] }));
        const view = viewOf(square, to)!;
        square.forEach((corner, at) => {
          expect(seen(view, corner).x).toBeCloseTo(to[at]!.x, 5);
          expect(seen(view, corner).y).toBeCloseTo(to[at]!.y, 5);
        });
      }),
    );
  });
  it('keeps straight lines straight: the crossing of the diagonals stays on both', () => {
    const to = [
      { x: 10, y: 5 },
      { x: 90, y: 20 },
      { x: 120, y: 110 },
      { x: -10, y: 90 },
    ];
    const middle = seen(viewOf(square, to)!, { x: 50, y: 50 });
    const onLine = (a: (typeof to)[0], b: (typeof to)[0]) =>
      (b.x - a.x) * (middle.y - a.y) - (b.y - a.y) * (middle.x - a.x);
    expect(onLine(to[0]!, to[2]!)).toBeCloseTo(0, 4);
    expect(onLine(to[1]!, to[3]!)).toBeCloseTo(0, 4);
  });
  it('is nothing where three corners lie on a line, or one is missing', () => {
    expect(viewOf(square, [square[0]!, square[1]!, { x: 200, y: 0 }, square[3]!])).toBeNull();
    expect(viewOf(square, square.slice(1))).toBeNull();
  });
  it('is a plain shift as a transform of a style', () => {
    const shifted = square.map(({ x, y }) => ({ x: x + 7, y: y - 3 }));
    const numbers = cssOf(viewOf(square, shifted)!)
      .match(/-?[\d.e-]+/g)!
      .slice(1)
      .map(Number);
    expect(numbers[12]).toBeCloseTo(7, 6);
    expect(numbers[13]).toBeCloseTo(-3, 6);
    expect(numbers[0]).toBeCloseTo(1, 6);
  });
});
