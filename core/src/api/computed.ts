import Joi from 'joi';
import type { runDown, transportHints } from '../model/battery/index.ts';
import type { Bonded } from '../physics/bonding/index.ts';
import type { CutPlan } from '../planner/cut/index.ts';
import type { Op } from '../planner/drafts/index.ts';
import type { HeatResult } from '../physics/heat/index.ts';
import type { NamedNeed, NamedOp, Possible } from '../planner/holds/index.ts';
import type { checkNumbers } from '../model/identity/index.ts';
import type { Isolated } from '../physics/isolate/index.ts';
import type { Load } from '../fitting/load/index.ts';
import type { OrderResult } from '../planner/order/index.ts';
import type { Consumable, Plan, ScrewLine } from '../planner/plan/index.ts';
import type { Containers, ScrewMatch, SwapCell } from '../screws/screws/index.ts';
import { ORDER_RULES } from '../planner/sequence/index.ts';
import type { RimFit } from '../fitting/rim/index.ts';
import type { Cutting, Taped } from '../fitting/tape/index.ts';
import type { Torque } from '../physics/torque/index.ts';
import type { Warning } from '../planner/words/index.ts';
import type { InferredMap } from '../teardown/infer/index.ts';
import { count, figure, listOf, named, oneOf, shape, text, yes } from './shape.ts';

/** What the compute routes answer. */

export type BatteryAnswer = ReturnType<typeof runDown> & { readonly transport: ReturnType<typeof transportHints> };

export const batteryAnswer = shape<BatteryAnswer>({
  capacity_mAh: figure,
  nominal_V: figure,
  energy_Wh: figure,
  seconds: figure,
  transport: listOf(text),
});

type Numbers = ReturnType<typeof checkNumbers>;

export const identityAnswer = shape<Numbers>({
  numbers: listOf(
    shape<Numbers['numbers'][number]>(
      { place: text, value: text, kind: text.allow(null), valid: yes },
      { reason: text },
    ),
  ),
  agree: yes,
});

export const cutAnswer = shape<CutPlan>({
  edges: listOf(
    shape<CutPlan['edges'][number]>(
      { segment: text, depth: figure, seconds: figure },
      { reheatBefore: yes, reheatsWithin: count, near: text, zone: Joi.alternatives(text, figure) },
    ),
  ),
  reheats: count,
  warmings: count,
  seconds: figure,
});

export const heatAnswer = shape<HeatResult>({
  times_s: listOf(figure),
  probes: Joi.object().pattern(Joi.string(), listOf(figure)),
  energyError: figure,
  ready_s: figure.allow(null),
  limit_s: figure.allow(null),
  workingTime_s: figure.allow(null),
  warnings: listOf(text),
});

export const orderAnswer = shape<OrderResult>({
  order: listOf(text),
  seconds: figure,
  setupSeconds: figure,
  toolChanges: count,
  flips: count,
  lowerBoundSeconds: figure,
  optimal: yes,
});

const op = shape<Op>(
  {
    id: text,
    kind: oneOf('release', 'open', 'lift', 'make', 'close', 'fit', 'procedure'),
    tool: text.allow(null),
    face: oneOf('front', 'back', 'edge', null),
    seconds: figure,
    stage: oneOf('prepare', 'open', 'strip', 'move', 'rebuild', 'prove', 'close'),
    why: text,
    whyNotEarlier: text,
    notBefore: listOf(text),
  },
  {
    low: figure,
    high: figure,
    timesFrom: count,
    name: text,
    named: text,
    joint: text,
    part: text,
    onto: text,
    wait_s: figure,
    count,
    live: yes,
    isNew: yes,
    isOld: yes,
    frees: listOf(text),
    pries: listOf(text),
    asks: listOf(text),
    lead: shape<NonNullable<Op['lead']>>({ nth: count, of: count }),
    posture: text,
    isPlasticOnly: yes,
    serves: text,
    staysOpen: yes,
    onBoth: yes,
    joints: listOf(text),
    ruledBy: oneOf(...ORDER_RULES),
    functions: listOf(text),
    untried: listOf(text),
    isRest: yes,
    isUnsealed: yes,
  },
);
const warning = shape<Warning>({ code: text, text }, { part: text, joint: text });

export const planAnswer = shape<Plan>({
  strip: listOf(op),
  rebuild: listOf(op),
  moveOver: listOf(text),
  seconds: shape<Plan['seconds']>({ strip: figure, rebuild: figure, waiting: figure }),
  optimal: yes,
  final: yes,
  lowerBoundSeconds: figure,
  tools: listOf(text),
  screws: listOf(shape<ScrewLine>({ fastener: text, count, moved: count })),
  consumables: listOf(
    shape<Consumable>(
      { what: text, text },
      { joint: text, part: text, fastener: text, count, length_mm: figure, maybe: yes },
    ),
  ),
  leftOver: listOf(shape<Plan['leftOver'][number]>({ fastener: text, count })),
  warnings: listOf(warning),
  display: oneOf('taken-off', 'on-flexes'),
  toolChanges: count,
  flips: count,
});

/** What may be done now, and what holds the rest. */
export type PossibleAnswer = Possible & {
  readonly warnings: readonly {
    readonly code: string;
    readonly part?: string;
    readonly joint?: string;
    readonly text: string;
  }[];
};

const kind = oneOf('release', 'open', 'lift', 'make', 'close', 'fit');
const ofOp = { joint: text, part: text, onto: text, staysOpen: yes, live: yes };
const need = Joi.object<NamedNeed>({
  joint: text,
  part: text,
  need: oneOf('released', 'isolated', 'open', 'off').required(),
}).xor('joint', 'part');

export const possibleAnswer = shape<PossibleAnswer>({
  possible: listOf(shape<NamedOp>({ kind }, ofOp)),
  blocked: listOf(shape<Possible['blocked'][number]>({ kind, by: listOf(need) }, ofOp)),
  warnings: listOf(shape<PossibleAnswer['warnings'][number]>({ code: text, text }, { part: text, joint: text })),
});

export const swapAnswer = shape<{ readonly cells: readonly SwapCell[] }>({
  cells: listOf(
    shape<SwapCell>(
      {
        fastener: text,
        joint: text,
        point: text,
        verdict: oneOf('fits', 'long', 'short', 'wrong-drive', 'wrong-thread'),
      },
      { protrudes_mm: figure, engagementLost_mm: figure },
    ),
  ),
});

export const containersAnswer = shape<Containers>({
  groups: listOf(listOf(text)),
  cost: figure,
  optimal: yes,
  lowerBound: figure,
});

export const matchAnswer = shape<ScrewMatch>({
  best: listOf(shape<ScrewMatch['best'][number]>({ loose: text, class: text.allow(null) })),
  logWeight: figure,
  probabilities: Joi.object().pattern(Joi.string(), Joi.object().pattern(Joi.string(), figure)),
  ambiguous: listOf(text),
  missing: listOf(shape<ScrewMatch['missing'][number]>({ class: text, count })),
});

export const torqueAnswer = shape<Torque>(
  {
    d2: figure,
    d3: figure,
    stressArea_mm2: figure,
    torque: shape<Torque['torque']>({ N_m: figure, N_cm: figure, kgf_cm: figure, ozf_in: figure }),
    preload_N: figure,
    tensile_MPa: figure,
  },
  { strip_N: figure, stripMargin: figure },
);

export const bondAnswer = shape<Bonded>(
  { area_mm2: figure, mass_kg: figure, force_N: figure, pressure_kPa: figure, pressure_psi: figure },
  { strengthFraction: figure },
);

export const tapeAnswer = shape<Taped>(
  {
    strips: listOf(shape<Taped['strips'][number]>({ id: text, length_mm: figure })),
    length_mm: figure,
    cutting: shape<Cutting>({
      rolls: listOf(
        shape<Cutting['rolls'][number]>({ roll: text, strips: listOf(text), left_mm: figure, isWaste: yes }),
      ),
      waste_mm: figure,
      optimal: yes,
    }).allow(null),
  },
  { bead_uL: figure },
);

export interface LoadAnswer {
  /** null where the weights at hand are not enough */
  readonly load: Load | null;
}

export const loadAnswer = shape<LoadAnswer>({
  load: shape<Load>({
    placed: listOf(shape<Load['placed'][number]>({ weight: text, mass_kg: figure, x: figure, y: figure })),
    mass_kg: figure,
    off_mm: figure,
  }).allow(null),
});

export const rimAnswer = shape<RimFit>({
  kind: oneOf('flush', 'even', 'tilt', 'bend', 'high-spot'),
  most_mm: figure,
  at: shape<RimFit['at']>({ x: figure, y: figure }),
  residual_mm: figure,
  likely: Joi.object().pattern(Joi.string(), figure),
});

export const isolateAnswer = shape<Isolated>({
  sets: listOf(shape<Isolated['sets'][number]>({ connectors: listOf(text), p: figure })),
  marginals: Joi.object().pattern(Joi.string(), figure),
  nextTests: listOf(shape<Isolated['nextTests'][number]>({ function: text, bits: figure })),
});

const entry = Joi.object({ joint: text, part: text, until: oneOf('open', 'off') });
const certainty = oneOf('certain', 'likely', 'open');
const rule = oneOf('answer', 'refused', 'sight', 'outline', 'same-part', 'candidate');
/** A joint or a part, by its id. */
const thing = { joint: text, part: text };

export const inferredAnswer = shape<InferredMap>({
  map: named('DeviceMap'),
  hosts: listOf(shape<InferredMap['hosts'][number]>({ joint: text, to: text, certainty })),
  guesses: listOf(
    Joi.object({
      ...thing,
      entry: entry.required(),
      certainty: certainty.required(),
      in: yes.required(),
      why: rule.required(),
      reasons: listOf(rule).required(),
    }),
  ),
  questions: listOf(
    Joi.object({
      ...thing,
      id: text.required(),
      ask: oneOf('held').required(),
      options: listOf(entry).required(),
      plans: count.required(),
      weight: figure.required(),
    }),
  ),
  refuted: listOf(Joi.object({ ...thing, entry: entry.required() })),
});
