import Joi from 'joi';
import { ADDED, type EventRow, type EventRows, SEEN, shapesOf, WORK, WORK_BESIDE } from './event-row.ts';
import { instant } from '../../model/calendar/index.ts';
import { nameSchema } from '../../model/names/index.ts';
import type { Target } from '../../planner/search/index.ts';
import { CLOSING_EVENTS, type ClosingEventData } from './closing-events.ts';
import { DEVIATION_EVENTS, type DeviationEventData } from './deviation-events.ts';
import { INTAKE_EVENTS, type IntakeEventData } from './intake-events.ts';
import { OPENING_EVENTS, type OpeningEventData } from './opening-events.ts';
import { PART_EVENTS, type PartEventData } from './part-events.ts';
import { SCREW_EVENTS, type ScrewEventData } from './screw-events.ts';
import type { TeardownEventData } from '../../teardown/record/index.ts';
import { TEARDOWN_EVENTS } from './teardown-events.ts';
import { targetSchema } from './request-schema.ts';

/** An operation as it was done: what a plan calls it, and what it changed. */
export interface DoneStep {
  readonly id: string;
  readonly kind: 'release' | 'open' | 'lift' | 'fit' | 'close' | 'make' | 'procedure';
  readonly joint?: string;
  readonly part?: string;
  readonly onto?: string;
  readonly staysOpen?: boolean;
  readonly name?: string;
  readonly new?: boolean;
  /** a test of what only closing can have changed */
  readonly isRest?: boolean;
  /** a test before a closing without a seal */
  readonly isUnsealed?: boolean;
  /** points of a screw joint that get a new screw */
  readonly freshScrews?: readonly string[];
  /** a procedure done once more */
  readonly again?: boolean;
}

export const TROUBLE_KINDS = [
  'screw-stripped',
  'will-not-lift',
  'grabbed-again',
  'drags',
  'cup-slips',
  'cut-too-deep',
  'clip-broken',
  'tab-snapped',
  'part-cracked',
  'connector-damaged',
  'screw-lost',
  'screw-never-there',
  'one-screw-more',
  'another-length',
  'no-place',
  'other',
] as const;

export type TroubleKind = (typeof TROUBLE_KINDS)[number];

export const STOP_REASONS = [
  'swelling',
  'smoke',
  'smell',
  'leak',
  'puncture',
  'dent',
  'burnt',
  'heat',
  'other',
] as const;

export type StopReason = (typeof STOP_REASONS)[number];

const DECISIONS = ['missing-screw', 'left-open', 'charge', 'wet', 'failed-test', 'while-open', 'kit', 'other'] as const;

export type DecisionAbout = (typeof DECISIONS)[number];

/** What an event of each type says. Types and data are published as docs/events.schema.json. */
export interface EventData
  extends
    IntakeEventData,
    OpeningEventData,
    PartEventData,
    DeviationEventData,
    ScrewEventData,
    ClosingEventData,
    TeardownEventData {
  readonly note: { readonly text: string };
  readonly did: { readonly steps: readonly DoneStep[]; readonly anyway?: string };
  readonly screw: { readonly joint: string; readonly point: string };
  /** a plug that was pressed home: did it click? */
  readonly click: { readonly joint: string; readonly heard: 'clicked' | 'not-sure' };
  readonly timer: { readonly step: string; readonly seconds: number };
  readonly undo: { readonly event: string };
  readonly trouble: {
    readonly kind: TroubleKind;
    readonly text: string;
    readonly joint?: string;
    readonly part?: string;
    readonly point?: string;
    readonly fastener?: string;
    readonly length_mm?: number;
    /** the edge of a bond where it happened */
    readonly segment?: string;
    /** what the bond is thought to have had when it would not lift, or dragged */
    readonly bond_C?: number;
    /** what is tried next on a bond that will not lift; heat where it is left out */
    readonly next?: 'heat' | 'solvent';
  };
  readonly found: { readonly joint: string; readonly point: string };
  readonly decision: {
    readonly about: DecisionAbout;
    readonly text: string;
    /** about what is left open at the end: which of it, by its name in `leftOpen` */
    readonly what?: string;
    /** about a failed test: of which function */
    readonly function?: string;
    /** about a wet device: what becomes of its board */
    readonly board?: 'keep' | 'replace';
  };
  readonly test: {
    readonly function: string;
    readonly result: 'works' | 'fails' | 'not-tried';
    /** as it came in, in the middle of the work, before sealing, after it was closed */
    readonly stage: 'intake' | 'trial' | 'before' | 'after';
    /** answered by a stand-in of the demonstration */
    readonly simulated?: boolean;
    readonly text?: string;
  };
  readonly targets: { readonly targets: readonly Target[]; readonly text?: string };
  readonly pause: { readonly text?: string };
  readonly resume: Record<never, never>;
  readonly stop: { readonly reason: StopReason; readonly text: string };
  /** said by a lead: `stop` is the event that raised it, and may be left out where only one holds */
  readonly clear: { readonly stop?: string; readonly text: string; readonly lead?: string };
  /** the job ends where it stands; a stopped one is ended by a lead */
  readonly end: { readonly text: string; readonly lead?: string };
  readonly finish: { readonly text?: string };
}

export type EventType = keyof EventData;

export type BenchEvent = {
  readonly [Type in EventType]: {
    readonly id: string;
    readonly type: Type;
    /** ISO 8601 */
    readonly at: string;
    readonly by: string;
    readonly data: EventData[Type];
    /** ISO 8601, by the server's clock; left out as long as no server has it */
    readonly receivedAt?: string;
    /** what it told is damaged on the disk: it has no data, changes nothing, and stops the repair until somebody has looked */
    readonly unreadable?: true;
  };
}[EventType];

const id = Joi.string().min(1).max(200);
const text = Joi.string().max(4000);

const step = Joi.object({
  id: id.required(),
  kind: Joi.string().valid('release', 'open', 'lift', 'fit', 'close', 'make', 'procedure').required(),
  joint: id,
  part: id,
  onto: id,
  staysOpen: Joi.boolean(),
  name: id,
  new: Joi.boolean(),
  isRest: Joi.boolean(),
  isUnsealed: Joi.boolean(),
  freshScrews: Joi.array().max(500).items(id),
  again: Joi.boolean(),
});

/** One row a type: all that is true of every event of it. */
export const EVENTS: EventRows<EventData> = {
  note: {
    tells: 'Somebody wrote something down',
    ...ADDED,
    ended: true,
    data: Joi.object({ text: text.required() }),
  },
  did: {
    tells: 'Operations were done, in this order; `anyway`: against the rules, and why',
    ...WORK,
    turnsPlan: 'by-plan',
    usesSupplies: true,
    data: Joi.object({ steps: Joi.array().min(1).max(500).items(step).required(), anyway: text }),
  },
  screw: {
    tells: 'A screw lies on the mat; with the last one of a joint it is released',
    ...WORK_BESIDE,
    data: Joi.object({ joint: id.required(), point: id.required() }),
  },
  click: {
    tells: 'A plug was pressed home: did it click?',
    ...WORK_BESIDE,
    data: Joi.object({ joint: id.required(), heard: Joi.string().valid('clicked', 'not-sure').required() }),
  },
  timer: {
    tells: 'A wait has begun',
    ...WORK_BESIDE,
    data: Joi.object({ step: id.required(), seconds: Joi.number().min(0).max(1_000_000).required() }),
  },
  undo: {
    tells: 'The last thing done is taken back',
    ...ADDED,
    inStop: 'as-undone',
    beforeJob: false,
    handedOver: 'by-lead',
    usesSupplies: true,
    turnsPlan: true,
    data: Joi.object({ event: Joi.string().guid().required() }),
  },
  trouble: {
    tells: 'Something went wrong',
    ...SEEN,
    data: Joi.object({
      kind: Joi.string()
        .valid(...TROUBLE_KINDS)
        .required(),
      text: text.allow('').required(),
      joint: id,
      part: id,
      point: id,
      fastener: id,
      length_mm: Joi.number().greater(0).max(200),
      segment: id,
      bond_C: Joi.number().min(-100).max(2000),
      next: Joi.string().valid('heat', 'solvent'),
    }),
  },
  found: {
    tells: 'A screw that was lost was found',
    ...WORK_BESIDE,
    data: Joi.object({ joint: id.required(), point: id.required() }),
  },
  decision: {
    tells: 'Something was decided, with its reason',
    ...WORK,
    turnsPlan: 'as-it-says',
    data: Joi.object({
      about: Joi.string()
        .valid(...DECISIONS)
        .required(),
      text: text.required(),
      what: Joi.string().max(500).when('about', { is: 'left-open', then: Joi.required(), otherwise: Joi.forbidden() }),
      function: id.when('about', { is: 'failed-test', then: Joi.required(), otherwise: Joi.forbidden() }),
      board: Joi.string().valid('keep', 'replace').when('about', { not: 'wet', then: Joi.forbidden() }),
    }),
  },
  test: {
    tells: 'A function was tried',
    ...WORK,
    turnsPlan: 'as-it-says',
    data: Joi.object({
      function: id.required(),
      result: Joi.string().valid('works', 'fails', 'not-tried').required(),
      stage: Joi.string().valid('intake', 'trial', 'before', 'after').required(),
      simulated: Joi.boolean(),
      text: text.allow(''),
    }),
  },
  targets: {
    tells: 'What is to be reached was changed',
    ...WORK,
    data: Joi.object({ targets: Joi.array().max(50).items(targetSchema).required(), text: text.allow('') }),
  },
  pause: {
    tells: 'The work rests',
    ...WORK_BESIDE,
    undo: 'passes-over',
    data: Joi.object({ text: text.allow('') }),
  },
  resume: {
    tells: 'The work goes on',
    ...WORK_BESIDE,
    undo: 'passes-over',
    data: Joi.object({}),
  },
  stop: {
    tells: 'Hands off, until a lead has cleared it: always taken',
    ...ADDED,
    ended: true,
    data: Joi.object({
      reason: Joi.string()
        .valid(...STOP_REASONS)
        .required(),
      text: text.allow('').required(),
    }),
  },
  clear: {
    tells: 'A lead has cleared a stop',
    ...ADDED,
    ended: true,
    saidBy: 'lead',
    beforeJob: false,
    data: Joi.object({ stop: Joi.string().guid(), text: text.required(), lead: Joi.string().max(200) }),
  },
  end: {
    tells: 'The repair ends where it stands',
    ...SEEN,
    finished: true,
    undo: 'passes-over',
    turnsPlan: false,
    saidBy: 'lead-once-begun',
    data: Joi.object({ text: text.required(), lead: Joi.string().max(200) }),
  },
  finish: {
    tells: 'The repair is finished',
    ...WORK_BESIDE,
    data: Joi.object({ text: text.allow('') }),
  },
  ...INTAKE_EVENTS,
  ...OPENING_EVENTS,
  ...PART_EVENTS,
  ...DEVIATION_EVENTS,
  ...SCREW_EVENTS,
  ...CLOSING_EVENTS,
  ...TEARDOWN_EVENTS,
};

/** The shape of each type's data. */
export const EVENT_DATA = shapesOf<EventType>(EVENTS);

/** The row of a type; null for one that only another version knows. */
export function rowOf(type: string): EventRow | null {
  return Object.hasOwn(EVENTS, type) ? EVENTS[type as EventType] : null;
}

/** What every event has, whatever its type. */
export const eventEnvelope = Joi.object({
  id: Joi.string().guid().required(),
  type: Joi.string().min(1).max(100).required(),
  at: instant.required(),
  by: nameSchema(200).required(),
  data: Joi.object().required(),
});
