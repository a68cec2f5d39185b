import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { foundCorners } from './find-corners.ts';
import { type Corner, seen, viewOf } from './four-corners.ts';
import { cornersOf, type Pixels, straightened } from './straighten.ts';

type Paint = (x: number, y: number) => readonly [number, number, number];

function painted(width: number, height: number, paint: Paint): Pixels {
  const data = new Uint8ClampedArray(width * height * 4);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) data.set([...paint(x + 0.5, y + 0.5), 255], (y * width + x) * 4);
  return { width, height, data };
}

/** A light device on a dark mat, seen from elsewhere: its colours tell where on it one is. */
function photographed(corners: readonly Corner[], width = 240, height = 180): Pixels {
  const onDevice = viewOf(corners, cornersOf(200, 200))!;
  return painted(width, height, (x, y) => {
    const { x: u, y: v } = seen(onDevice, { x, y });
    const isOn = u >= 0 && v >= 0 && u <= 200 && v <= 200;
    return isOn ? [55 + u, 55 + v, 200] : [30, 32, 34];
  });
}

const jitter = fc.array(fc.tuple(fc.integer({ min: 0, max: 35 }), fc.integer({ min: 0, max: 25 })), {
  minLength: 4,
  maxLength: 4,
});
const corners = (by: readonly (readonly [number, number])[]): readonly Corner[] => {
  const [a, b, c, d] = by as [[number, number], [number, number], [number, number], [number, number]];
  return [
    { x: 10 + a[0], y: 10 + a[1] },
    { x: 230 - b[0], y: 10 + b[1] },
    { x: 230 - c[0], y: 170 - c[1] },
    { x: 10 + d[0], y: 170 - d[1] },
  ];
};

describe('a photograph set straight', () => {
  it('has each place where the exact projection has it, within a pixel', () => {
    fc.assert(
      fc.property(jitter, (by) => {
        const from = corners(by);
        const straight = straightened(photographed(from), viewOf(cornersOf(200, 200), from)!, 200, 200);
        for (let y = 6; y < 194; y += 23) {
          for (let x = 6; x < 194; x += 23) {
            const at = (y * 200 + x) * 4;
            // a colour is a place: 55 more than its own
            expect(Math.abs(straight.data[at]! - 55 - (x + 0.5))).toBeLessThanOrEqual(1);
            expect(Math.abs(straight.data[at + 1]! - 55 - (y + 0.5))).toBeLessThanOrEqual(1);
          }
        }
      }),
      { numRuns: 25 },
    );
  });

  it('has its corners found by contrast, within four pixels', () => {
    fc.assert(
      fc.property(jitter, (by) => {
        const wanted = corners(by);
        const found = foundCorners(photographed(wanted))!;
        found.forEach(({ x, y }, at) => {
          expect(Math.hypot(x * 240 - wanted[at]!.x, y * 180 - wanted[at]!.y)).toBeLessThanOrEqual(4);
        });
      }),
      { numRuns: 25 },
    );
  });

  it('has none found where nothing differs, or all of it', () => {
    expect(foundCorners(painted(60, 40, () => [90, 90, 90]))).toBeNull();
    expect(
      foundCorners(painted(60, 40, (x, y) => (x > 20 && x < 23 && y > 20 && y < 23 ? [255, 255, 255] : [9, 9, 9]))),
    ).toBeNull();
  });

  it('is clear where the picture has nothing', () => {
    const from = [
      { x: -50, y: -50 },
      { x: 100, y: -50 },
      { x: 100, y: 100 },
      { x: -50, y: 100 },
    ];
    const straight = straightened(
      painted(50, 50, () => [1, 2, 3]),
      viewOf(cornersOf(30, 30), from)!,
      30,
      30,
    );
    expect(straight.data[3]).toBe(0);
    expect(straight.data[(15 * 30 + 15) * 4 + 3]).toBe(255);
  });
});
