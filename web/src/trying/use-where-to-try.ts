import type { DeviceMap } from '@nibrel/core/model/device-map';
import type { JobState } from '@nibrel/core/job/state';
import type { Plan } from '@nibrel/core/planner/plan';
import type { WhereToTry } from '@nibrel/core/bench/trying';
import { useQuery } from '@tanstack/react-query';
import { computedApart } from '../workers/compute.ts';

/**
 * Where a trial on the way back pays, computed beside the work; null while it is not known. Once for every plan and every doubt: while a
 * plan is gone by, what it says of the steps ahead stays so.
 * @param plan the one that is gone by; none while it is being made
 */
export function useWhereToTry(map: DeviceMap, state: JobState, plan: Plan | undefined): WhereToTry | null {
  const { job, events, unsure, troubles } = state;
  const { data } = useQuery({
    queryKey: ['where-to-try', job.id, job.revision, plan && numberOf(plan), [...unsure], troubles.length],
    queryFn: async ({ signal }) => {
      const found = await computedApart(signal, async (compute) => compute.whereToTry(map, job, events));
      return 'value' in found ? found.value : null;
    },
    enabled: plan !== undefined,
    staleTime: Infinity,
    gcTime: 60_000,
    retry: false,
    placeholderData: (before) => before,
  });
  return data ?? null;
}

/** Plans are told apart by themselves: each has a number of its own as long as it is gone by. */
const numbers = new WeakMap<Plan, number>();
let last = 0;

function numberOf(plan: Plan): number {
  const known = numbers.get(plan) ?? ++last;
  numbers.set(plan, known);
  return known;
}
