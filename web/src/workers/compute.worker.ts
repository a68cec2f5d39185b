import { type Ahead, type BenchEvent, foldJob, type Job, planAhead } from '@nibrel/core/bench';
import type { DeviceMap } from '@nibrel/core/device-map';
import { mechanismOf } from '@nibrel/core/holds';
import { type Plan, PlanError, planRepair, type PlanRequest } from '@nibrel/core/plan';
import { expose } from 'comlink';

/** An answer, or why there is none: errors cross to the page as words. */
export type Computed<T> = { readonly value: T } | { readonly problem: string };

const budget = (limitMs: number) => ({ now: () => performance.now(), limitMs });

function computed<T>(compute: () => T): Computed<T> {
  try {
    return { value: compute() };
  } catch (error) {
    if (error instanceof PlanError || error instanceof RangeError) return { problem: error.message };
    return { problem: `The plan could not be computed: ${(error as Error).message}` };
  }
}

const compute = {
  plan: (request: PlanRequest, limitMs: number): Computed<Plan> => computed(() => planRepair(request, budget(limitMs))),
  ahead: (map: DeviceMap, job: Job, events: readonly BenchEvent[], limitMs: number): Computed<Ahead> =>
    computed(() => {
      const mechanism = mechanismOf(map);
      return planAhead(mechanism, foldJob(mechanism, job, events), budget(limitMs));
    }),
};

export type Compute = typeof compute;

expose(compute);
