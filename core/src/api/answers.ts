import Joi from 'joi';
import type { CalendarDate } from '../calendar/index.ts';
import { type Material, settingSchema } from '../heat/index.ts';
import { REGISTRY_ANSWERS, type RegistryAnswer } from '../identity/index.ts';
import { type BenchEvent, type BenchUse, type Job, type JobState, type Stop, targetSchema } from '../job/index.ts';
import { type Limits, limitsSchema } from '../limits/index.ts';
import type { Finding } from '../map-check/index.ts';
import type { Asked, DeskPart, DeskStanding } from '../parts/index.ts';
import { type Policy, policySchema } from '../policy/index.ts';
import type { Counts } from '../screws/index.ts';
import { type MeasuredSource, type Role, ROLES, type ShopEvent, type StockLevel } from '../shop/index.ts';
import { count, date, figure, listOf, moment, named, oneOf, shape, text, yes } from './shape.ts';

const id = text.min(1);

export interface MapLine {
  readonly id: string;
  readonly name: string;
  readonly kind: string;
  readonly revision: number;
}

const mapLine = shape<MapLine>({ id, name: text, kind: text, revision: count });
export const mapList = shape<{ readonly maps: readonly MapLine[] }>({ maps: listOf(mapLine) });

const finding = shape<Finding>({ path: text, message: text });

/** A map that was taken, with what is doubtful about it. */
export interface StoredMapLine {
  readonly id: string;
  readonly revision: number;
  readonly warnings: readonly Finding[];
}

export const storedMap = shape<StoredMapLine>({ id, revision: count, warnings: listOf(finding) });

export interface MapFindings {
  readonly errors: readonly Finding[];
  readonly warnings: readonly Finding[];
}

export const mapFindings = shape<MapFindings>({ errors: listOf(finding), warnings: listOf(finding) });

/** Where a job stands, as its events tell: what lists show of it. */
export interface JobStanding {
  readonly status: 'new' | 'under-way' | 'paused' | 'stopped' | 'finished' | 'ended' | 'unreadable';
  /** the first of the stops */
  readonly stopped: Stop | null;
  readonly stops: readonly Stop[];
  readonly ended: JobState['ended'];
  readonly finishedAt: string | null;
  readonly lastAt: string | null;
  readonly screws: Counts;
  /** how many events it has */
  readonly revision: number;
  /** why it can't be read, where it can't */
  readonly unreadable?: string;
}

/** The last repair of the same device, where it was stopped. */
export interface StoppedBefore {
  readonly job: string;
  readonly title: string;
  readonly reason: string;
  readonly text: string;
  readonly at: string;
  /** by whom it was cleared, or null: it ended stopped, or still is */
  readonly clearedBy: string | null;
}

/** What comes next in a job, for lists. */
export interface NextInJob {
  /** the operation in hand; null where nothing is left but to finish, or where there is no plan */
  readonly op: string | null;
  readonly title: string;
  readonly handsOn_s: number;
  readonly waiting_s: number;
}

/** A job as it is answered: what it was taken in as, and where it stands. */
export type JobLine = Omit<Job, 'revision'> &
  JobStanding & {
    readonly mapRevision: number;
    readonly before: StoppedBefore | null;
    /** null until a thread has found it out */
    readonly next: NextInJob | null;
  };

const stop = shape<Stop>({ id, reason: text, text, at: moment, by: text });
const before = shape<StoppedBefore>({
  job: id,
  title: text,
  reason: text,
  text,
  at: moment,
  clearedBy: text.allow(null),
});
const next = shape<NextInJob>({ op: text.allow(null), title: text, handsOn_s: figure, waiting_s: figure });
const ended = shape<NonNullable<JobState['ended']>>({ text, lead: text, at: moment });

export const jobLine = shape<JobLine>(
  {
    id,
    map: id,
    mapRevision: count,
    targets: listOf(targetSchema),
    policy: policySchema,
    title: text,
    createdAt: moment,
    status: oneOf('new', 'under-way', 'paused', 'stopped', 'finished', 'ended', 'unreadable'),
    stopped: stop.allow(null),
    stops: listOf(stop),
    ended: ended.allow(null),
    finishedAt: moment.allow(null),
    lastAt: moment.allow(null),
    screws: shape<Counts>({ out: count, onMat: count, back: count, lost: count }),
    revision: count,
    before: before.allow(null),
    next: next.allow(null),
  },
  { owner: text, serial: text, colour: text, limits: limitsSchema, unreadable: text },
);
export const jobList = shape<{ readonly jobs: readonly JobLine[] }>({ jobs: listOf(jobLine) });

export interface EventList<Event> {
  readonly events: readonly Event[];
  readonly revision: number;
}

export const jobEvents = shape<EventList<BenchEvent>>({ events: listOf(named('StoredEvent')), revision: count });
export const shopEvents = shape<EventList<ShopEvent>>({ events: listOf(named('StoredEvent')), revision: count });

/** An event as it is kept; those of an older version may say what none would be taken for today. */
export const storedEvent = Joi.object({
  id: id.required(),
  type: text.required(),
  at: text.required(),
  by: text.required(),
  data: Joi.object().unknown(true).required(),
  unreadable: yes,
});

/** What became of the events of a call. */
export interface Appended {
  readonly accepted: readonly string[];
  readonly duplicate: readonly string[];
  readonly rejected: readonly { readonly id: string; readonly problem: string }[];
  readonly revision: number;
}

export const appended = shape<Appended>({
  accepted: listOf(text),
  duplicate: listOf(text),
  rejected: listOf(shape<Appended['rejected'][number]>({ id: text, problem: text })),
  revision: count,
});

export interface Person {
  readonly name: string;
  readonly role: Role;
}

/** The workshop as it stands. */
export interface ShopNow {
  readonly tools: readonly string[];
  readonly people: readonly Person[];
  /** benches where a source is on or solvent was not aired, over all repairs */
  readonly benches: readonly { readonly bench: string; readonly use: BenchUse }[];
  readonly stock: readonly StockLevel[];
  readonly limits: Limits;
  readonly schools: Partial<Policy>;
  readonly zone: string;
  /** everybody's, with the workshop's own figures in their place */
  readonly materials: readonly Material[];
  /** heat sources measured here, the newest last */
  readonly sources: readonly MeasuredSource[];
  /** the day it is in that zone */
  readonly today: CalendarDate;
  readonly revision: number;
  /** instruments that stand in for real ones are there */
  readonly standIns: boolean;
}

const role = oneOf(...ROLES);
const use = shape<BenchUse>({
  sourceOn: text.allow(null),
  drops: listOf(shape<BenchUse['drops'][number]>({ at: moment, drops: figure })),
  airedAt: moment.allow(null),
});

export const shopNow = shape<ShopNow>({
  tools: listOf(text),
  people: listOf(shape<Person>({ name: text, role })),
  benches: listOf(shape<ShopNow['benches'][number]>({ bench: text, use })),
  stock: listOf(shape<StockLevel>({ id, name: text, unit: text, key: text, lowAt: figure, left: figure, low: yes })),
  limits: limitsSchema,
  schools: policySchema,
  zone: text,
  materials: listOf(shape<Material>({ id, k: figure, rho: figure, cp: figure, source: text }, { kInPlane: figure })),
  sources: listOf(
    shape<MeasuredSource>(
      { setting: settingSchema, residual_C: figure, map: id, joint: id, at: moment },
      { simulated: yes },
    ),
  ),
  today: date,
  revision: count,
  standIns: yes,
});

/** A part at the desk, with the job it is for and what is to be thought of it. */
export type PartLine = DeskPart &
  DeskStanding & {
    readonly job: string;
    readonly jobTitle: string;
    readonly map: string;
    readonly mapName: string;
    readonly mapRevision: number;
    readonly name: string;
    readonly simulated: boolean;
  };

const asked = shape<Asked>({
  answer: oneOf(...REGISTRY_ANSWERS),
  where: text,
  number: text,
  at: moment,
  simulated: yes,
});
const looked = shape<NonNullable<DeskPart['looked']>>({
  condition: oneOf('good', 'damaged', 'wrong'),
  includes: listOf(id),
  lacks: listOf(id),
  text,
});
const decision = shape<NonNullable<DeskPart['decision']>>({
  decision: oneOf('accept', 'accept-anyway', 'hold', 'send-back'),
  text,
  by: text,
  at: moment,
});

const partLine = shape<PartLine>(
  {
    id,
    mapPart: id,
    source: text,
    arrived: date,
    window_days: count,
    looked: looked.allow(null),
    numbers: listOf(shape<DeskPart['numbers'][number]>({ place: text, value: text })),
    asked: listOf(asked),
    decision: decision.allow(null),
    sentBack: shape<NonNullable<DeskPart['sentBack']>>({ date, text }).allow(null),
    verdict: oneOf('use', 'send-back', 'hold'),
    reasons: listOf(text),
    standing: oneOf('sent-back', 'accepted', 'accepted-anyway', 'send-back', 'too-late', 'hold', 'use'),
    accepted: yes,
    returnBy: date,
    daysLeft: count,
    isUrgent: yes,
    job: id,
    jobTitle: text,
    map: id,
    mapName: text,
    mapRevision: count,
    name: text,
    simulated: yes,
  },
  { price: text, variant: text },
);
export const partList = shape<{ readonly parts: readonly PartLine[] }>({ parts: listOf(partLine) });

export interface StoredPhoto {
  readonly hash: string;
  readonly type: string;
  readonly width: number;
  readonly height: number;
  readonly bytes: number;
}

export const storedPhoto = shape<StoredPhoto>({ hash: text, type: text, width: count, height: count, bytes: count });

/** Who is signed in, where the server is reached over a network; `needed` is false where it is not. */
export interface SignedIn {
  readonly needed: boolean;
  readonly person: string | null;
  readonly role: Role | null;
}

export const signedIn = shape<SignedIn>({ needed: yes, person: text.allow(null), role: oneOf(...ROLES, null) });

/** What a register said, marked where it only stands in for one. */
export interface RegistrySaid {
  readonly answer: RegistryAnswer;
  /** all that it may say */
  readonly answers: readonly RegistryAnswer[];
  readonly number: string;
  readonly at: string;
  readonly where: string;
  readonly simulated: boolean;
}

export const registrySaid = shape<RegistrySaid>({
  answer: oneOf(...REGISTRY_ANSWERS),
  answers: listOf(oneOf(...REGISTRY_ANSWERS)),
  number: text,
  at: moment,
  where: text,
  simulated: yes,
});

export const standInList = shape<{ readonly standIns: readonly string[] }>({ standIns: listOf(text) });
export const health = shape<{ readonly status: 'ok' }>({ status: oneOf('ok') });

/** What went wrong (RFC 9457), with the fields at fault. */
export interface ProblemAnswer {
  readonly type: string;
  readonly title: string;
  readonly status: number;
  readonly detail: string;
  readonly errors?: readonly Finding[];
}

export const problemAnswer = shape<ProblemAnswer>(
  { type: text, title: text, status: count, detail: text },
  { errors: listOf(finding) },
);
