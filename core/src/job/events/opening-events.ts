import Joi from 'joi';
import { PHYSICS, SEEN, WORK_BESIDE, type EventRows } from './event-row.ts';
import { nameSchema } from '../../model/names/index.ts';
import { type HeatSetting, type Reading, settingSchema } from '../../physics/heat/index.ts';

/** Picks that stay in the gap so that the bond can't close again. */
export type Placeholder = 'metal' | 'plastic';

/** What is done and measured while a device is opened. */
export interface OpeningEventData {
  /** the source is on the device */
  readonly 'heat-on': {
    readonly joint: string;
    /** how the source is set, and how it is thought to give its heat */
    readonly setting: HeatSetting;
    /** how long it is meant to stay on */
    readonly heat_s: number;
    /** of a bond whose zones are heated one after another */
    readonly zone?: string | number;
    /** where the source stands; the only bench where it is left out */
    readonly bench?: string;
    /** a source that only stands in for a real one, and how many times faster than one */
    readonly simulated?: boolean;
    readonly pace?: number;
  };
  /** thermometer readings while it is on, the oldest first; those that can't be right are refused */
  readonly 'heat-reading': {
    readonly joint: string;
    readonly readings: readonly Reading[];
    readonly simulated?: boolean;
  };
  readonly 'heat-off': {
    readonly joint: string;
    readonly seconds: number;
    /** as the readings have taught it */
    readonly setting?: HeatSetting;
    readonly residual_C?: number;
    /** what the bond is thought to have reached; only ever raises what is computed */
    readonly bond_C?: number;
  };
  /** an edge of a bond is cut; with the last one the bond is released */
  readonly edge: { readonly joint: string; readonly segment: string };
  /** how many picks stay in, 0 once they are out */
  readonly placeholder: { readonly joint: string; readonly material: Placeholder; readonly count: number };
  readonly solvent: {
    readonly joint: string;
    readonly drops: number;
    /** the heat source is off and the device away from it */
    readonly away: boolean;
    readonly bench?: string;
    /** what the bond is thought to have; only ever raises what is computed */
    readonly bond_C?: number;
  };
  /** the bench was aired; how long is counted from its last drops. `anyway`: a lead has looked, and why it is clear all the same */
  readonly aired: {
    readonly step: string;
    readonly seconds?: number;
    readonly bench?: string;
    readonly anyway?: string;
  };
}

const id = Joi.string().min(1).max(200);
const seconds = Joi.number().min(0).max(100_000);
const bench = nameSchema(60);
const temp_C = Joi.number().min(-100).max(2000);

export const OPENING_EVENTS: EventRows<OpeningEventData> = {
  'heat-on': {
    tells: 'A heat source is on the device',
    ...PHYSICS,
    turnsPlan: false,
    data: Joi.object({
      joint: id.required(),
      setting: settingSchema.required(),
      heat_s: seconds.greater(0).required(),
      zone: Joi.alternatives(id, Joi.number()),
      bench,
      simulated: Joi.boolean(),
      pace: Joi.number().min(1).max(100).when('simulated', { not: true, then: Joi.forbidden() }),
    }),
  },
  'heat-reading': {
    tells: 'A thermometer was read; past a limit it raises a stop',
    ...SEEN,
    turnsPlan: false,
    undo: 'passes-over',
    data: Joi.object({
      joint: id.required(),
      readings: Joi.array()
        .min(1)
        .max(500)
        .items(
          Joi.object({
            at_s: seconds.required(),
            temp_C: temp_C.required(),
            spot: id.required(),
          }),
        )
        .required(),
      simulated: Joi.boolean(),
    }),
  },
  'heat-off': {
    tells: 'The heat source is off',
    ...PHYSICS,
    inStop: true,
    turnsPlan: false,
    data: Joi.object({
      joint: id.required(),
      seconds: seconds.required(),
      setting: settingSchema,
      residual_C: Joi.number().min(0).max(1000),
      bond_C: temp_C,
    }),
  },
  edge: {
    tells: 'An edge of a bond is cut; with the last one it is released',
    ...WORK_BESIDE,
    data: Joi.object({ joint: id.required(), segment: id.required() }),
  },
  placeholder: {
    tells: 'Picks stay in a seam, or are out again',
    ...WORK_BESIDE,
    data: Joi.object({
      joint: id.required(),
      material: Joi.string().valid('metal', 'plastic').required(),
      count: Joi.number().integer().min(0).max(50).required(),
    }),
  },
  solvent: {
    tells: 'Drops of solvent went to a bond',
    ...PHYSICS,
    data: Joi.object({
      joint: id.required(),
      drops: Joi.number().integer().min(1).max(500).required(),
      away: Joi.boolean().required(),
      bench,
      bond_C: temp_C,
    }),
  },
  aired: {
    tells: 'A bench was aired',
    ...PHYSICS,
    inStop: true,
    turnsPlan: 'by-plan',
    data: Joi.object({ step: id.required(), seconds, bench, anyway: Joi.string().min(1).max(4000) }),
  },
};
