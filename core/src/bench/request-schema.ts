import Joi from 'joi';
import { POLICY_OPTIONS } from '../plan/index.ts';

const id = Joi.string().min(1).max(200);

/** A target of a plan (device-map.md, *What a plan is*). */
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

const option = (key: keyof typeof POLICY_OPTIONS) => Joi.string().valid(...POLICY_OPTIONS[key]);
const school = Joi.string().max(100).allow(null);

/**
 * The policy of a plan. What changes the set of operations must be one of its options; a school that this version does
 * not know is let through, and the plan warns that it goes by the default.
 */
export const policySchema = Joi.object({
  display: option('display'),
  batteryWhilePrying: option('batteryWhilePrying'),
}).pattern(Joi.string().max(100), school);

/** An operation that was done already (contract.md, compute/plan). */
export const doneSchema = Joi.alternatives(
  Joi.object({ release: id.required() }),
  Joi.object({ open: id.required() }),
  Joi.object({ lift: id.required() }),
  Joi.object({ make: id.required() }),
  Joi.object({ close: id.required() }),
  Joi.object({ fit: id.required(), onto: id, new: Joi.boolean() }),
).match('one');
