import type { DeviceMap } from '@nibrel/core/device-map';
import type { JobState } from '@nibrel/core/job';
import type { WhereToTry } from '@nibrel/core/trying';
import { useQuery } from '@tanstack/react-query';
import { computeLater } from '../workers/compute.ts';

/** Where a trial on the way back pays, computed beside the work; null while it is not known. */
export function useWhereToTry(map: DeviceMap, { job, events, standing }: JobState): WhereToTry | null {
  const { data } = useQuery({
    queryKey: ['where-to-try', job.id, job.revision, standing.length, standing.at(-1)?.id],
    queryFn: async () => {
      const found = await computeLater().whereToTry(map, job, events);
      return 'value' in found ? found.value : null;
    },
    staleTime: Infinity,
    gcTime: 60_000,
    retry: false,
    placeholderData: (before) => before,
  });
  return data ?? null;
}
