import type { TemperatureUnit } from '@nibrel/core/model/units';
import {
  type Ahead,
  aheadOf,
  benchBudget,
  type ClosingChoice,
  closingChoices,
  type PlansMade,
  type SourceVerdict,
  verdictOn,
} from '@nibrel/core/bench/in-hand';
import { type BenchEvent, type Job } from '@nibrel/core/job/events';
import { type InferredMap, openQuestions } from '@nibrel/core/teardown/infer';
import { foldJob, goingOf, toldIn } from '@nibrel/core/job/fold';
import { type JobState } from '@nibrel/core/job/state';
import type { BondJoint, DeviceMap } from '@nibrel/core/model/device-map';
import {
  type CutTimes,
  cutTimesOf,
  type DeviceWarming,
  fieldOfDevice,
  type Fit,
  fitTransfer,
  foresee,
  type Foresight,
  heatField,
  type HeatSetting,
  type Reading,
  type Warming,
  type Yielding,
} from '@nibrel/core/physics/heat';
import { type Keeping, keepings, type Loose, solveSpill, type SpillSolved } from '@nibrel/core/screws/mix-ups';
import type { Ledger } from '@nibrel/core/screws/screws';
import { mechanismOf } from '@nibrel/core/planner/holds';
import { type Policy, usualPolicy } from '@nibrel/core/model/policy';
import { type OwnTime, type Plan, planRepair, type PlanRequest } from '@nibrel/core/planner/plan';
import { problemText, Refusal } from '@nibrel/core/model/refusal';
import type { Target } from '@nibrel/core/planner/search';
import { type WhileOpen, whileOpen } from '@nibrel/core/workshop/prepare';
import { type Figures, figuresOf } from '@nibrel/core/workshop/schools';
import type { Limits } from '@nibrel/core/model/limits';
import { whereToTry, type WhereToTry } from '@nibrel/core/bench/trying';
import { expose } from 'comlink';

/** An answer, or why there is none: errors cross to the page as words. */
export type Computed<T> = { readonly value: T } | { readonly problem: string };

const budget = (limitMs: number) => ({ now: () => performance.now(), limitMs });

function computed<T>(compute: () => T): Computed<T> {
  try {
    return { value: compute() };
  } catch (error) {
    if (error instanceof Refusal) return { problem: problemText(error) };
    return { problem: `This could not be computed: ${(error as Error).message}` };
  }
}

/** A device in plan over time, and how long each edge of the bond can be cut afterwards. */
export interface Field extends CutTimes {
  readonly columns: number;
  readonly rows: number;
  readonly times_s: readonly number[];
  readonly frames: readonly Float32Array[];
}

interface SchoolRequest {
  readonly map: DeviceMap;
  readonly targets: readonly Target[];
  readonly policy: Partial<Policy>;
  readonly key: keyof Policy;
  /** its options; `map` stands for no wish */
  readonly values: readonly string[];
  readonly limits: Limits;
  readonly charge: number | null;
  readonly times: readonly OwnTime[];
  readonly unit: TemperatureUnit;
}

/** Plans of this page's jobs, by where in the job they begin; a job goes another way a few dozen times at most. */
const plans = new Map<string, Map<string, Ahead>>();
const MOST_PLANS = 40;

/** @param events what they tell of the device changes its map, and with it every plan */
function plansOf({ id, revision }: Job, events: readonly BenchEvent[]): PlansMade {
  const key = `${id} ${revision} ${toldIn(events).at(-1)?.id ?? ''}`;
  const made = plans.get(key) ?? new Map<string, Ahead>();
  plans.set(key, made);
  return {
    get: (from) => made.get(from),
    set: (from, ahead) => {
      if (made.size >= MOST_PLANS) made.delete(made.keys().next().value!);
      made.set(from, ahead);
    },
  };
}

const compute = {
  plan: (request: PlanRequest, limitMs: number): Computed<Plan> => computed(() => planRepair(request, budget(limitMs))),

  /** The plan that a job goes by: the same for the same events, wherever it is asked for. */
  ahead: (map: DeviceMap, job: Job, events: readonly BenchEvent[], times: readonly OwnTime[]): Computed<Ahead> =>
    computed(() => {
      const mechanism = mechanismOf(map);
      return aheadOf(mechanism, job, events, plansOf(job, events), times);
    }),

  /** Where a job stands, and the plan that it goes by. */
  prospect: (
    map: DeviceMap,
    job: Job,
    events: readonly BenchEvent[],
    times: readonly OwnTime[],
  ): Computed<Ahead | null> & { readonly map: DeviceMap; readonly state: JobState } => {
    const { mechanism, state } = goingOf(map, job, events);
    const ahead = state.teardown === 'on' ? { value: null } : compute.ahead(mechanism.map, job, events, times);
    return { map: mechanism.map, state, ...ahead };
  },

  /** What it costs to keep, renew or glue a bond that is about to be closed. */
  closings: (map: DeviceMap, job: Job, events: readonly BenchEvent[], bond: BondJoint): Computed<ClosingChoice[]> =>
    computed(() => {
      const mechanism = mechanismOf(map);
      return closingChoices(mechanism, foldJob(mechanism, job, events), bond, benchBudget(mechanism));
    }),

  /** What every option of a question takes and risks here; null for one that can't be planned. */
  figures: (request: SchoolRequest, limitMs: number): Readonly<Record<string, Figures | null>> => {
    const { map, targets, key, values, limits, charge, times, unit } = request;
    const entries = values.map((value) => {
      const policy = { ...usualPolicy(map), ...request.policy, [key]: value === 'map' ? null : value };
      const plan = computed(() => planRepair({ map, targets, policy, times }, budget(limitMs)));
      return [
        value,
        'value' in plan ? figuresOf({ map, key, value, plan: plan.value, limits, charge, unit }) : null,
      ] as const;
    });
    return Object.fromEntries(entries);
  },

  foresee: (warming: Warming): Computed<Foresight> => computed(() => foresee(warming)),

  /** what each source does to a bond, in their order */
  verdicts: (map: DeviceMap, bond: BondJoint, soften_C: number, settings: readonly HeatSetting[]): SourceVerdict[] =>
    settings.map((setting) => verdictOn(map, bond, soften_C, setting)),

  fit: (warming: Warming, readings: readonly Reading[]): Computed<Fit | null> =>
    computed(() => fitTransfer(warming, readings)),

  field: (warming: DeviceWarming, yields: Yielding, onProgress: (share: number) => void): Computed<Field> =>
    computed(() => {
      const request = fieldOfDevice(warming);
      const result = heatField(request, onProgress);
      const { columns, rows } = request;
      const times = cutTimesOf(warming, yields, request, result);
      return { columns, rows, times_s: result.times_s, frames: result.frames, ...times };
    }),

  /** the ways of keeping what comes out, and what each risks */
  keepings: (map: DeviceMap, { targets, policy }: Job, limits: Limits): Computed<Keeping[]> =>
    computed(() => {
      // by the plan from the whole device: what lies in a container stays there, whatever is planned since
      const { strip } = planRepair({ map, targets, policy }, benchBudget(mechanismOf(map)));
      return keepings(map, strip, limits);
    }),

  /** a spilled mat sorted out */
  spill: (
    map: DeviceMap,
    ledger: Pick<Ledger, 'onMat'>,
    loose: readonly Loose[],
    limits: Limits,
  ): Computed<SpillSolved> => computed(() => solveSpill(map, ledger, loose, limits)),

  /** where on the way back of a job a trial pays */
  whereToTry: (map: DeviceMap, job: Job, events: readonly BenchEvent[]): Computed<WhereToTry> =>
    computed(() => {
      const mechanism = mechanismOf(map);
      const { ops } = aheadOf(mechanism, job, events, plansOf(job, events));
      return whereToTry(mechanism, foldJob(mechanism, job, events), ops);
    }),

  /** what to ask of a device without a map that lies open */
  openQuestions: (base: DeviceMap, events: readonly BenchEvent[]): Computed<InferredMap['questions']> =>
    computed(() => openQuestions(base, toldIn(events))),

  whileOpen: (
    map: DeviceMap,
    targets: readonly Target[],
    policy: Partial<Policy>,
    base: Plan,
    part: string,
    limitMs: number,
  ): WhileOpen | null => whileOpen(map, targets, policy, base, part, budget(limitMs)),
};

export type Compute = typeof compute;

expose(compute);
