import type { DeviceMap } from '@nibrel/core/model/device-map';
import type { Policy } from '@nibrel/core/model/policy';
import type { OwnTime, Plan } from '@nibrel/core/planner/plan';
import type { Target } from '@nibrel/core/planner/search';
import { useQuery } from '@tanstack/react-query';
import { mapKey } from '../app/map-key.ts';
import { shopQuery } from '../app/queries.ts';
import { computeNow } from '../workers/compute.ts';
import type { Computed } from '../workers/compute.worker.ts';

const NO_TIMES: readonly OwnTime[] = [];

/** The plan of a repair that is being taken in, made beside the page; or why there is none. */
export function usePlan(
  map: DeviceMap | undefined,
  targets: readonly Target[],
  policy: Partial<Policy>,
): { value: Plan | null; problem: string | null } {
  const times = useQuery(shopQuery).data?.times ?? NO_TIMES;
  const query = useQuery({
    queryKey: ['plan', map && mapKey(map), targets, policy, times],
    enabled: map !== undefined && targets.length > 0,
    staleTime: Infinity,
    placeholderData: (previous) => previous,
    queryFn: async (): Promise<Computed<Plan>> => computeNow().plan({ map: map!, targets, policy, times }, 600),
  });
  if (!query.data || targets.length === 0) return { value: null, problem: null };
  return 'value' in query.data
    ? { value: query.data.value, problem: null }
    : { value: null, problem: query.data.problem };
}
