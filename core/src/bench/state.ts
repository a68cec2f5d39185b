import { assembled, type DeviceState, type Mechanism } from '../holds/index.ts';
import type { DoneOp, Target } from '../plan/index.ts';
import { EMPTY_LEDGER, type Ledger } from '../screws/index.ts';
import type { BenchEvent, EventData } from './events.ts';
import type { Job } from './job.ts';

export interface Timer {
  readonly step: string;
  readonly startedAt: string;
  readonly seconds: number;
}

export interface TestResult {
  readonly function: string;
  readonly result: EventData['test']['result'];
  readonly stage: 'before' | 'after';
  readonly text?: string;
  readonly at: string;
  readonly by: string;
}

export interface Trouble {
  readonly data: EventData['trouble'];
  readonly at: string;
  readonly by: string;
}

/** A change to the map that the work on this device suggests. */
export interface Correction {
  readonly path: string;
  readonly from: unknown;
  readonly to: unknown;
  readonly text: string;
}

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
  /** targets that were reached once: what was to be removed, reached or stripped may be closed again */
  readonly reached: ReadonlySet<string>;
  readonly ledger: Ledger;
  readonly timers: readonly Timer[];
  readonly tests: readonly TestResult[];
  readonly troubles: readonly Trouble[];
  readonly corrections: readonly Correction[];
  readonly stopped: { readonly reason: string; readonly text: string; readonly at: string; readonly by: string } | null;
  readonly paused: boolean;
  readonly finished: string | null;
  /** accepted events in order, those that were undone left out */
  readonly standing: readonly BenchEvent[];
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
    reached: new Set(),
    ledger: EMPTY_LEDGER,
    timers: [],
    tests: [],
    troubles: [],
    corrections: [],
    stopped: null,
    paused: false,
    finished: null,
    standing: [],
    events: [],
  };
}

/** The state after an event, or why it can't be taken: what still holds, in words. */
export type Outcome = { readonly state: JobState } | { readonly problem: string };
