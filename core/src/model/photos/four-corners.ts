import { Matrix, solve } from 'ml-matrix';

export interface Corner {
  readonly x: number;
  readonly y: number;
}

/** Eight figures of a plane seen from elsewhere: x' = (a·x + b·y + c) / (g·x + h·y + 1), y' likewise. */
export type View = readonly [number, number, number, number, number, number, number, number];

/**
 * The view that takes four corners to four others (Heckbert, *Fundamentals of Texture Mapping and Image Warping*, 1989,
 * section 2.2.1: eight linear equations; from memory). Null where three of the corners lie on a line.
 */
export function viewOf(from: readonly Corner[], to: readonly Corner[]): View | null {
  if (from.length !== 4 || to.length !== 4 || isFlat(from) || isFlat(to)) return null;
  const rows = from.flatMap(({ x, y }, at) => {
    const { x: u, y: v } = to[at]!;
    return [
      [x, y, 1, 0, 0, 0, -x * u, -y * u],
      [0, 0, 0, x, y, 1, -x * v, -y * v],
    ];
  });
  const right = to.flatMap(({ x, y }) => [[x], [y]]);
  return solve(new Matrix(rows), new Matrix(right)).to1DArray() as unknown as View;
}

export function seen([a, b, c, d, e, f, g, h]: View, { x, y }: Corner): Corner {
  const w = g * x + h * y + 1;
  return { x: (a * x + b * y + c) / w, y: (d * x + e * y + f) / w };
}

/** The same as a CSS transform about the upper left corner. */
export function cssOf([a, b, c, d, e, f, g, h]: View): string {
  return `matrix3d(${[a, d, 0, g, b, e, 0, h, 0, 0, 1, 0, c, f, 0, 1].join(',')})`;
}

/** Do three of them lie on a line, as near as a finger points? */
function isFlat(corners: readonly Corner[]): boolean {
  return corners.some((_, skip) => {
    const [p, q, r] = corners.filter((__, at) => at !== skip) as [Corner, Corner, Corner];
    const area = Math.abs((q.x - p.x) * (r.y - p.y) - (r.x - p.x) * (q.y - p.y)) / 2;
    return area < LEAST_PX2;
  });
}

const LEAST_PX2 = 40;
