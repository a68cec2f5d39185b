import type { BenchEvent } from '../../job/events/index.ts';
import type { DeviceMap } from '../../model/device-map/index.ts';
import type { Used } from '../../workshop/shop/index.ts';
import { usedBy } from './kit-supplies.ts';

/** What a job has used up and when, by its events in force: undone ones never happened. */
export function usedIn(map: DeviceMap, inForce: readonly BenchEvent[]): Used[] {
  return inForce.flatMap((event) =>
    event.type === 'did'
      ? usedBy(map, event.data.steps as Parameters<typeof usedBy>[1]).map(({ key, quantity }) => ({
          key,
          quantity,
          at: event.at,
        }))
      : [],
  );
}
