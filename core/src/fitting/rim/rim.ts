import Joi from 'joi';
import { Matrix, SingularValueDecomposition } from 'ml-matrix';

/** A step at a rim: how far it stands proud of its frame there; below it, negative. */
export interface RimPoint {
  readonly x: number;
  readonly y: number;
  readonly step_mm: number;
}

export interface RimRequest {
  readonly points: readonly RimPoint[];
  /** how well a step is measured, one standard deviation */
  readonly sd_mm?: number;
  /** the step that it has by design; left out: flush */
  readonly design_mm?: number;
}

export type RimKind = 'flush' | 'even' | 'tilt' | 'bend' | 'high-spot';

export interface RimFit {
  readonly kind: RimKind;
  /** how much it stands off where it does most */
  readonly most_mm: number;
  /** where that is */
  readonly at: { readonly x: number; readonly y: number };
  /** what the fit leaves unexplained, root mean square */
  readonly residual_mm: number;
  /** how likely each is, of those that were asked, 0 to 1 */
  readonly likely: Readonly<Record<RimKind, number>>;
}

/** A feeler gauge or a dial at a rim is good for this (common practice). */
const RIM_SD_MM = 0.03;
/** A rim that steps less than this all round is flush to a thumb (common practice). */
const FLUSH_MM = 0.1;
/** How wide a high spot of a thin panel is: where it has fallen to 60 % (guess). */
const SPOT_MM = 15;

/** Evidence that is worth more than a bare mention (Kass and Raftery 1995, from memory). */
const CLEARLY = 3;

const mm = Joi.number().min(-5000).max(5000).required();

export const rimRequest = Joi.object<RimRequest>({
  points: Joi.array()
    .min(3)
    .max(100)
    .items(Joi.object({ x: mm, y: mm, step_mm: Joi.number().min(-20).max(20).required() }))
    .required()
    .messages({ 'array.min': '{{#label}}: measure at three places at least' }),
  sd_mm: Joi.number().greater(0).max(5),
  design_mm: Joi.number().min(-20).max(20),
});

interface Model {
  readonly kind: Exclude<RimKind, 'flush'>;
  /** what it is a sum of, at a place */
  readonly terms: (x: number, y: number) => readonly number[];
  /** beside the factors of its terms: where a high spot is */
  readonly more: number;
}

/**
 * What the steps at a few places of a rim are: flush, even all round, tilted to one side, bent over its length or its width, or a
 * high spot. Each is fitted by least squares and judged by what it explains for what it asks for (Bayesian information criterion,
 * Schwarz 1978, from memory, with the scatter of the measure known); the simplest is taken that none is clearly better than.
 */
export function fitRim({ points, sd_mm = RIM_SD_MM, design_mm = 0 }: RimRequest): RimFit {
  const steps = points.map((each) => ({ ...each, step_mm: each.step_mm - design_mm }));
  const middle = {
    x: (Math.min(...points.map(({ x }) => x)) + Math.max(...points.map(({ x }) => x))) / 2,
    y: (Math.min(...points.map(({ y }) => y)) + Math.max(...points.map(({ y }) => y))) / 2,
  };
  const models: Model[] = [
    { kind: 'even', more: 0, terms: () => [1] },
    { kind: 'tilt', more: 0, terms: (x, y) => [1, x, y] },
    { kind: 'bend', more: 0, terms: (x, y) => [1, x, y, y * y] },
    { kind: 'bend', more: 0, terms: (x, y) => [1, x, y, x * x] },
    ...points.map((spot): Model => ({
      kind: 'high-spot',
      more: 2,
      terms: (x, y) => {
        const far = Math.hypot(x + middle.x - spot.x, y + middle.y - spot.y);
        return [1, Math.exp(-(far ** 2) / (2 * SPOT_MM ** 2))];
      },
    })),
  ];
  const fits = models
    // with as many terms as points anything can be fitted
    .filter(({ terms, more }) => terms(0, 0).length + more < points.length || more + terms(0, 0).length <= 1)
    .map((model) => fitted(model, steps, middle, sd_mm));
  const least = Math.min(...fits.map(({ criterion }) => criterion));
  const best = fits
    .filter(({ criterion }) => criterion <= least + CLEARLY)
    .reduce((a, b) => (b.asks < a.asks || (b.asks === a.asks && b.criterion < a.criterion) ? b : a));
  const isFlush = steps.every(({ step_mm }) => Math.abs(step_mm) <= FLUSH_MM);
  const worst = steps.reduce((a, b) => (Math.abs(b.step_mm) > Math.abs(a.step_mm) ? b : a));
  return {
    kind: isFlush ? 'flush' : best.kind,
    most_mm: worst.step_mm,
    at: { x: worst.x, y: worst.y },
    residual_mm: best.residual_mm,
    likely: likelihoods(fits, isFlush),
  };
}

interface Fitted {
  readonly kind: RimKind;
  readonly residual_mm: number;
  /** factors that are fitted */
  readonly asks: number;
  readonly criterion: number;
}

function fitted(
  { kind, terms, more }: Model,
  steps: readonly RimPoint[],
  middle: { readonly x: number; readonly y: number },
  sd_mm: number,
): Fitted {
  const rows = steps.map(({ x, y }) => [...terms(x - middle.x, y - middle.y)]);
  const heights = Matrix.columnVector(steps.map(({ step_mm }) => step_mm));
  const factors = new SingularValueDecomposition(new Matrix(rows), { autoTranspose: true }).solve(heights);
  const left = Matrix.sub(heights, new Matrix(rows).mmul(factors)).to1DArray();
  const squares = left.reduce((sum, each) => sum + each ** 2, 0);
  const asks = rows[0]!.length + more;
  return {
    kind,
    asks,
    residual_mm: Math.sqrt(squares / steps.length),
    criterion: squares / sd_mm ** 2 + asks * Math.log(steps.length),
  };
}

function likelihoods(fits: readonly Fitted[], isFlush: boolean): RimFit['likely'] {
  const least = Math.min(...fits.map(({ criterion }) => criterion));
  const weights = { flush: 0, even: 0, tilt: 0, bend: 0, 'high-spot': 0 };
  for (const { kind, criterion } of fits) {
    weights[kind] = Math.max(weights[kind], Math.exp((least - criterion) / 2));
  }
  if (isFlush) return { flush: 1, even: 0, tilt: 0, bend: 0, 'high-spot': 0 };
  const sum = Object.values(weights).reduce((a, b) => a + b, 0);
  return Object.fromEntries(Object.entries(weights).map(([kind, each]) => [kind, each / sum])) as RimFit['likely'];
}
