import Joi from 'joi';
import { Refusal, wrong } from '../../model/refusal/index.ts';
import { bestPlacing } from './best-placing.ts';
import { chancesOf, checkBins } from './placing-chances.ts';

/** A kind of screw with as many holes as it has. */
interface HoleClass {
  readonly id: string;
  readonly drive: string;
  readonly length: number;
  readonly count: number;
}

/** A screw that was picked up, as it was measured. */
interface LooseScrew {
  readonly id: string;
  /** null, or left out, where nobody could tell */
  readonly drive?: string | null;
  readonly length: number;
  /** standard deviation of the measure, mm; a caliper's where it is left out */
  readonly sd?: number;
}

export interface MatchRequest {
  readonly classes: readonly HoleClass[];
  readonly loose: readonly LooseScrew[];
  /** of lengths of a screw that belongs nowhere, per mm */
  readonly foreignDensity?: number;
}

export interface ScrewMatch {
  /** the likeliest placing; null is a screw that belongs nowhere */
  readonly best: readonly { readonly loose: string; readonly class: string | null }[];
  readonly logWeight: number;
  /** exact, for each loose screw over all classes and `foreign` */
  readonly probabilities: Readonly<Record<string, Readonly<Record<string, number>>>>;
  /** loose screws of which nothing is likelier than this */
  readonly ambiguous: readonly string[];
  /** holes that the best placing leaves empty */
  readonly missing: readonly { readonly class: string; readonly count: number }[];
}

/** Of what a caliper tells (common practice). */
export const CALIPER_SD_MM = 0.05;
/** A drawer of spares, not only a device, may have places for them. */
const MOST_IN_DRAWER = 1_000_000;
/** No caliper and no micrometer is surer. */
const LEAST_SD_MM = 0.001;
/** Any length up to a metre is as likely (guess). */
const FOREIGN_PER_MM = 0.001;
/** Nobody calls a placing sure below this. */
export const SURE = 0.95;
const FOREIGN = 'foreign';

const id = Joi.string().min(1).max(200);
const length_mm = Joi.number().greater(0).max(200).required();

export const matchRequest = Joi.object<MatchRequest>({
  classes: Joi.array()
    .max(100)
    .unique('id')
    .items(
      Joi.object({
        id: id.invalid(FOREIGN).required(),
        drive: id.required(),
        length: length_mm,
        count: Joi.number().integer().min(0).max(MOST_IN_DRAWER).required(),
      }).unknown(true),
    )
    .required(),
  loose: Joi.array()
    .max(500)
    .unique('id')
    .items(
      Joi.object({
        id: id.required(),
        drive: id.allow(null),
        length: length_mm,
        sd: Joi.number().min(LEAST_SD_MM).max(50),
      }).unknown(true),
    )
    .required(),
  foreignDensity: Joi.number().min(0).max(1000),
});

/**
 * Loose screws back to holes. Every one-to-one placing into individual holes, or nowhere, is equally likely beforehand; its
 * weight is the product of the normal densities of the lengths, nothing where a known drive differs, and `foreignDensity` for
 * each that belongs nowhere.
 * @throws Refusal where no placing is possible, or where more look alike than can be told exactly
 */
export function matchScrews({ classes, loose, foreignDensity = FOREIGN_PER_MM }: MatchRequest): ScrewMatch {
  const logs = loose.map((screw) => classes.map((each) => logDensity(screw, each)));
  const nowhere = Math.log(foreignDensity);
  const counts = classes.map(({ count }) => count);
  const order = loose.map((_, at) => at).toSorted((a, b) => loose[a]!.length - loose[b]!.length);
  checkBins({ logs, counts, nowhere, order });
  const best = bestPlacing(logs, counts, nowhere);
  if (!best) {
    throw new Refusal(wrong('foreignDensity', 'No placing of these screws is possible: allow for a foreign one.'));
  }
  const chances = chancesOf({
    logs,
    counts,
    nowhere,
    placing: best,
    order,
  });
  const logWeight = best.reduce<number>((sum, to, at) => sum + (to === null ? nowhere : logs[at]![to]!), 0);
  const placed = classes.map((_, at) => best.filter((to) => to === at).length);
  return {
    best: best.map((to, at) => ({ loose: loose[at]!.id, class: to === null ? null : classes[to]!.id })),
    logWeight,
    probabilities: Object.fromEntries(
      loose.map(({ id: screw }, at) => [
        screw,
        Object.fromEntries([
          ...classes.map((each, to) => [each.id, chances[at]![to]!]),
          [FOREIGN, chances[at]!.at(-1)!],
        ]),
      ]),
    ),
    ambiguous: loose.flatMap(({ id: screw }, at) => (Math.max(...chances[at]!) < SURE ? [screw] : [])),
    missing: classes.flatMap((each, at) =>
      each.count > placed[at]! ? [{ class: each.id, count: each.count - placed[at]! }] : [],
    ),
  };
}

function logDensity({ drive = null, length, sd = CALIPER_SD_MM }: LooseScrew, of: HoleClass): number {
  if (drive !== null && drive !== of.drive) return Number.NEGATIVE_INFINITY;
  const off = (length - of.length) / sd;
  return -0.5 * off * off - Math.log(sd * Math.sqrt(2 * Math.PI));
}
