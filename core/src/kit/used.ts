import type { BenchEvent } from '../job/index.ts';
import type { DeviceMap } from '../device-map/index.ts';
import type { Used } from '../shop/index.ts';
import { usedBy } from './supplies.ts';

/** What a job has used up and when, by its standing events: undone ones never happened. */
export function usedIn(map: DeviceMap, standing: readonly BenchEvent[]): Used[] {
  return standing.flatMap((event) =>
    event.type === 'did'
      ? usedBy(map, event.data.steps as Parameters<typeof usedBy>[1]).map(({ key, quantity }) => ({
          key,
          quantity,
          at: event.at,
        }))
      : [],
  );
}
