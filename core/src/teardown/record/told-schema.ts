import Joi from 'joi';
import { HAZARDS, PART_KINDS } from '../../model/device-map/index.ts';
import type { TeardownEventType } from './told-events.ts';

/** So much of one device is told at the bench; a map that is written may have more. */
export const MOST_TOLD_PARTS = 100;
export const MOST_TOLD_JOINTS = 250;
/** Screws, clips or wires of one batch. */
export const MOST_ALIKE = 100;

const id = Joi.string().min(1).max(100);
const name = Joi.string().min(1).max(200);
const text = Joi.string().allow('').max(2000);
const face = Joi.string().valid('front', 'back', 'edge');
const coordinate_mm = Joi.number().min(-100).max(3000);
const extent_mm = Joi.number().greater(0).max(3000);
const point = Joi.object({ x: coordinate_mm.required(), y: coordinate_mm.required() });
const edge = Joi.string().valid('top', 'bottom', 'left', 'right');
const until = Joi.string().valid('open', 'off');

const part = Joi.object({
  id: id.required(),
  kind: Joi.string().valid(...PART_KINDS),
  name,
  face,
  box: Joi.object({
    x: coordinate_mm.required(),
    y: coordinate_mm.required(),
    w: extent_mm.required(),
    h: extent_mm.required(),
  }),
  outline: Joi.array().items(Joi.array().length(2).items(coordinate_mm)).min(3).max(200),
  functions: Joi.array().max(50).unique().items(id),
  hazards: Joi.array()
    .max(HAZARDS.length)
    .unique()
    .items(Joi.string().valid(...HAZARDS)),
  reuse: Joi.string().valid('reusable', 'often-breaks', 'inspect', 'single-use'),
  opens: Joi.object({ edge: edge.required() }),
  mark: text,
});

const screw = Joi.object({
  id: id.required(),
  drive: name,
  length: Joi.number().greater(0).max(200),
  head: Joi.number().greater(0).max(50),
  thread: name,
});

const STYLES = {
  connector: ['press', 'zif-flip', 'zif-slide', 'coax', 'plug', 'spring', 'blind'],
  bond: ['perimeter', 'pad', 'tabs', 'strap', 'tape', 'thermal', 'gasket'],
} as const;

const joint = Joi.object({
  id: id.required(),
  type: Joi.string().valid('screw', 'connector', 'bond', 'clip', 'solder', 'hinge'),
  style: Joi.string().when('type', {
    switch: [
      { is: Joi.valid('connector').required(), then: Joi.valid(...STYLES.connector) },
      { is: Joi.valid('bond').required(), then: Joi.valid(...STYLES.bond) },
      { is: Joi.exist(), then: Joi.forbidden() },
    ],
    otherwise: Joi.valid(...STYLES.connector, ...STYLES.bond),
  }),
  holds: Joi.array().min(1).max(50).unique().items(id),
  to: id,
  face,
  count: Joi.number()
    .integer()
    .min(1)
    .max(MOST_ALIKE)
    .messages({
      'number.min': '{{#label}}: at least one came off',
      'number.max': `{{#label}}: at most ${MOST_ALIKE} in one batch: tell the rest as another`,
    }),
  screw: id,
  points: Joi.array().min(1).max(MOST_ALIKE).items(point),
  at: point,
  isolates: Joi.valid(true, 'alone', false),
  functions: Joi.array().max(50).unique().items(id),
  heat: Joi.boolean(),
  solvent: Joi.object({ soak_s: Joi.number().min(0).max(100_000).required() }),
  eject: Joi.boolean(),
  edge,
  mark: text,
});

const described = {
  parts: Joi.array().max(50).unique('id').items(part),
  joints: Joi.array().max(50).unique('id').items(joint),
  screws: Joi.array().max(50).unique('id').items(screw),
};
const placed = { before: Joi.string().guid(), on: id };

const entry = Joi.object({
  joint: id,
  part: id,
  until: until.when('part', { is: Joi.exist(), then: Joi.required(), otherwise: Joi.forbidden() }),
}).xor('joint', 'part');

/** The shape of each type's data. */
export const TEARDOWN_DATA: Readonly<Record<TeardownEventType, Joi.ObjectSchema>> = {
  'take-apart': Joi.object({}),
  'came-off': Joi.object({
    ...placed,
    ...described,
    joint: id,
    part: id,
    to: until.when('part', { is: Joi.exist(), then: Joi.required(), otherwise: Joi.forbidden() }),
  }).xor('joint', 'part'),
  stuck: Joi.object({
    ...placed,
    joint: id,
    part: id,
    by: Joi.object({
      joint: id,
      part: id,
      until: until.when('part', { is: Joi.exist(), then: Joi.optional(), otherwise: Joi.forbidden() }),
    }).xor('joint', 'part'),
  }).xor('joint', 'part'),
  'what-held': Joi.object({
    joint: id,
    part: id,
    options: Joi.array().max(100).items(entry).required(),
    by: Joi.array().max(100).items(entry).required(),
  }).xor('joint', 'part'),
  described: Joi.object({
    ...described,
    outline: Joi.object({
      width: extent_mm.required(),
      height: extent_mm.required(),
      thickness: extent_mm.required(),
      corner: Joi.number().min(0).max(3000).required(),
    }),
  }).min(1),
  layer: Joi.object({
    photo: Joi.string().guid().required(),
    face: Joi.string().valid('front', 'back').required(),
    corners: Joi.array()
      .length(4)
      .items(Joi.object({ x: Joi.number().min(-1).max(2).required(), y: Joi.number().min(-1).max(2).required() })),
  }),
  'first-seen': Joi.object({ joint: id, part: id, photo: Joi.string().guid().required() }).xor('joint', 'part'),
  'put-together': Joi.object({}),
};
