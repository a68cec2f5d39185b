import Joi from 'joi';
import { ADDED, SEEN, WORK, WORK_BESIDE, type EventRows } from './event-row.ts';
import type { Face } from '../../model/device-map/index.ts';
import { nameSchema } from '../../model/names/index.ts';
import { type Policy, policySchema } from '../../model/policy/index.ts';

export const DAMAGES = ['crack', 'dent', 'bend', 'liquid', 'corrosion', 'swelling', 'missing'] as const;
export type Damage = (typeof DAMAGES)[number];

/** What is said, seen, measured and agreed before a device is opened. */
export interface IntakeEventData {
  /** the owner's words */
  readonly words: { readonly text: string };
  /** a mark on the drawing; the event's own id names it */
  readonly damage: {
    readonly kind: Damage;
    readonly face: Face;
    readonly x: number;
    readonly y: number;
    readonly part?: string;
    readonly text?: string;
  };
  /** pictures that the job's photo store has, by the hash of their content */
  readonly photo: {
    readonly shown: string;
    readonly thumb: string;
    readonly original?: string;
    readonly width: number;
    readonly height: number;
    readonly part?: string;
    readonly step?: string;
    /** of the mat, with all that lies on it */
    readonly of?: 'mat';
    readonly text?: string;
  };
  /** takes back a mark or a photograph, whenever it was made */
  readonly retract: { readonly event: string };
  /** of the whole device, or of a part */
  readonly measure: { readonly part?: string; readonly thickness_mm: number };
  readonly wet: { readonly indicator: 'tripped' | 'clear' | 'not-seen'; readonly text: string };
  /** 0 to 1, as the device or a meter shows it */
  readonly charge: { readonly charge: number; readonly source: 'typed' | 'meter'; readonly simulated?: boolean };
  /** what the owner was told and agreed to */
  readonly told: {
    readonly items: readonly string[];
    readonly who: string;
    readonly how: 'here' | 'by-phone' | 'in-writing';
  };
  /** the bench as it is shown: what of it is so, what is left out and why, the charge, and what the owner was told */
  readonly prepared: {
    readonly items: readonly string[];
    readonly skipped: readonly { readonly item: string; readonly reason: string }[];
    /** 0 to 1; left out where a reading was recorded before, or the device has none */
    readonly charge?: number;
    /** left out where it was recorded as told before */
    readonly told?: readonly string[];
  };
  /** a school changed for this job */
  readonly policy: { readonly change: Partial<Policy> };
  /** what the device reports of its battery: of the old one as it came in, of the new one before it is sealed in */
  readonly 'battery-read': {
    readonly of: 'old' | 'new';
    /** 0 to 1; of the capacity that it had when it was new */
    readonly health?: number;
    readonly capacity_mAh?: number;
    /** 0 to 1 */
    readonly charge?: number;
    /** what the device says of where it comes from */
    readonly origin?: 'none' | 'as-foretold' | 'not-foretold';
  };
  readonly 'transplant-allowed': {
    readonly lead: string;
    readonly text: string;
    readonly charge: number;
    readonly confirmed: readonly string[];
  };
  readonly 'transplant-done': {
    readonly old_V: number;
    readonly cells_V: readonly number[];
    readonly checked: readonly string[];
  };
}

const id = Joi.string().min(1).max(200);
const text = Joi.string().allow('').max(4000);
const hash = Joi.string().pattern(/^[0-9a-f]{64}$/);
const mm = Joi.number().min(-100).max(3000);
const pixels = Joi.number().integer().min(1).max(100_000);
const share = Joi.number().min(0).max(1);
const volts = Joi.number().min(0).max(100);
const names = Joi.array().max(200).items(Joi.string().max(4000));

/** What is true of them, and the shape of their data. */
export const INTAKE_EVENTS: EventRows<IntakeEventData> = {
  words: {
    tells: 'The words of the owner',
    ...SEEN,
    turnsPlan: false,
    data: Joi.object({ text: text.required() }),
  },
  damage: {
    tells: 'Damage was marked on the drawing; swelling raises a stop',
    ...SEEN,
    data: Joi.object({
      kind: Joi.string()
        .valid(...DAMAGES)
        .required(),
      face: Joi.string().valid('front', 'back', 'edge').required(),
      x: mm.required(),
      y: mm.required(),
      part: id,
      text,
    }),
  },
  photo: {
    tells: 'A photograph was taken',
    ...ADDED,
    undo: 'takes-back',
    data: Joi.object({
      shown: hash.required(),
      thumb: hash.required(),
      original: hash,
      width: pixels.required(),
      height: pixels.required(),
      part: id,
      step: id,
      of: Joi.string().valid('mat'),
      text,
    }),
  },
  retract: {
    tells: 'A mark or a photograph is taken back',
    ...WORK,
    finished: true,
    handedOver: 'by-lead',
    undo: 'passes-over',
    data: Joi.object({ event: Joi.string().guid().required() }),
  },
  measure: {
    tells: 'A thickness was measured; too thick raises a stop',
    ...SEEN,
    turnsPlan: false,
    data: Joi.object({ part: id, thickness_mm: Joi.number().greater(0).max(500).required() }),
  },
  wet: {
    tells: 'The device was wet',
    ...WORK,
    data: Joi.object({
      indicator: Joi.string().valid('tripped', 'clear', 'not-seen').required(),
      text: text.required(),
    }),
  },
  charge: {
    tells: 'The charge was read',
    ...SEEN,
    data: Joi.object({
      charge: share.required(),
      source: Joi.string().valid('typed', 'meter').required(),
      simulated: Joi.boolean(),
    }),
  },
  told: {
    tells: 'The owner was told, and agreed',
    ...WORK,
    data: Joi.object({
      items: names.required(),
      who: nameSchema(200).required(),
      how: Joi.string().valid('here', 'by-phone', 'in-writing').required(),
    }),
  },
  prepared: {
    tells: 'The bench is prepared, as it is shown here',
    ...WORK,
    data: Joi.object({
      items: names.required(),
      skipped: Joi.array()
        .max(200)
        .items(Joi.object({ item: id.required(), reason: Joi.string().min(1).max(4000).required() }))
        .required(),
      charge: share,
      told: names,
    }),
  },
  policy: {
    tells: 'Another school for this repair',
    ...WORK,
    data: Joi.object({ change: policySchema.min(1).required() }),
  },
  'battery-read': {
    tells: 'What the device reports of its battery',
    ...WORK_BESIDE,
    data: Joi.object({
      of: Joi.string().valid('old', 'new').required(),
      health: Joi.number().min(0).max(1.5),
      capacity_mAh: Joi.number().greater(0).max(100_000),
      charge: share,
      origin: Joi.string().valid('none', 'as-foretold', 'not-foretold'),
    })
      .or('health', 'capacity_mAh', 'charge', 'origin')
      .messages({ 'object.missing': 'health, capacity_mAh, charge or origin: give what it reports' }),
  },
  'transplant-allowed': {
    tells: 'A lead allows an iron or welder at a cell: a transplant, or a lead that is soldered to it',
    ...WORK,
    saidBy: 'lead',
    data: Joi.object({
      lead: id.required(),
      text: text.required(),
      charge: share.required(),
      confirmed: names.required(),
    }),
  },
  'transplant-done': {
    tells: 'A cell transplant was done and checked',
    ...WORK,
    data: Joi.object({
      old_V: volts.required(),
      cells_V: Joi.array().min(1).max(20).items(volts).required(),
      checked: names.required(),
    }),
  },
};
