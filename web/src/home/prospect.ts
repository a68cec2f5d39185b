import type { Ahead } from '@nibrel/core/bench/in-hand';
import type { JobState } from '@nibrel/core/job/state';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { queryOptions } from '@tanstack/react-query';
import type { JobLine } from '@nibrel/core/api';
import { shopQuery } from '../app/queries.ts';
import { api, jobOf } from '../app/client.ts';
import { computeLater } from '../workers/compute.ts';

/** A job with what is behind it and what is ahead. */
export interface Prospect {
  readonly map: DeviceMap;
  readonly state: JobState;
  readonly ahead: Ahead | null;
  readonly problem: string | null;
}

/** Fetched and planned again only when the job has moved on. */
export function prospectQuery(job: JobLine) {
  return queryOptions({
    queryKey: ['prospect', job.id, job.mapRevision, job.revision],
    staleTime: Infinity,
    queryFn: async ({ client }): Promise<Prospect> => {
      const [map, { events }, { times }] = await Promise.all([
        api.map(job.map, job.mapRevision),
        api.events(job.id),
        client.ensureQueryData(shopQuery),
      ]);
      const { map: asTold, state, ...found } = await computeLater().prospect(map, jobOf(job), events, times);
      return {
        map: asTold,
        state,
        ahead: 'value' in found ? found.value : null,
        problem: 'problem' in found ? found.problem : null,
      };
    },
  });
}
