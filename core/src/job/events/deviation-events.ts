import Joi from 'joi';
import { WORK, type EventRows } from './event-row.ts';
import type { Face } from '../../model/device-map/index.ts';

export const CLOSINGS = ['reuse', 'renew', 'glue'] as const;
/** How a bond is closed, decided on sight. */
export type BondClosing = (typeof CLOSINGS)[number];

/** What this very device showed, other than its map says, and what was decided on sight. */
export interface DeviationEventData {
  /** a part that is not there, is another one, or is one more than the map has */
  readonly 'not-mapped': {
    readonly what: 'missing' | 'different' | 'extra';
    /** of the map; what is extra has a name instead */
    readonly part?: string;
    readonly name?: string;
    /** what an extra part lies over: it comes off before that, and goes back after it */
    readonly over?: { readonly joint: string } | { readonly part: string };
    readonly face?: Face;
    readonly x?: number;
    readonly y?: number;
    readonly text: string;
  };
  /** a part that was to be looked at before it goes back */
  readonly inspected: { readonly part: string; readonly result: 'good' | 'failed'; readonly text: string };
  readonly closing: { readonly joint: string; readonly way: BondClosing; readonly text: string };
}

const id = Joi.string().min(1).max(200);
const text = Joi.string().allow('').max(4000).required();
const mm = Joi.number().min(-100).max(3000);
const isExtra = { is: 'extra', then: Joi.required(), otherwise: Joi.forbidden() };

/** What is true of them, and the shape of their data. */
export const DEVIATION_EVENTS: EventRows<DeviationEventData> = {
  'not-mapped': {
    tells: 'The device is not as its map says',
    ...WORK,
    data: Joi.object({
      what: Joi.string().valid('missing', 'different', 'extra').required(),
      part: id.when('what', { is: 'extra', then: Joi.forbidden(), otherwise: Joi.required() }),
      name: Joi.string().min(1).max(200).when('what', isExtra),
      over: Joi.alternatives(Joi.object({ joint: id.required() }), Joi.object({ part: id.required() })).when(
        'what',
        isExtra,
      ),
      face: Joi.string().valid('front', 'back', 'edge'),
      x: mm,
      y: mm,
      text,
    }),
  },
  inspected: {
    tells: 'A part was looked at before it goes back',
    ...WORK,
    turnsPlan: 'by-plan',
    data: Joi.object({ part: id.required(), result: Joi.string().valid('good', 'failed').required(), text }),
  },
  closing: {
    tells: 'How a bond is closed was decided on sight',
    ...WORK,
    data: Joi.object({
      joint: id.required(),
      way: Joi.string()
        .valid(...CLOSINGS)
        .required(),
      text,
    }),
  },
};
