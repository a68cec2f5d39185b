import Joi from 'joi';
import { originSchema } from './origin.ts';
import { HAZARDS, PART_KINDS } from './types.ts';

/** Limits of one map (docs/device-map.md, "A map is refused or warned about"). */
export const MAX_PARTS = 500;
export const MAX_JOINTS = 2000;

const id = Joi.string().min(1).max(100);
const text = Joi.string().max(2000);
const name = Joi.string().min(1).max(200);
const edge = Joi.string().valid('top', 'bottom', 'left', 'right');
const face = Joi.string().valid('front', 'back', 'edge');
const coordinate_mm = Joi.number().min(-100).max(3000);
const extent_mm = Joi.number().greater(0).max(3000);
const size_mm = Joi.number().min(0).max(3000);
const seconds = Joi.number().min(0).max(1_000_000);
const temperature_C = Joi.number().min(-50).max(500);
const order = Joi.number().integer().min(0).max(10_000);
const point = Joi.object({ x: coordinate_mm.required(), y: coordinate_mm.required() });
const under = Joi.array()
  .max(500)
  .items(
    Joi.object({
      part: id,
      until: Joi.string()
        .valid('open', 'off')
        .when('part', { is: Joi.exist(), then: Joi.required(), otherwise: Joi.forbidden() }),
      joint: id,
      note: text,
    }).xor('part', 'joint'),
  );

const fastener = Joi.object({
  id: id.required(),
  drive: name.required(),
  thread: name.required(),
  length: Joi.number().greater(0).max(200).required(),
  head: Joi.number().greater(0).max(50).required(),
  colour: name,
  alsoDrives: Joi.array().items(name),
  captive: Joi.boolean(),
  magnetic: Joi.boolean(),
  singleUse: Joi.boolean(),
  locker: Joi.object({ activator: text, cure_s: seconds.required() }),
  torque: Joi.object({
    min: Joi.number().min(0).max(10_000).required(),
    max: Joi.number().min(Joi.ref('min')).max(10_000).required(),
  }),
});

const part = Joi.object({
  id: id.required(),
  name: name.required(),
  kind: Joi.string()
    .valid(...PART_KINDS)
    .required(),
  face: face.required(),
  box: Joi.object({
    x: coordinate_mm.required(),
    y: coordinate_mm.required(),
    w: extent_mm.required(),
    h: extent_mm.required(),
  }).required(),
  outline: Joi.array().items(Joi.array().length(2).items(coordinate_mm)).min(3).max(1000),
  z: Joi.object({
    top: Joi.number().min(-100).max(3000).required(),
    bottom: Joi.number().min(Joi.ref('top')).max(3000).required(),
  }).required(),
  base: Joi.boolean(),
  functions: Joi.array().items(id),
  hazards: Joi.array().items(Joi.string().valid(...HAZARDS)),
  reuse: Joi.string().valid('reusable', 'often-breaks', 'inspect', 'single-use'),
  under,
  staysWith: id,
  onReplace: Joi.array().items(
    Joi.object({
      effect: Joi.string().valid('lost', 'data', 'warning', 'recalibrate', 'later').required(),
      function: id,
      note: text.allow('').required(),
    }),
  ),
  removeFirst: Joi.boolean(),
  opens: Joi.object({ edge: edge.required(), gap: size_mm, angle: Joi.number().min(0).max(360) }),
  liftFrom: point,
  motion: Joi.object({
    angle: Joi.number().min(-360).max(360),
    turn: Joi.number().min(-360).max(360),
    firstEdge: edge,
  }),
  folds: Joi.array()
    .max(20)
    .items(Joi.object({ from: point.required(), to: point.required() })),
  through: Joi.array().items(
    Joi.object({ part: id.required(), x: coordinate_mm.required(), y: coordinate_mm.required() }),
  ),
  ifFailed: Joi.object({ replace: id.required() }),
  mixUpWith: Joi.array().items(id),
  film: Joi.boolean(),
  mark: text,
  hint: Joi.object({ remove: text, fit: text }),
});

const joint = Joi.object({
  id: id.required(),
  type: Joi.string().required(),
  holds: Joi.array().items(id).min(1).max(MAX_PARTS).unique().required(),
  to: id.required(),
  face: face.required(),
  at: point,
  under,
  tool: name,
  needs: Joi.array().items(text),
  seconds,
  mark: text,
  hint: Joi.object({ release: text, make: text }),
});

const screw = joint.keys({
  type: 'screw',
  fastener: id.required(),
  points: Joi.array()
    .min(1)
    .max(500)
    .required()
    .items(
      Joi.object({
        id: id.required(),
        x: coordinate_mm.required(),
        y: coordinate_mm.required(),
        fastener: id,
        order,
        outOrder: order,
        depth: size_mm.required(),
        below: Joi.string().valid('board', 'battery', 'display', 'plastic', 'metal').required(),
      }),
    ),
});

const connector = joint.keys({
  type: 'connector',
  style: Joi.string().valid('press', 'zif-flip', 'zif-slide', 'coax', 'plug', 'spring', 'blind').required(),
  functions: Joi.array().items(id),
  lever: point,
  isolates: Joi.valid(true, 'alone', false),
});

const bond = joint.keys({
  type: 'bond',
  style: Joi.string().valid('perimeter', 'pad', 'tabs', 'strap', 'tape', 'thermal', 'gasket').required(),
  seam: Joi.object({ between: Joi.array().items(id).length(2).required(), not: text }),
  heat: Joi.boolean(),
  soften_C: temperature_C,
  recipe: Joi.object({
    source: name.required(),
    temp_C: temperature_C.required(),
    seconds: seconds.required(),
    distance_mm: size_mm,
  }),
  heatGroup: id,
  solvent: Joi.object({ soak_s: seconds.required() }),
  dragBelow_C: temperature_C,
  width: size_mm,
  heatFace: face,
  stack: Joi.object({
    layers: Joi.array()
      .min(1)
      .max(60)
      .items(Joi.object({ material: name.required(), thickness: Joi.number().greater(0).max(200).required() }))
      .required(),
    bondLayer: Joi.number().integer().min(0).required(),
    watch: Joi.array()
      .max(60)
      .items(
        Joi.object({
          layer: Joi.number().integer().min(0).required(),
          fraction: Joi.number().min(0).max(1).required(),
          what: name.required(),
          max_C: temperature_C.required(),
        }),
      )
      .required(),
  }),
  segments: Joi.array()
    .max(500)
    .items(
      Joi.object({
        id: id.required(),
        from: point.required(),
        to: point.required(),
        depth: size_mm,
        near: id,
        order,
        zone: Joi.alternatives(Joi.string().max(100), Joi.number()),
      }),
    ),
  endangers: Joi.array().items(id),
  renew: Joi.string().valid('precut', 'tape', 'liquid', 'with-part', 'reuse'),
  close: Joi.object({
    dry_s: seconds,
    press_s: seconds,
    mass_kg: Joi.number().min(0).max(1000),
    cure_s: seconds,
  }),
});

const places = Joi.array().items(
  Joi.object({ id: id.required(), x: coordinate_mm.required(), y: coordinate_mm.required(), order }),
);
const clip = joint.keys({
  type: 'clip',
  points: places,
  slide: Joi.object({ dx: coordinate_mm.required(), dy: coordinate_mm.required() }),
  tilt: edge,
  eject: Joi.boolean(),
});
const solder = joint.keys({
  type: 'solder',
  points: Joi.array().items(
    Joi.object({ id: id.required(), x: coordinate_mm.required(), y: coordinate_mm.required(), wire: text }),
  ),
  functions: Joi.array().items(id),
});
const hinge = joint.keys({ type: 'hinge', edge: edge.required() });
const seat = joint.keys({ type: 'seat', tilt: edge });

const JOINTS = { screw, connector, bond, clip, solder, hinge, seat };

const anyJoint = Joi.alternatives().conditional('.type', {
  switch: Object.entries(JOINTS).map(([type, schema]) => ({ is: type, then: schema })),
  otherwise: Joi.object({
    type: Joi.string()
      .valid(...Object.keys(JOINTS))
      .required(),
  }).unknown(true),
});

/** What a map may say that a cell bears (common practice). */
const LEAST_CELL_C = 45;
const MOST_CELL_C = 80;

/** Shape of a device map. Whether one field fits another is checked in `core/src/planner/map-check/references.ts`. */
export const deviceMapSchema = Joi.object({
  format: Joi.string().valid('nibrel.device-map').required(),
  version: Joi.number().valid(1).required(),
  id: Joi.string()
    .pattern(/^[a-z0-9-]{1,64}$/)
    .required()
    .messages({ 'string.pattern.base': '{{#label}} must be 1 to 64 of a-z, 0-9 and -' }),
  name: name.required(),
  kind: Joi.string().valid('phone', 'tablet', 'keypad-phone', 'other').required(),
  outline: Joi.object({
    width: extent_mm.required(),
    height: extent_mm.required(),
    thickness: extent_mm.required(),
    corner: size_mm.required(),
  }).required(),
  battery: Joi.object({
    part: id.required(),
    cells: Joi.array()
      .min(1)
      .max(100)
      .items(
        Joi.object({
          capacity_mAh: Joi.number().greater(0).max(1_000_000).required(),
          nominal_V: Joi.number().greater(0).max(100).required(),
        }),
      )
      .required(),
    wiring: Joi.string().valid('series', 'parallel').required(),
    limit_C: Joi.number()
      .min(LEAST_CELL_C)
      .max(MOST_CELL_C)
      .required()
      .messages({
        'number.min': `{{#label}} must be ${LEAST_CELL_C} to ${MOST_CELL_C} °C: a cell's face bears no more, and less is no limit for work`,
        'number.max': `{{#label}} must be ${LEAST_CELL_C} to ${MOST_CELL_C} °C: a cell's face bears no more, and less is no limit for work`,
      }),
  })
    .allow(null)
    .required(),
  fasteners: Joi.array().max(500).items(fastener).required(),
  parts: Joi.array().min(1).max(MAX_PARTS).items(part).required(),
  joints: Joi.array().max(MAX_JOINTS).items(anyJoint).required(),
  functions: Joi.array()
    .max(500)
    .items(
      Joi.object({
        id: id.required(),
        name: name.required(),
        how: text.allow('').required(),
        seconds,
        needs: Joi.array().items(id),
      }),
    )
    .required(),
  procedures: Joi.object({ powerOff: text, firstStart: text }),
  cautions: Joi.array().items(text),
  pinHoles: Joi.array()
    .max(200)
    .items(
      Joi.object({
        id: id.required(),
        kind: Joi.string().valid('tray', 'microphone').required(),
        x: coordinate_mm.required(),
        y: coordinate_mm.required(),
        part: id,
        channel: Joi.string().valid('straight', 'angled'),
      }),
    ),
  origin: originSchema,
}).required();
