import type { DeviceMap } from '@nibrel/core/device-map';
import type { Job } from '@nibrel/core/job';

export function MatPages({ map, job }: { readonly map: DeviceMap; readonly job: Job }) {
  return <p>{map.name + job.id}</p>;
}
