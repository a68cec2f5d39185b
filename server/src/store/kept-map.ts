import type { BenchEvent } from '@nibrel/core/job/events';
import { type Going, repairLines, toldIn } from '@nibrel/core/job/fold';
import type { JobState } from '@nibrel/core/job/state';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { mapToKeep, taught } from '@nibrel/core/teardown/infer';
import { DamagedMap, type DeviceMaps, type StoredMap } from './device-maps.ts';

/**
 * A map that was told is kept once nothing more comes off; what a finished repair has taught one is a revision of it. A job under way keeps
 * the one that it was taken in with.
 * @param told the last event that told of the device, or that finished the repair
 */
export function keepMap(maps: DeviceMaps, { base, state }: Going, told: BenchEvent, now: string): void {
  const newest = newestOf(maps, base.id);
  const map = state.teardown === 'over' ? mapToKeep(base, toldIn(state.events)) : learntBy(newest?.map, state);
  if (!map) return;
  const body = JSON.stringify(map);
  if (newest?.body !== body) maps.add({ id: map.id, name: map.name, kind: map.kind, body }, now, told.by);
}

/** Null where the newest revision is damaged: it is neither taught nor compared. */
function newestOf(maps: DeviceMaps, id: string): StoredMap | null {
  try {
    return maps.find(id);
  } catch (error) {
    if (error instanceof DamagedMap) return null;
    throw error;
  }
}

/** What a finished repair has taught the newest map of its device; null where that is nothing. */
function learntBy(map: DeviceMap | undefined, { finished, teardown, inForce }: JobState): DeviceMap | null {
  return map && finished && teardown === 'none' ? taught(map, repairLines(inForce)) : null;
}
