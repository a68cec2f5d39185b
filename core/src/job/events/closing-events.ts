import Joi from 'joi';
import { WORK_BESIDE, type EventRows } from './event-row.ts';
import { nameSchema } from '../../model/names/index.ts';
import type { RimPoint } from '../../fitting/rim/index.ts';

/** What is told once a device is closed: how it lies, what goes into the report, to whom it was handed. */
export interface ClosingEventData {
  /** a part that closes the device, felt or measured round its rim; no points: flush all round */
  readonly flush: { readonly part: string; readonly points: readonly RimPoint[] };
  /** the pictures that go into the report, by the hash of what is shown */
  readonly 'photos-chosen': { readonly photos: readonly string[] };
  readonly 'handed-over': {
    readonly to: string;
    /** the points that were gone through, by their names */
    readonly points: readonly string[];
    /** why it goes before its adhesive has the strength that is asked for */
    readonly early?: string;
  };
}

/** So many pictures fit on a report. */
export const MOST_CHOSEN = 8;

const id = Joi.string().min(1).max(200);
const mm = Joi.number().min(-100).max(3000).required();

/** What is true of them, and the shape of their data. */
export const CLOSING_EVENTS: EventRows<ClosingEventData> = {
  flush: {
    tells: 'A closed part was felt or measured round its rim',
    ...WORK_BESIDE,
    data: Joi.object({
      part: id.required(),
      points: Joi.array()
        .max(100)
        .items(Joi.object({ x: mm, y: mm, step_mm: Joi.number().min(-20).max(20).required() }))
        .required(),
    }),
  },
  'photos-chosen': {
    tells: 'Pictures were chosen for the report',
    ...WORK_BESIDE,
    finished: true,
    handedOver: 'by-lead',
    data: Joi.object({
      photos: Joi.array()
        .max(MOST_CHOSEN)
        .unique()
        .items(Joi.string().pattern(/^[0-9a-f]{64}$/))
        .required(),
    }),
  },
  'handed-over': {
    tells: 'The device was handed over',
    ...WORK_BESIDE,
    finished: true,
    data: Joi.object({
      to: nameSchema(200).required(),
      points: Joi.array().max(200).items(Joi.string().min(1).max(500)).required(),
      early: Joi.string().min(1).max(4000),
    }),
  },
};
