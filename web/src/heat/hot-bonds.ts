import type { BondJoint, DeviceMap } from '@nibrel/core/model/device-map';
import { queryOptions } from '@tanstack/react-query';
import { openJobsQuery, mapQuery, mapsQuery } from '../app/queries.ts';

export function hotBonds(map: DeviceMap): BondJoint[] {
  return map.joints.filter((each): each is BondJoint => each.type === 'bond' && each.heat === true);
}

/** Where no device was named: the first with a bond to heat, those under repair before the others. */
export const firstHeatedQuery = queryOptions({
  queryKey: ['first-heated'],
  queryFn: async ({ client }) => {
    const [maps, jobs] = await Promise.all([client.fetchQuery(mapsQuery), client.fetchQuery(openJobsQuery)]);
    const underRepair = jobs.filter(({ status }) => status !== 'finished' && status !== 'ended').map(({ map }) => map);
    const ids = new Set([...underRepair, ...maps.map(({ id }) => id)]);
    for (const id of ids) {
      const map = await client.ensureQueryData(mapQuery(id));
      if (hotBonds(map).length > 0) return id;
    }
    return maps[0]?.id ?? null;
  },
});
