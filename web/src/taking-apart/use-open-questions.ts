import { toldIn } from '@nibrel/core/job/fold';
import type { JobState } from '@nibrel/core/job/state';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import type { InferredMap } from '@nibrel/core/teardown/infer';
import { useQuery } from '@tanstack/react-query';
import { computeNow } from '../workers/compute.ts';

/** What to ask of a device that lies open, found out in a thread of its own; null until it is, and where nobody asks. */
export function useOpenQuestions(
  { job, events }: JobState,
  base: DeviceMap,
  isAsked: boolean,
): InferredMap['questions'] | null {
  const told = toldIn(events);
  const { data } = useQuery({
    queryKey: ['open-questions', job.id, told.length, told.at(-1)?.id],
    enabled: isAsked,
    staleTime: Infinity,
    queryFn: async () => {
      const found = await computeNow().openQuestions(base, events);
      // what can't be found out is not asked
      return 'value' in found ? found.value : [];
    },
  });
  return isAsked ? (data ?? null) : null;
}
