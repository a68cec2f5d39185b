import Joi from 'joi';

/** Weights of one kind that stand at the bench. */
export interface Weight {
  readonly id: string;
  readonly mass_kg: number;
  readonly count: number;
}

export interface LoadRequest {
  /** what the bond asks for */
  readonly mass_kg: number;
  readonly weights: readonly Weight[];
  /** the frame that spreads it, over the bond's middle: width and height */
  readonly over: { readonly w: number; readonly h: number };
}

interface Placed {
  readonly weight: string;
  readonly mass_kg: number;
  /** of its middle, mm from the corner of what it stands over */
  readonly x: number;
  readonly y: number;
}

export interface Load {
  readonly placed: readonly Placed[];
  readonly mass_kg: number;
  /** how far the middle of the load lies from the middle of the bond */
  readonly off_mm: number;
}

export const loadRequest = Joi.object<LoadRequest>({
  mass_kg: Joi.number().greater(0).max(500).required(),
  weights: Joi.array()
    .max(20)
    .unique('id')
    .items(
      Joi.object({
        id: Joi.string().min(1).max(200).required(),
        mass_kg: Joi.number().min(0.01).max(200).required(),
        count: Joi.number().integer().min(0).max(100).required(),
      }),
    )
    .required(),
  over: Joi.object({
    w: Joi.number().greater(0).max(2000).required(),
    h: Joi.number().greater(0).max(2000).required(),
  }).required(),
});

/** Masses are read to this. */
const GRAIN_kg = 0.01;
/** More do not stand side by side over a tablet (guess). */
const MOST_PLACED = 9;

/**
 * Which of the weights at hand make up a load, and where they stand so that it is centred: the least mass that is enough, of as few
 * weights as can be, each on a place of its own. Null where all of them together are not enough, or more than nine would be needed.
 */
export function loadFrom({ mass_kg, weights, over }: LoadRequest): Load | null {
  const chosen = leastEnough(mass_kg, weights);
  return chosen && centred(chosen, over);
}

interface One {
  readonly weight: string;
  readonly mass_kg: number;
}

/** The least sum that is enough, with the fewest weights: every sum there is, in steps of ten grams. */
function leastEnough(mass_kg: number, weights: readonly Weight[]): One[] | null {
  const asked = Math.ceil(mass_kg / GRAIN_kg - 1e-9);
  const all = weights.flatMap(({ id, mass_kg: each, count }) =>
    Array.from({ length: Math.min(count, MOST_PLACED) }, (): One => ({ weight: id, mass_kg: each })),
  );
  const heaviest = Math.max(0, ...all.map((each) => grains(each)));
  // past what is asked for by more than one weight, one of them could be left out
  const most = asked + heaviest;
  /** by sum, the fewest weights that make it */
  const ways: (readonly number[] | undefined)[] = [[]];
  all.forEach((each, index) => {
    const mass = grains(each);
    for (let sum = most - mass; sum >= 0; sum--) {
      const way = ways[sum];
      if (!way || way.length >= MOST_PLACED) continue;
      const known = ways[sum + mass];
      if (!known || known.length > way.length + 1) ways[sum + mass] = [...way, index];
    }
  });
  for (let sum = asked; sum <= most; sum++) {
    const way = ways[sum];
    if (way) return way.map((index) => all[index]!);
  }
  return null;
}

function grains({ mass_kg }: One): number {
  return Math.max(1, Math.round(mass_kg / GRAIN_kg));
}

/** One in the middle; two to nine on places that lie evenly over the length and the width. */
function centred(chosen: readonly One[], { w, h }: LoadRequest['over']): Load {
  const places = placesFor(chosen.length, w, h);
  const ordered = chosen.toSorted((a, b) => b.mass_kg - a.mass_kg);
  const total = ordered.reduce((sum, { mass_kg }) => sum + mass_kg, 0);
  const used = new Set<number>();
  let best: { readonly at: readonly number[]; readonly off: number } | null = null;
  const at: number[] = [];
  const place = (index: number, mx: number, my: number) => {
    const one = ordered[index];
    if (!one) {
      const off = Math.hypot(mx, my) / total;
      if (!best || off < best.off - 1e-9) best = { at: [...at], off };
      return;
    }
    // alike weights are told apart by nothing: each stands on a later place than the one before
    const isAlike = ordered[index - 1]?.mass_kg === one.mass_kg;
    for (let each = isAlike ? at[index - 1]! + 1 : 0; each < places.length; each++) {
      if (used.has(each)) continue;
      used.add(each);
      at[index] = each;
      place(index + 1, mx + one.mass_kg * (places[each]!.x - w / 2), my + one.mass_kg * (places[each]!.y - h / 2));
      used.delete(each);
    }
  };
  place(0, 0, 0);
  const placed = ordered.map((one, index): Placed => ({ ...one, ...places[best!.at[index]!]! }));
  return shiftedToTheMiddle(placed, total, { w, h });
}

/** All of them moved by as much as their middle is off, as far as they stay over the part. */
function shiftedToTheMiddle(placed: readonly Placed[], total: number, { w, h }: LoadRequest['over']): Load {
  const middle = (of: (one: Placed) => number) => placed.reduce((sum, one) => sum + one.mass_kg * of(one), 0) / total;
  const shift = (of: (one: Placed) => number, length: number) => {
    const wanted = length / 2 - middle(of);
    const least = Math.min(...placed.map(of)) - length * RIM;
    const most = length * (1 - RIM) - Math.max(...placed.map(of));
    return Math.min(Math.max(wanted, -Math.max(0, least)), Math.max(0, most));
  };
  const by = { x: shift(({ x }) => x, w), y: shift(({ y }) => y, h) };
  const moved = placed.map((one) => ({ ...one, x: one.x + by.x, y: one.y + by.y }));
  const off = (of: (one: Placed) => number, length: number) =>
    moved.reduce((sum, one) => sum + one.mass_kg * of(one), 0) / total - length / 2;
  return {
    placed: moved,
    mass_kg: total,
    off_mm: Math.hypot(
      off(({ x }) => x, w),
      off(({ y }) => y, h),
    ),
  };
}

/** No weight stands nearer to the rim than this share of the length (guess). */
const RIM = 0.12;

/** Rows along the length, two across where there are many; an odd one out stands in the middle of its own. */
function placesFor(count: number, w: number, h: number) {
  const across = count > 4 ? 3 : count > 3 ? 2 : 1;
  const along = Math.ceil(count / across);
  const [columns, rows] = h >= w ? [across, along] : [along, across];
  return Array.from({ length: rows * columns }, (_, index) => ({
    x: ((Math.floor(index % columns) + 0.5) * w) / columns,
    y: ((Math.floor(index / columns) + 0.5) * h) / rows,
  }));
}
