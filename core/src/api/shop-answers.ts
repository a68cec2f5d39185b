import type { CalendarDate } from '../model/calendar/index.ts';
import { type Material, settingSchema } from '../physics/heat/index.ts';
import { REGISTRY_ANSWERS } from '../model/identity/index.ts';
import { type BenchUse } from '../job/state/index.ts';
import { type Limits, limitsSchema } from '../model/limits/index.ts';
import type { Asked, DeskPart, DeskVerdict } from '../workshop/parts/index.ts';
import type { OwnTime } from '../planner/plan/index.ts';
import { type Policy, policySchema } from '../model/policy/index.ts';
import {
  type FeltDrag,
  type MeasuredSource,
  type Role,
  ROLES,
  type Said,
  type StockLevel,
} from '../workshop/shop/index.ts';
import { count, date, figure, listOf, moment, oneOf, shape, text, yes } from './shape.ts';

const id = text.min(1);

export interface Person {
  readonly name: string;
  readonly role: Role;
}

/** The workshop as it stands. */
export interface ShopNow {
  readonly tools: readonly string[];
  /** those that were here, and were said not to be */
  readonly toolsGone: readonly string[];
  readonly people: readonly Person[];
  /** benches where a source is on or solvent was not aired, over all repairs */
  readonly benches: readonly { readonly bench: string; readonly use: BenchUse }[];
  readonly stock: readonly StockLevel[];
  readonly limits: Limits;
  /** who changed them last; null where they are as they came */
  readonly limitsBy: Said | null;
  readonly schoolsBy: Said | null;
  readonly schools: Partial<Policy>;
  readonly zone: string;
  /** everybody's, with the workshop's own figures in their place */
  readonly materials: readonly Material[];
  /** heat sources measured here, the newest last */
  readonly sources: readonly MeasuredSource[];
  /** where bonds were felt to drag here, the newest last */
  readonly drags: readonly FeltDrag[];
  /** how long operations take here, from finished work */
  readonly times: readonly OwnTime[];
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

const said = shape<Said>({ by: text, at: moment });

export const shopNow = shape<ShopNow>({
  tools: listOf(text),
  toolsGone: listOf(text),
  people: listOf(shape<Person>({ name: text, role })),
  benches: listOf(shape<ShopNow['benches'][number]>({ bench: text, use })),
  stock: listOf(shape<StockLevel>({ id, name: text, unit: text, key: text, lowAt: figure, left: figure, low: yes })),
  limits: limitsSchema,
  limitsBy: said.allow(null),
  schoolsBy: said.allow(null),
  schools: policySchema,
  zone: text,
  materials: listOf(shape<Material>({ id, k: figure, rho: figure, cp: figure, source: text }, { kInPlane: figure })),
  sources: listOf(
    shape<MeasuredSource>(
      { setting: settingSchema, residual_C: figure, map: id, joint: id, at: moment },
      { simulated: yes },
    ),
  ),
  drags: listOf(shape<FeltDrag>({ map: id, joint: id, temp_C: figure, at: moment }, { simulated: yes })),
  times: listOf(
    shape<OwnTime>(
      { kind: text, low: figure, likely: figure, high: figure },
      { type: text, style: text, each: yes, from: count },
    ),
  ),
  today: date,
  revision: count,
  standIns: yes,
});

/** A part at the desk, with the job it is for and what is to be thought of it. */
export type PartLine = DeskPart &
  DeskVerdict & {
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
