import type { DeviceMap } from '../../model/device-map/index.ts';
import { Refusal } from '../../model/refusal/index.ts';
import { type Line, type Teardown, teardownSchema } from '../record/index.ts';
import { mapInferred } from './infer-map.ts';

/**
 * What a repair has taught a map that was made by a teardown: a refusal adds an entry, what was done while an entry did not hold deletes
 * it. Null where it teaches nothing, where the map was not made so, or where somebody has changed it by hand since: then it is theirs.
 * @param lines what the repair did, from the whole device
 */
export function taught(map: DeviceMap, lines: readonly Line[]): DeviceMap | null {
  const { origin } = map;
  if (!origin?.record || lines.length === 0) return null;
  const { value: told, error } = teardownSchema.validate(origin.record) as { value: Teardown; error?: Error };
  if (error) return null;
  try {
    if (withoutOrigin(mapInferred(told, { hasOpen: false }).map) !== withoutOrigin(map)) return null;
    const record: Teardown = { ...told, repairs: [...told.repairs, lines].slice(-MOST_REPAIRS) };
    const { map: next, guesses, refuted } = mapInferred(record, { hasOpen: false });
    if (withoutOrigin(next) === withoutOrigin(map) && guesses.length === origin.guesses.length) return null;
    return { ...next, origin: { ...origin, guesses, ...(refuted.length > 0 ? { refuted } : {}), record } };
  } catch (problem) {
    // a record that makes no map any more teaches nothing
    if (problem instanceof Refusal) return null;
    throw problem;
  }
}

/** As many as `POST /compute/infer-map` takes. */
const MOST_REPAIRS = 100;

function withoutOrigin(map: DeviceMap): string {
  return JSON.stringify({ ...map, origin: undefined });
}
