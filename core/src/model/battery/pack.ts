import Joi from 'joi';

export interface Cell {
  readonly capacity_mAh: number;
  readonly nominal_V: number;
}

export interface PackRequest {
  readonly cells: readonly Cell[];
  readonly wiring: 'series' | 'parallel';
  /** what is left of the capacity it had when new, 0 to 1; 1 where it is left out */
  readonly health?: number;
  /** 0 to 1 */
  readonly charge: number;
  readonly target: number;
  readonly load_W: number;
}

/** What a pack holds when full, as worn as it is. */
export interface Pack {
  readonly capacity_mAh: number;
  readonly nominal_V: number;
  readonly energy_Wh: number;
}

const share = Joi.number().min(0).max(1);

/** docs/http.md, compute/battery. */
export const packRequest = Joi.object({
  cells: Joi.array()
    .min(1)
    .max(100)
    .items(
      Joi.object({
        capacity_mAh: Joi.number().min(0.001).max(1_000_000).required(),
        nominal_V: Joi.number().min(0.001).max(100).required(),
      }).unknown(true),
    )
    .required(),
  wiring: Joi.string().valid('series', 'parallel').required(),
  health: Joi.number().greater(0).max(1.5),
  charge: share.required(),
  target: share.required(),
  load_W: Joi.number().min(0.001).max(10_000).required(),
}).unknown(true);

/**
 * Parallel cells add capacity, series cells add voltage (docs/check-values.md). In series the smallest cell ends the discharge; in
 * parallel unlike voltages are weighed by capacity, so that the energy is the sum of the cells'.
 */
export function packOf(cells: readonly Cell[], wiring: 'series' | 'parallel', health = 1): Pack {
  const capacities = cells.map((each) => each.capacity_mAh);
  const sum = capacities.reduce((total, each) => total + each, 0);
  const asNew_mAh = wiring === 'parallel' ? sum : Math.min(...capacities);
  const nominal_V =
    wiring === 'parallel'
      ? cells.reduce((total, each) => total + (each.capacity_mAh / sum) * each.nominal_V, 0)
      : cells.reduce((total, each) => total + each.nominal_V, 0);
  const capacity_mAh = asNew_mAh * health;
  return { capacity_mAh, nominal_V, energy_Wh: (capacity_mAh / 1000) * nominal_V };
}

/** Seconds until the charge has fallen to the target at a steady load; 0 where it is there already. */
export function runDown({ cells, wiring, health, charge, target, load_W }: PackRequest): Pack & { seconds: number } {
  const pack = packOf(cells, wiring, health);
  return { ...pack, seconds: (Math.max(0, charge - target) * pack.energy_Wh * 3600) / load_W };
}

/** Transport bounds (UN 3480/3481, packing instructions 965 to 967, from memory): a hint, local rules decide. */
const CELL_BOUND_WH = 20;
const PACK_BOUND_WH = 100;

export function transportHints(cells: readonly Cell[], wiring: 'series' | 'parallel'): string[] {
  const energy_Wh = (each: Cell) => (each.capacity_mAh / 1000) * each.nominal_V;
  const largest = Math.max(...cells.map(energy_Wh));
  const whole = packOf(cells, wiring).energy_Wh;
  const over = (what: string, is: number, bound: number) =>
    is > bound
      ? [`${what} of ${is.toFixed(1)} Wh is over ${bound} Wh: it may not travel as a small one. Local rules decide.`]
      : [];
  return [...over('A cell', largest, CELL_BOUND_WH), ...over('A battery', whole, PACK_BOUND_WH)];
}
