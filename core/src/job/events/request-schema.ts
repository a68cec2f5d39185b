import Joi from 'joi';

const id = Joi.string().min(1).max(200);

/** A target of a plan (docs/device-map.md, *What a plan is*). */
export const targetSchema = Joi.object({
  replace: id,
  newIncludes: Joi.array().max(500).items(id),
  newLacks: Joi.array().max(2000).items(id),
  remove: id,
  reach: id,
  full: Joi.valid(true),
  keep: Joi.array().max(500).items(id),
})
  .xor('replace', 'remove', 'reach', 'full')
  .with('newIncludes', 'replace')
  .with('newLacks', 'replace')
  .with('keep', 'full');

/** An operation that was done already (docs/http.md, compute/plan). */
export const doneSchema = Joi.alternatives(
  Joi.object({ release: id.required() }),
  Joi.object({ open: id.required() }),
  Joi.object({ lift: id.required() }),
  Joi.object({ make: id.required() }),
  Joi.object({ close: id.required() }),
  Joi.object({ fit: id.required(), onto: id, new: Joi.boolean() }),
).match('one');
