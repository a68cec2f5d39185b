import Joi from 'joi';

/** How sure an entry of a map that was made by a teardown is, and by what. */
export interface GuessedEntry {
  readonly joint?: string;
  readonly part?: string;
  readonly entry: { readonly joint?: string; readonly part?: string; readonly until?: 'open' | 'off' };
  readonly certainty: 'certain' | 'likely' | 'open';
  /** is it in the map? */
  readonly in: boolean;
  /** the rule that makes it as sure as it is, and all that speak for it */
  readonly why: string;
  readonly reasons: readonly string[];
}

/** Where a map comes from that nobody wrote: what of it is guessed, and what nobody has told. */
export interface MapOrigin {
  readonly guesses: readonly GuessedEntry[];
  /** parts and joints of which nobody said where they lie */
  readonly unplaced: readonly string[];
  /** fasteners whose length nobody has measured */
  readonly unmeasured: readonly string[];
  /** entries that a later repair did without: they are no entries, whatever speaks for them */
  readonly refuted?: readonly Pick<GuessedEntry, 'joint' | 'part' | 'entry'>[];
  /** what was done, seen and pressed, as `POST /compute/infer-map` takes it: a later repair adds to it */
  readonly record?: object;
}

const id = Joi.string().min(1).max(100);
const entry = Joi.object({ joint: id, part: id, until: Joi.string().valid('open', 'off') })
  .xor('joint', 'part')
  .required();

export const originSchema = Joi.object({
  guesses: Joi.array()
    .max(20_000)
    .items(
      Joi.object({
        joint: id,
        part: id,
        entry,
        certainty: Joi.string().valid('certain', 'likely', 'open').required(),
        in: Joi.boolean().required(),
        why: id.required(),
        reasons: Joi.array().max(20).items(id).required(),
      }).xor('joint', 'part'),
    )
    .required(),
  unplaced: Joi.array().max(2500).items(id).required(),
  unmeasured: Joi.array().max(500).items(id).required(),
  refuted: Joi.array()
    .max(20_000)
    .items(Joi.object({ joint: id, part: id, entry }).xor('joint', 'part')),
  record: Joi.object().unknown(true),
});
