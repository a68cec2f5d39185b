import type { DeviceMap } from '@nibrel/core/model/device-map';

const keys = new WeakMap<DeviceMap, string>();
let count = 0;

/**
 * Names a revision of a map in the keys of what is computed from it. Every revision that is fetched is an object of its
 * own, and stays the same object while it is fetched again unchanged; so what was computed from an older one is never
 * taken for the newer.
 */
export function mapKey(map: DeviceMap): string {
  const key = keys.get(map) ?? `${map.id} ${++count}`;
  keys.set(map, key);
  return key;
}
