import { doneSchema, targetSchema } from '@nibrel/core/job';
import { policySchema } from '@nibrel/core/policy';
import Joi from 'joi';

const id = Joi.string().min(1).max(200);
const kind = Joi.string().min(1).max(200).allow(null);
const seconds = Joi.number().min(0).max(1_000_000);

/** Most milliseconds a search may be given (contract.md, compute/order). */
export const MOST_MS = 30_000;
export const DEFAULT_MS = 2000;

const timeLimitMs = Joi.number().min(0).max(MOST_MS);

export const orderRequest = Joi.object({
  ops: Joi.array()
    .max(2000)
    .unique('id')
    .required()
    .items(
      Joi.object({
        id: id.required(),
        seconds: seconds.required(),
        tool: kind.required(),
        face: kind.required(),
        after: Joi.array().max(2000).items(id).required(),
      }).unknown(true),
    ),
  start: Joi.object({ tool: kind.required(), face: kind.required() }).required(),
  toolChangeSeconds: seconds.required(),
  flipSeconds: seconds.required(),
  timeLimitMs,
}).unknown(true);

const done = Joi.array().max(5000).items(doneSchema);

export const planRequest = Joi.object({
  map: Joi.object().required(),
  targets: Joi.array().max(100).items(targetSchema).required(),
  policy: policySchema,
  done,
  timeLimitMs,
}).unknown(true);

export const possibleRequest = Joi.object({ map: Joi.object().required(), done }).unknown(true);

const text = Joi.string().allow('').max(500);

/** A job as it is taken in. */
export const newJobSchema = Joi.object({
  id: Joi.string().guid(),
  map: id.required(),
  targets: Joi.array().max(100).items(targetSchema).required(),
  policy: policySchema,
  title: text,
  owner: text,
  serial: text,
  colour: text,
}).unknown(true);
