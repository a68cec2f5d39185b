import type { Corner } from './four-corners.ts';
import type { Pixels } from './straighten.ts';

/** A device covers at least and at most so much of its photograph. */
const LEAST_SHARE = 0.08;
const MOST_SHARE = 0.97;
/** Brightness and colour have to differ from the mat's by so much, 0 to 441. */
const LEAST_CONTRAST = 28;

/**
 * The four corners of a device that lies on a mat of another colour: what differs from the rim of the picture, its farthest places along
 * both diagonals. Shares of width and height, from the upper left clockwise. Null where there is not contrast enough.
 */
export function foundCorners({ width, height, data }: Pixels): readonly Corner[] | null {
  const mat = rimColour(width, height, data);
  let count = 0;
  const best = DIAGONALS.map(() => ({ reach: -Infinity, x: 0, y: 0 }));
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1; x < width - 1; x++) {
      if (!differs(data, (y * width + x) * 4, mat)) continue;
      // a crumb on the mat has no neighbours
      if (!differs(data, (y * width + x - 1) * 4, mat) || !differs(data, (y * width + x + 1) * 4, mat)) continue;
      if (!differs(data, ((y - 1) * width + x) * 4, mat) && !differs(data, ((y + 1) * width + x) * 4, mat)) continue;
      count++;
      DIAGONALS.forEach(([right, down], at) => {
        const reach = right * (x / width) + down * (y / height);
        if (reach > best[at]!.reach) best[at] = { reach, x, y };
      });
    }
  }
  const share = count / (width * height);
  if (share < LEAST_SHARE || share > MOST_SHARE) return null;
  return best.map(({ x, y }, at) => {
    const [right, down] = DIAGONALS[at]!;
    // the outer side of the outermost pixel
    return { x: (x + (right > 0 ? 1 : 0)) / width, y: (y + (down > 0 ? 1 : 0)) / height };
  });
}

const DIAGONALS = [
  [-1, -1],
  [1, -1],
  [1, 1],
  [-1, 1],
] as const;

type Colour = readonly [number, number, number];

/** The middle colour of the rim of the picture, each channel by itself. */
function rimColour(width: number, height: number, data: Uint8ClampedArray): Colour {
  const rim: number[] = [];
  for (let x = 0; x < width; x++) rim.push(x, (height - 1) * width + x);
  for (let y = 0; y < height; y++) rim.push(y * width, y * width + width - 1);
  const middle = (channel: number) => {
    const values = rim.map((pixel) => data[pixel * 4 + channel]!).toSorted((a, b) => a - b);
    return values[Math.floor(values.length / 2)]!;
  };
  return [middle(0), middle(1), middle(2)];
}

function differs(data: Uint8ClampedArray, at: number, [red, green, blue]: Colour): boolean {
  return Math.hypot(data[at]! - red, data[at + 1]! - green, data[at + 2]! - blue) > LEAST_CONTRAST;
}
