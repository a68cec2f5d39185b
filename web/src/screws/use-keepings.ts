import type { DeviceMap } from '@nibrel/core/model/device-map';
import type { JobState } from '@nibrel/core/job/state';
import type { Keeping, Kept } from '@nibrel/core/screws/mix-ups';
import { settled } from '@nibrel/core/model/policy';
import { useQuery } from '@tanstack/react-query';
import { mapKey } from '../app/map-key.ts';
import { computeNow } from '../workers/compute.ts';

const NONE: readonly Keeping[] = [];

/** The ways of keeping what a repair takes out, computed in the worker: sixteen kinds take a second. */
export function useKeepings(map: DeviceMap, { job, limits }: JobState, isWanted = true) {
  const { data, error } = useQuery({
    queryKey: ['keepings', mapKey(map), job.targets, job.policy, limits],
    queryFn: async () => {
      const found = await computeNow().keepings(map, job, limits);
      if ('problem' in found) throw new Error(found.problem);
      return found.value;
    },
    enabled: isWanted,
    staleTime: Infinity,
    retry: false,
  });
  return { keepings: data ?? NONE, problem: error?.message ?? null };
}

/** The containers that a repair keeps its screws in, by the school that it goes by; none on a map mat. */
export function useContainers(map: DeviceMap, state: JobState): readonly Kept[] {
  const school = settled(map, state.policy).policy.screws;
  const { keepings } = useKeepings(map, state, school !== 'map-mat');
  return school === 'map-mat'
    ? NO_CONTAINERS
    : (keepings.find((each) => each.school === school)?.kept ?? NO_CONTAINERS);
}

const NO_CONTAINERS: readonly Kept[] = [];
