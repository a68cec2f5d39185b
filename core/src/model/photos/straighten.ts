import type { Corner, View } from './four-corners.ts';

/** A picture as rows of red, green, blue and opacity, each 0 to 255. */
export interface Pixels {
  readonly width: number;
  readonly height: number;
  readonly data: Uint8ClampedArray;
}

/**
 * A plane seen from elsewhere as it is seen from straight above: each of its pixels is fetched from where the view has its middle, between
 * the four that lie about it (bilinear). What lies outside of the picture is clear.
 * @param view takes places of the straight picture, px, to those of the one that was taken
 */
export function straightened(taken: Pixels, view: View, width: number, height: number): Pixels {
  const data = new Uint8ClampedArray(width * height * 4);
  const [a, b, c, d, e, f, g, h] = view;
  const { width: wide, height: high, data: from } = taken;
  for (let row = 0; row < height; row++) {
    const y = row + 0.5;
    for (let column = 0; column < width; column++) {
      const x = column + 0.5;
      const w = g * x + h * y + 1;
      const u = (a * x + b * y + c) / w - 0.5;
      const v = (d * x + e * y + f) / w - 0.5;
      const left = Math.floor(u);
      const top = Math.floor(v);
      if (left < -1 || top < -1 || left >= wide || top >= high) continue;
      const right = u - left;
      const low = v - top;
      const x0 = Math.max(0, left);
      const x1 = Math.min(wide - 1, left + 1);
      const y0 = Math.max(0, top) * wide;
      const y1 = Math.min(high - 1, top + 1) * wide;
      const [p, q, r, s] = [(y0 + x0) * 4, (y0 + x1) * 4, (y1 + x0) * 4, (y1 + x1) * 4];
      const at = (row * width + column) * 4;
      for (let channel = 0; channel < 4; channel++) {
        const upper = from[p + channel]! * (1 - right) + from[q + channel]! * right;
        const lower = from[r + channel]! * (1 - right) + from[s + channel]! * right;
        data[at + channel] = upper * (1 - low) + lower * low;
      }
    }
  }
  return { width, height, data };
}

/** The corners of a straight picture, from the upper left clockwise, px. */
export function cornersOf(width: number, height: number): readonly Corner[] {
  return [
    { x: 0, y: 0 },
    { x: width, y: 0 },
    { x: width, y: height },
    { x: 0, y: height },
  ];
}
