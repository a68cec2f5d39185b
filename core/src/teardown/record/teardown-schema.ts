import Joi from 'joi';
import { MAX_JOINTS, MAX_PARTS } from '../../model/device-map/index.ts';
import type { Teardown } from './teardown.ts';

/**
 * The shape of what was told, as far as it is no device map yet: what belongs to one is held against the map's own shape once
 * it is made.
 */

const id = Joi.string().min(1).max(100);
/** Everything that is done, and as many refusals. */
const MOST_LINES = 2 * (MAX_JOINTS + 2 * MAX_PARTS);
const MOST_REPAIRS = 100;
const coordinate_mm = Joi.number().min(-100).max(3000);

const until = Joi.string().valid('open', 'off');
const thing = { joint: id, part: id } as const;
const entry = Joi.object({
  ...thing,
  until: until.when('part', { is: Joi.exist(), then: Joi.required(), otherwise: Joi.forbidden() }),
  note: Joi.string().max(2000),
}).xor('joint', 'part');
const heldBy = Joi.object({
  ...thing,
  until: until.when('part', { is: Joi.exist(), then: Joi.optional(), otherwise: Joi.forbidden() }),
}).xor('joint', 'part');

const line = Joi.object({ kind: Joi.string().valid('release', 'open', 'lift', 'refused').required() }).when('.kind', {
  switch: [
    {
      is: 'release',
      then: Joi.object({
        joint: id.required(),
        on: id,
        type: Joi.string().valid('screw', 'connector', 'bond', 'clip', 'solder', 'seat'),
        holds: Joi.array().items(id).min(1).max(MAX_PARTS).unique(),
        to: id,
        face: Joi.string().valid('front', 'back', 'edge'),
        fastener: id,
        at: Joi.object({ x: coordinate_mm.required(), y: coordinate_mm.required() }),
        points: Joi.array()
          .max(500)
          .items(Joi.object({ x: coordinate_mm.required(), y: coordinate_mm.required() }).unknown(true)),
      }).unknown(true),
    },
    {
      is: Joi.valid('open', 'lift'),
      then: Joi.object({ part: id.required(), on: id }),
    },
    {
      is: 'refused',
      then: Joi.object({ ...thing, by: heldBy, on: id }).xor('joint', 'part'),
    },
  ],
});

const lines = Joi.array().max(MOST_LINES).items(line);

export const teardownSchema = Joi.object<Teardown>({
  device: Joi.object({
    id: Joi.string().required(),
    battery: Joi.object().unknown(true).allow(null).required(),
    outline: Joi.object({
      width: Joi.number().required(),
      height: Joi.number().required(),
      thickness: Joi.number().required(),
    })
      .unknown(true)
      .required(),
  })
    .unknown(true)
    .required(),
  fasteners: Joi.array()
    .max(500)
    .items(Joi.object({ id: id.required() }).unknown(true))
    .default([]),
  hinges: Joi.array()
    .max(MAX_JOINTS)
    .items(
      Joi.object({
        id: id.required(),
        type: Joi.valid('hinge').required(),
        holds: Joi.array().items(id).min(1).required(),
        to: id.required(),
      }).unknown(true),
    )
    .default([]),
  parts: Joi.array()
    .min(1)
    .max(MAX_PARTS)
    .unique('id')
    .items(
      Joi.object({
        id: id.required(),
        face: Joi.string().valid('front', 'back', 'edge').required(),
        layer: Joi.number().integer().min(0).max(1000).required(),
        z: Joi.forbidden(),
        under: Joi.forbidden(),
      }).unknown(true),
    )
    .required(),
  record: lines.required(),
  photos: Joi.array()
    .max(10_000)
    .unique('id')
    .items(Joi.object({ id: id.required(), after: Joi.number().integer().min(0).required() }))
    .default([]),
  seen: Joi.array()
    .max(MAX_JOINTS + MAX_PARTS)
    .items(Joi.object({ ...thing, photo: id.required() }).xor('joint', 'part'))
    .default([]),
  answers: Joi.array()
    .max(10_000)
    .items(
      Joi.object({
        id: Joi.string().max(250),
        ask: Joi.valid('held'),
        ...thing,
        options: Joi.array().max(100).items(entry).default([]),
        by: Joi.array().max(100).items(entry).required(),
        plans: Joi.number(),
        weight: Joi.number(),
      }).xor('joint', 'part'),
    )
    .default([]),
  repairs: Joi.array().max(MOST_REPAIRS).items(lines).default([]),
}).required();
