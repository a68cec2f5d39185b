import Joi from 'joi';
import { type Cutting, cutFrom, type Roll } from './cutting.ts';
import { beadVolume_uL, type Strip, stripsOf, type TapedEdge } from './strips.ts';

export interface TapeRequest {
  readonly edges: readonly TapedEdge[];
  readonly rolls: readonly Roll[];
  readonly useful_mm?: number;
  /** of a bead of liquid adhesive in place of tape */
  readonly bead_mm?: number;
}

export interface Taped {
  readonly strips: readonly Strip[];
  readonly length_mm: number;
  /** null where the rolls are not enough */
  readonly cutting: Cutting | null;
  readonly bead_uL?: number;
}

const id = Joi.string().min(1).max(200).required();
const length_mm = Joi.number().greater(0).max(100_000).required();

const edge = Joi.object<TapedEdge>({
  id,
  length_mm,
  gaps: Joi.array()
    .max(50)
    .items(
      Joi.object({
        from_mm: Joi.number().min(0).max(100_000).required(),
        to_mm: Joi.number().greater(Joi.ref('from_mm')).max(100_000).required(),
      }),
    ),
}).custom((given: TapedEdge, helpers) => {
  const over = given.gaps?.find(({ to_mm }) => to_mm > given.length_mm);
  return over ? helpers.error('edge.gap', { over: over.to_mm, long: given.length_mm }) : given;
});

export const tapeRequest = Joi.object<TapeRequest>({
  edges: Joi.array().min(1).max(40).unique('id').items(edge).required(),
  rolls: Joi.array().max(8).unique('id').items(Joi.object({ id, length_mm })).required(),
  useful_mm: Joi.number().min(0).max(10_000),
  bead_mm: Joi.number().greater(0).max(20),
}).messages({
  'edge.gap': '{{#label}} has a gap up to {{#over}} mm, and is only {{#long}} mm long: a gap lies within its edge',
});

/** What is cut of tape for these edges, and from what; or the bead that takes its place. */
export function tapeFor({ edges, rolls, useful_mm, bead_mm }: TapeRequest): Taped {
  const strips = edges.flatMap(stripsOf);
  const length = strips.reduce((sum, strip) => sum + strip.length_mm, 0);
  return {
    strips,
    length_mm: length,
    cutting: cutFrom(strips, rolls, useful_mm),
    ...(bead_mm === undefined ? {} : { bead_uL: beadVolume_uL(length, bead_mm) }),
  };
}
