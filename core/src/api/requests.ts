import { WARM_SOURCES } from '../model/sources/index.ts';
import Joi from 'joi';
import { instant } from '../model/calendar/index.ts';
import type { DeviceMap } from '../model/device-map/index.ts';

import { doneSchema, targetSchema } from '../job/events/index.ts';
import { nameSchema } from '../model/names/index.ts';
import type { OrderProblem } from '../planner/order/index.ts';
import { type OwnTime, timesSchema } from '../planner/plan/index.ts';
import { type Policy, policySchema } from '../model/policy/index.ts';
import { type Paper, PAPERS } from '../screws/screw-mat/index.ts';
import type { Target } from '../planner/search/index.ts';
import { UNNAMED } from '../workshop/shop/index.ts';
import { named } from './shape.ts';

const id = Joi.string().min(1).max(200);
const kind = Joi.string().min(1).max(200).allow(null);
const seconds = Joi.number().min(0).max(1_000_000);

/** Most milliseconds a search may be given (docs/http.md, compute/order). */
export const MOST_MS = 30_000;
export const DEFAULT_MS = 2000;

const timeLimitMs = Joi.number().min(0).max(MOST_MS);

export type OrderRequest = OrderProblem & { readonly timeLimitMs?: number };

export const orderRequest = Joi.object<OrderRequest>({
  ops: Joi.array()
    .max(2000)
    .unique('id')
    .required()
    .items(
      Joi.object({
        id: id.required(),
        seconds: seconds.required(),
        tool: kind.required(),
        face: kind.required(),
        after: Joi.array().max(2000).items(id).required(),
      }).unknown(true),
    ),
  start: Joi.object({ tool: kind.required(), face: kind.required() }).required(),
  toolChangeSeconds: seconds.required(),
  flipSeconds: seconds.required(),
  timeLimitMs,
}).unknown(true);

/** What was done already, as a request names it. */
export type DoneRequest =
  | { readonly release: string }
  | { readonly open: string }
  | { readonly lift: string }
  | { readonly make: string }
  | { readonly close: string }
  | { readonly fit: string; readonly onto?: string; readonly new?: boolean };

const done = Joi.array().max(5000).items(doneSchema);

export interface PlanBody {
  readonly map: DeviceMap;
  readonly targets: readonly Target[];
  readonly policy?: Partial<Policy>;
  readonly done?: readonly DoneRequest[];
  readonly times?: readonly OwnTime[];
  readonly timeLimitMs?: number;
}

export const planRequest = Joi.object<PlanBody>({
  map: Joi.object().required(),
  targets: Joi.array().max(100).items(targetSchema).required(),
  policy: policySchema,
  done,
  times: timesSchema,
  timeLimitMs,
}).unknown(true);

export interface PossibleBody {
  readonly map: DeviceMap;
  readonly done?: readonly DoneRequest[];
}

export const possibleRequest = Joi.object<PossibleBody>({ map: Joi.object().required(), done }).unknown(true);

const text = Joi.string().allow('').max(500);

/** A job as it is taken in. */
export interface NewJob {
  readonly id?: string;
  readonly map: string;
  readonly targets: readonly Target[];
  readonly policy?: Partial<Policy>;
  readonly title?: string;
  readonly owner?: string;
  readonly serial?: string;
  readonly colour?: string;
}

export const newJobSchema = Joi.object<NewJob>({
  id: Joi.string().guid(),
  map: id.required(),
  targets: Joi.array().max(100).items(targetSchema).required(),
  policy: policySchema,
  title: text,
  owner: nameSchema(500).allow(''),
  serial: nameSchema(500).allow(''),
  colour: text,
}).unknown(true);

/** Most events of one call (docs/http.md). */
export const MOST_EVENTS = 1000;

/** A call with events; each of them is looked at by itself. @param name of what an event has to be */
export const eventsRequest = (name: 'Event' | 'ShopEvent') =>
  Joi.object<{ events: unknown[] }>({ events: Joi.array().items(named(name)).required() }).unknown(true);

export interface SignInBody {
  readonly password: string;
  readonly person: string;
}

export const signInRequest = Joi.object<SignInBody>({
  password: Joi.string().max(200).required(),
  person: nameSchema(60).trim().invalid(UNNAMED).required(),
});

/** A lead's own secret: shown to confirm what only a lead may say, or chosen, where none was set yet. */
export interface LeadBody {
  readonly person: string;
  readonly secret: string;
  readonly isNew?: boolean;
}

/** So short a secret is soon guessed. */
export const LEAST_SECRET = 6;

export const leadRequest = Joi.object<LeadBody>({
  person: nameSchema(60).required(),
  secret: Joi.string().min(LEAST_SECRET).max(200).required(),
  isNew: Joi.boolean(),
});

export const registryRequest = Joi.object<{ number: string }>({ number: Joi.string().min(1).max(100).required() });

/** Which jobs a list has; all of them where nothing is asked. */
export interface JobsQuery {
  readonly open?: boolean;
  readonly finished?: boolean;
  /** ISO 8601: with anything told since */
  readonly since?: string;
  readonly limit?: number;
}

const flag = Joi.boolean()
  .empty('')
  .default((_: object, { original }: { original?: unknown }) => (original === '' ? true : undefined))
  .messages({ 'boolean.base': '{{#label}} is true or false' });
const whole = (least: number, most: number) =>
  Joi.number()
    .integer()
    .min(least)
    .max(most)
    .messages(
      Object.fromEntries(
        ['base', 'integer', 'min', 'max', 'unsafe', 'infinity'].map((kind) => [
          `number.${kind}`,
          `{{#label}} must be a whole number from ${least} to ${most}`,
        ]),
      ),
    );

export const jobsQuery = Joi.object<JobsQuery>({
  open: flag,
  finished: flag,
  since: instant,
  limit: whole(1, 100_000),
});

/** Those after the first so many. */
export const eventsQuery = Joi.object<{ after?: number }>({ after: whole(0, 10_000_000) });

/** An older revision of a map. */
export const revisionQuery = Joi.object<{ revision?: number }>({ revision: whole(1, 999_999_999) });

export interface MatQuery {
  readonly paper?: Paper;
  /** counted from 1; a PDF has them all */
  readonly sheet?: number;
  /** of the map; a repair keeps the one that it was taken in with */
  readonly revision?: number;
}

export const matQuery = Joi.object<MatQuery>({
  paper: Joi.string().valid(...Object.keys(PAPERS)),
  sheet: whole(1, 1000),
  revision: whole(1, 999_999_999),
});

export interface MeterQuery {
  readonly charge: number;
  readonly energy_Wh: number;
  readonly load_W: number;
  readonly pace: number;
}

export const meterQuery = Joi.object<MeterQuery>({
  charge: Joi.number().min(0).max(1).required(),
  energy_Wh: Joi.number().greater(0).max(10_000).required(),
  load_W: Joi.number().greater(0).max(1000).required(),
  pace: Joi.number().min(1).max(3600).default(60),
});

export interface CaliperQuery {
  /** what is laid in, one after the other: *2.4:PH000,3.6:T5* */
  readonly screws: string;
  /** they were spilled: in no order, one lost, one that belongs nowhere among them */
  readonly spilled?: boolean;
  readonly seed?: number;
}

export const caliperQuery = Joi.object<CaliperQuery>({
  screws: Joi.string()
    .max(20_000)
    .pattern(/^\d{1,3}(\.\d{1,3})?:[^,]{1,40}(,\d{1,3}(\.\d{1,3})?:[^,]{1,40}){0,499}$/)
    .messages({ 'string.pattern.base': '{{#label}} must be lengths in mm with their drives, as 2.4:PH000,3.6:T5' })
    .required(),
  spilled: flag,
  seed: whole(0, 1_000_000),
});

export interface DriverQuery {
  /** windows in N·cm, one for each screw in turn: *8-10,5-7* */
  readonly windows: string;
  readonly seed?: number;
}

export const driverQuery = Joi.object<DriverQuery>({
  windows: Joi.string()
    .max(20_000)
    .pattern(/^\d{1,4}(\.\d{1,3})?-\d{1,4}(\.\d{1,3})?(,\d{1,4}(\.\d{1,3})?-\d{1,4}(\.\d{1,3})?){0,499}$/)
    .messages({ 'string.pattern.base': '{{#label}} must be windows in N·cm, as 8-10,5-7' })
    .required(),
  seed: whole(0, 1_000_000),
});

/** A device under test answers for its functions in turn. */
export interface SelfTestQuery {
  readonly job: string;
  /** ids of functions: *picture,touch* */
  readonly functions: string;
  /** ids of plugs that are not home, beside those of whose click nobody was sure */
  readonly faults?: string;
}

const ids = Joi.string().max(20_000);

export const selfTestQuery = Joi.object<SelfTestQuery>({
  job: Joi.string().max(200).required(),
  functions: ids.required(),
  faults: ids,
});

export const thermocoupleQuery = Joi.object({
  map: Joi.string().max(64).required(),
  joint: Joi.string().max(200).required(),
  kind: Joi.string()
    .valid(...WARM_SOURCES)
    .required(),
  temp_C: Joi.number().min(0).max(1000).required(),
  spot: Joi.string().valid('face', 'bond', 'far').default('bond'),
  pace: Joi.number().min(1).max(100).default(1),
  from_s: Joi.number().min(0).max(3600).default(0),
  past: Joi.string()
    .pattern(/^\d{1,5}(,\d{1,5}){0,15}$/)
    .messages({ 'string.pattern.base': '{{#label}} must be whole seconds on and off in turn, as 300,60' }),
});
