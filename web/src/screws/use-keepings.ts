import type { DeviceMap } from '@nibrel/core/device-map';
import type { Op } from '@nibrel/core/drafts';
import type { Limits } from '@nibrel/core/limits';
import type { JobState } from '@nibrel/core/job';
import { settled } from '@nibrel/core/policy';
import type { Keeping, Kept } from '@nibrel/core/mix-ups';
import { useQuery } from '@tanstack/react-query';
import { mapKey } from '../app/map-key.ts';
import { computeNow } from '../workers/compute.ts';

const NONE: readonly Keeping[] = [];

/** The ways of keeping what a plan takes out, computed in the worker: sixteen kinds take a second. */
export function useKeepings(map: DeviceMap, strip: readonly Op[], limits: Limits) {
  const screws = strip.filter((op) => op.kind === 'release');
  const { data, error } = useQuery({
    queryKey: ['keepings', mapKey(map), screws.map(({ joint, stage }) => `${joint} ${stage}`), limits],
    queryFn: async () => {
      const found = await computeNow().keepings(map, [...strip], limits);
      if ('problem' in found) throw new Error(found.problem);
      return found.value;
    },
    enabled: screws.length > 0,
    staleTime: Infinity,
  });
  return { keepings: data ?? NONE, problem: error?.message ?? null };
}

/** The containers that a repair keeps its screws in, by the school that it goes by; none on a map mat. */
export function useContainers(map: DeviceMap, { policy, limits }: JobState, strip: readonly Op[]): readonly Kept[] {
  const school = settled(map, policy).policy.screws;
  const { keepings } = useKeepings(map, school === 'map-mat' ? NO_OPS : strip, limits);
  return school === 'map-mat'
    ? NO_CONTAINERS
    : (keepings.find((each) => each.school === school)?.kept ?? NO_CONTAINERS);
}

const NO_OPS: readonly Op[] = [];
const NO_CONTAINERS: readonly Kept[] = [];
