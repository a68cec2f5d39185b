import Joi from 'joi';
import { WORK, WORK_BESIDE, type EventRows } from './event-row.ts';
import { type CalendarDate, calendarDate, instant } from '../../model/calendar/index.ts';
import { REGISTRY_ANSWERS, type RegistryAnswer } from '../../model/identity/index.ts';
import type { PartCondition, PartDecision } from '../../workshop/parts/index.ts';

/** What happens to replacement parts at the desk. `part` is the new part's own id, made when it arrives. */
export interface PartEventData {
  readonly 'part-arrived': {
    readonly part: string;
    readonly mapPart: string;
    readonly source: string;
    readonly arrived: CalendarDate;
    readonly window_days: number;
    readonly price?: string;
    readonly variant?: string;
  };
  readonly 'part-looked': {
    readonly part: string;
    readonly condition: PartCondition;
    readonly includes: readonly string[];
    readonly lacks: readonly string[];
    readonly text: string;
  };
  /** read off a label, a tray, a box, a screen; a place read again takes the place of the first reading */
  readonly 'part-number': { readonly part: string; readonly place: string; readonly value: string };
  /** what a register answered; `at` is when it was asked */
  readonly 'part-asked': {
    readonly part: string;
    readonly answer: RegistryAnswer;
    readonly where: string;
    readonly number: string;
    readonly at: string;
    readonly simulated: boolean;
  };
  readonly 'part-decided': { readonly part: string; readonly decision: PartDecision; readonly text: string };
  readonly 'part-sent-back': { readonly part: string; readonly date: CalendarDate; readonly text: string };
}

const id = Joi.string().min(1).max(200);
const text = Joi.string().allow('').max(4000);

/** What is true of them, and the shape of their data. */
export const PART_EVENTS: EventRows<PartEventData> = {
  'part-arrived': {
    tells: 'A new part is at the desk',
    ...WORK,
    data: Joi.object({
      part: Joi.string().guid().required(),
      mapPart: id.required(),
      source: Joi.string().min(1).max(400).required(),
      arrived: calendarDate.required(),
      window_days: Joi.number().integer().min(0).max(3650).required().messages({
        'number.min': '{{#label}} must be 0 days or more; without a window, enter 0',
      }),
      price: Joi.string().max(100),
      variant: Joi.string().max(200),
    }),
  },
  'part-looked': {
    tells: 'A new part was looked at',
    ...WORK,
    data: Joi.object({
      part: id.required(),
      condition: Joi.string().valid('good', 'damaged', 'wrong').required(),
      includes: Joi.array().max(500).items(id).required(),
      lacks: Joi.array().max(2000).items(id).required(),
      text: text.required(),
    }),
  },
  'part-number': {
    tells: 'A number was read off a part',
    ...WORK_BESIDE,
    data: Joi.object({
      part: id.required(),
      place: id.required(),
      value: Joi.string().allow('').max(100).required(),
    }),
  },
  'part-asked': {
    tells: 'A register was asked about a number',
    ...WORK_BESIDE,
    data: Joi.object({
      part: id.required(),
      answer: Joi.string()
        .valid(...REGISTRY_ANSWERS)
        .required(),
      where: Joi.string().min(1).max(400).required(),
      number: Joi.string().allow('').max(100).required(),
      at: instant.required(),
      simulated: Joi.boolean().required(),
    }),
  },
  'part-decided': {
    tells: 'A part is used, held, or goes back',
    ...WORK,
    data: Joi.object({
      part: id.required(),
      decision: Joi.string().valid('accept', 'accept-anyway', 'hold', 'send-back').required(),
      text: text.required(),
    }),
  },
  'part-sent-back': {
    tells: 'A part was sent back',
    ...WORK_BESIDE,
    data: Joi.object({ part: id.required(), date: calendarDate.required(), text: text.required() }),
  },
};
