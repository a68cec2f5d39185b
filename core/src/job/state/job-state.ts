import type { Problem } from '../../model/refusal/index.ts';
import { assembled, type DeviceState, type Mechanism } from '../../planner/holds/index.ts';
import type { DeskPart } from '../../workshop/parts/index.ts';
import type { DoneOp } from '../../planner/plan/index.ts';
import type { Policy } from '../../model/policy/index.ts';
import type { Target } from '../../planner/search/index.ts';
import { EMPTY_LEDGER, type Ledger } from '../../screws/screws/index.ts';
import type { RimFit } from '../../fitting/rim/index.ts';
import type { PeakVerdict } from '../../screws/tightening/index.ts';
import { DEFAULT_LIMITS, type Limits } from '../../model/limits/index.ts';
import type { BenchEvent, DecisionAbout, EventData, Job } from '../events/index.ts';
import { AS_MAPPED, type Deviations } from './deviations.ts';
import { CLOSED, type Opening } from './opening-state.ts';

interface Timer {
  readonly step: string;
  readonly startedAt: string;
  readonly seconds: number;
}

interface TestResult {
  readonly function: string;
  readonly result: EventData['test']['result'];
  readonly stage: EventData['test']['stage'];
  readonly text?: string;
  readonly simulated?: boolean;
  readonly at: string;
  readonly by: string;
}

export interface Trouble {
  readonly data: EventData['trouble'];
  readonly at: string;
  readonly by: string;
}

/** How tight a screw was turned. */
export interface Peak {
  readonly peak_Ncm: number;
  readonly verdict: PeakVerdict;
}

/** A change to the map that the work on this device suggests. */
export interface Correction {
  readonly path: string;
  readonly from: unknown;
  readonly to: unknown;
  readonly text: string;
  /** a bond that softens later than the map says, °C */
  readonly softensFrom_C?: number;
}

/** A mark on the drawing; `id` is its event's. */
type DamageMark = EventData['damage'] & { readonly id: string };

type JobPhoto = EventData['photo'] & { readonly id: string; readonly at: string; readonly by: string };

type Measured = EventData['measure'] & {
  readonly mapped_mm: number;
  readonly over_percent: number;
  readonly at: string;
};

interface Decision {
  readonly about: DecisionAbout;
  readonly text: string;
  readonly at: string;
  readonly by: string;
  /** about what is left open at the end: which of it */
  readonly what?: string;
}

/** A wet device: battery off at once, washed, dried, tried; only then is its board decided on. */
type Wet = EventData['wet'] & {
  readonly decided: { readonly board: 'keep' | 'replace'; readonly text: string } | null;
};

/**
 * A reason to keep hands off: swelling, a puncture, a leak, smoke. It is a fact of its own: to take back the event that
 * raised it does not lift it; a lead does.
 */
export interface Stop {
  /** the event that raised it */
  readonly id: string;
  readonly reason: string;
  readonly text: string;
  /** where something was read too hot: its limit as well, °C */
  readonly read?: { readonly what: string; readonly temp_C: number; readonly max_C: number };
  readonly at: string;
  readonly by: string;
}

/** A stop that a lead has cleared, and why. */
type ClearedStop = Stop & { readonly clearedBy: string; readonly clearedAt: string; readonly why: string };

/** Where a job stands, as a fold over its events. */
export interface JobState {
  readonly job: Job;
  readonly device: DeviceState;
  /** the physical operations done, in order, as a plan takes them */
  readonly done: readonly DoneOp[];
  /** ids of the plan's operations that were done, procedures among them, and how often */
  readonly steps: ReadonlyMap<string, number>;
  /** procedures that trouble has added, to be done before the operation named */
  readonly added: readonly { readonly step: string; readonly before: string }[];
  readonly targets: readonly Target[];
  readonly policy: Partial<Policy>;
  readonly limits: Limits;
  /** targets that were reached once: what was to be removed, reached or stripped may be closed again */
  readonly reached: ReadonlySet<string>;
  readonly ledger: Ledger;
  /** how tight screws were turned, by `joint/point`, the last time of each */
  readonly peaks: ReadonlyMap<string, Peak>;
  /** plugs of which nobody is sure that they clicked, since they were last made */
  readonly unsure: ReadonlySet<string>;
  /** parts that close the device and were felt round their rim: null where they lie flush */
  readonly flush: ReadonlyMap<string, RimFit | null>;
  /** pictures for the report, by hash; null while nobody has chosen any */
  readonly chosenPhotos: readonly string[] | null;
  readonly handedOver: (EventData['handed-over'] & { readonly at: string; readonly by: string }) | null;
  readonly timers: readonly Timer[];
  readonly tests: readonly TestResult[];
  readonly troubles: readonly Trouble[];
  readonly corrections: readonly Correction[];
  /** stops that hold, the first one first; only a lead clears them, one by one */
  readonly stops: readonly Stop[];
  /** the first of them */
  readonly stopped: Stop | null;
  readonly cleared: readonly ClearedStop[];
  readonly paused: boolean;
  readonly finished: string | null;
  /** ended by the lead, where it stood */
  readonly ended: { readonly text: string; readonly lead: string; readonly at: string } | null;
  readonly words: string;
  readonly damage: readonly DamageMark[];
  readonly photos: readonly JobPhoto[];
  readonly measured: readonly Measured[];
  readonly charges: readonly (EventData['charge'] & { readonly at: string })[];
  /** what the device reported of its battery, the old one and the new */
  readonly batteryReads: readonly (EventData['battery-read'] & { readonly at: string })[];
  /** somebody has decided about the charge, and nobody has read it since */
  readonly chargeDecided: boolean;
  readonly wet: Wet | null;
  readonly agreed: (EventData['told'] & { readonly at: string }) | null;
  readonly prepared: (EventData['prepared'] & { readonly at: string; readonly by: string }) | null;
  readonly decisions: readonly Decision[];
  readonly parts: readonly DeskPart[];
  readonly opening: Opening;
  readonly deviations: Deviations;
  /** it is taken apart without a map, and told what comes off; or that is over, and it is put together again */
  readonly teardown: 'none' | 'on' | 'over';
  readonly transplant: {
    readonly allowed: (EventData['transplant-allowed'] & { readonly at: string }) | null;
    readonly done: (EventData['transplant-done'] & { readonly at: string }) | null;
  };
  /** accepted events in order, those that were undone left out */
  readonly inForce: readonly BenchEvent[];
  readonly events: readonly BenchEvent[];
}

export function newJob(mechanism: Mechanism, job: Job): JobState {
  return {
    job,
    device: assembled(mechanism),
    done: [],
    steps: new Map(),
    added: [],
    targets: job.targets,
    policy: job.policy,
    limits: { ...DEFAULT_LIMITS, ...job.limits },
    reached: new Set(),
    ledger: EMPTY_LEDGER,
    peaks: new Map(),
    unsure: new Set(),
    flush: new Map(),
    chosenPhotos: null,
    handedOver: null,
    timers: [],
    tests: [],
    troubles: [],
    corrections: [],
    stops: [],
    stopped: null,
    cleared: [],
    paused: false,
    finished: null,
    ended: null,
    words: '',
    damage: [],
    photos: [],
    measured: [],
    charges: [],
    batteryReads: [],
    chargeDecided: false,
    wet: null,
    agreed: null,
    prepared: null,
    decisions: [],
    parts: [],
    opening: CLOSED,
    deviations: AS_MAPPED,
    teardown: 'none',
    transplant: { allowed: null, done: null },
    inForce: [],
    events: [],
  };
}

/** The state after an event, or why it can't be taken: what still holds, in words. */
export type Outcome = { readonly state: JobState } | { readonly problem: Problem };
