import Joi from 'joi';
import { SEEN, WORK_BESIDE, type EventRows } from './event-row.ts';

/** A screw that was picked up, as it was measured. */
export interface PickedUp {
  readonly id: string;
  readonly length_mm: number;
  /** null, or left out, where nobody could tell */
  readonly drive?: string | null;
  readonly sd_mm?: number;
}

/** What is told of screws that lie loose. */
export interface ScrewEventData {
  /** the screw that lies on the mat for this hole, measured because it is in doubt */
  readonly 'screw-measured': {
    readonly joint: string;
    readonly point: string;
    readonly length_mm: number;
    readonly simulated?: boolean;
  };
  /** a screw that went in was tightened to this peak */
  readonly tightened: {
    readonly joint: string;
    readonly point: string;
    readonly peak_Ncm: number;
    /** it turned on without getting tighter */
    readonly slipped?: boolean;
    readonly simulated?: boolean;
  };
  /**
   * The mat was spilled: all that was picked up, and where it goes. What lay on the mat and is placed nowhere is lost; what
   * was picked up and is placed nowhere is a stranger.
   */
  readonly spill: {
    readonly loose: readonly PickedUp[];
    readonly placed: readonly {
      readonly loose: string;
      readonly joint: string;
      readonly point: string;
      /** how sure the placing is, 0 to 1 */
      readonly p: number;
    }[];
    readonly text?: string;
    readonly simulated?: boolean;
  };
}

const id = Joi.string().min(1).max(200);
const length_mm = Joi.number().greater(0).max(200).required();
const MOST_LOOSE = 500;

/** What is true of them, and the shape of their data. */
export const SCREW_EVENTS: EventRows<ScrewEventData> = {
  'screw-measured': {
    tells: 'A screw on the mat was measured',
    ...WORK_BESIDE,
    data: Joi.object({ joint: id.required(), point: id.required(), length_mm, simulated: Joi.boolean() }),
  },
  tightened: {
    tells: 'A screw was tightened to this peak',
    ...WORK_BESIDE,
    data: Joi.object({
      joint: id.required(),
      point: id.required(),
      peak_Ncm: Joi.number().min(0).max(10_000).required(),
      slipped: Joi.boolean(),
      simulated: Joi.boolean(),
    }),
  },
  spill: {
    tells: 'The mat was spilled, and what was picked up was sorted',
    ...SEEN,
    turnsPlan: false,
    data: Joi.object({
      loose: Joi.array()
        .max(MOST_LOOSE)
        .unique('id')
        .items(
          Joi.object({ id: id.required(), length_mm, drive: id.allow(null), sd_mm: Joi.number().greater(0).max(50) }),
        )
        .required(),
      placed: Joi.array()
        .max(MOST_LOOSE)
        .unique('loose')
        .unique(
          (a: { joint: string; point: string }, b: { joint: string; point: string }) =>
            a.joint === b.joint && a.point === b.point,
        )
        .items(
          Joi.object({
            loose: id.required(),
            joint: id.required(),
            point: id.required(),
            p: Joi.number().min(0).max(1).required(),
          }),
        )
        .required(),
      text: Joi.string().allow('').max(4000),
      simulated: Joi.boolean(),
    }),
  },
};
