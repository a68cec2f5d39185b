import Joi from 'joi';
import type { BondSegment, Edge } from '../../model/device-map/index.ts';
import { type Policy, POLICY_OPTIONS } from '../../model/policy/index.ts';

/** What a cut is planned from. */
export interface CutRequest {
  /** as a bond of a device map has them; those without a depth are not cut */
  readonly segments: readonly BondSegment[];
  /** the segment to begin at */
  readonly start?: string;
  /** the edge, or the segment, toward which it is opened: cut last */
  readonly hinge?: Edge | (string & {});
  readonly speed_mm_s: number;
  /** how much of the bond is warmed at once; by its own zones where it is left out */
  readonly warm?: Policy['warm'];
  readonly heat?: {
    /** how long the bond stays soft after the heat goes away */
    readonly workingTime_s: number;
    /** how long an open seam can be cut on after that; `workingTime_s` where it is left out */
    readonly dragTime_s?: number;
    /** what one more heating takes */
    readonly reheat_s?: number;
    /** the same by segment, where it is known better, from the field */
    readonly softFor_s?: Readonly<Record<string, number>>;
    readonly dragFor_s?: Readonly<Record<string, number>>;
  };
}

const id = Joi.string().min(1).max(100);
const mm = Joi.number().min(-100).max(3000);
const place = Joi.object({ x: mm.required(), y: mm.required() }).unknown(true);

const byEdge = Joi.object().pattern(id, Joi.number().min(0).max(1e6));

/** The request of compute/cut-plan. */
export const cutRequest = Joi.object({
  segments: Joi.array()
    .min(1)
    .max(200)
    .unique('id')
    .items(
      Joi.object({
        id: id.required(),
        from: place.required(),
        to: place.required(),
        depth: Joi.number()
          .greater(0)
          .max(200)
          .messages({ 'number.greater': '{{#label}} must be more than 0 mm; leave it out where nothing is cut' }),
        near: id,
        order: Joi.number().integer().min(0).max(10_000),
        zone: Joi.alternatives(id, Joi.number()),
      }).unknown(true),
    )
    .required(),
  start: id,
  hinge: id,
  speed_mm_s: Joi.number().min(0.001).max(1000).required(),
  warm: Joi.string().valid(...POLICY_OPTIONS.warm),
  heat: Joi.object({
    workingTime_s: Joi.number().greater(0).max(1e6).required(),
    dragTime_s: Joi.number().greater(0).max(1e6),
    reheat_s: Joi.number().min(0).max(1e6),
    softFor_s: byEdge,
    dragFor_s: byEdge,
  }).unknown(true),
})
  .unknown(true)
  .custom((request: CutRequest, helpers) => {
    const start = request.segments.find((each) => each.id === request.start);
    if (request.start === undefined || start?.depth !== undefined) return request;
    return helpers.error(start ? 'start.uncut' : 'start.none', { start: request.start });
  })
  .messages({
    'start.none': 'There is no segment {{#start}} to start at',
    'start.uncut': 'Segment {{#start}} has no depth, so nothing is cut there. Start at another',
  });
