import { readdirSync, readFileSync } from 'node:fs';
import type { BondJoint, DeviceMap } from '../src/model/device-map/index.ts';

function read(path: string): DeviceMap {
  return JSON.parse(readFileSync(new URL(`../../${path}`, import.meta.url), 'utf8')) as DeviceMap;
}

/** The small example of docs/device-map.md. */
export const sample = () => read('docs/examples/sample.json');
export const tern5 = () => read('demo/device-maps/tern-5.json');
export const gannetWorks = () => read('demo/device-maps/gannet-works.json');
export const dunlinOpen = () => read('demo/device-maps/dunlin-open.json');
export const petrelGlass = () => read('demo/device-maps/petrel-glass.json');
export const knotKeys = () => read('demo/device-maps/knot-keys.json');
export const shearwater11 = () => read('demo/device-maps/shearwater-11.json');

/** Every map of the demo workshop. */
export const demoMaps = () =>
  readdirSync(new URL('../../demo/device-maps', import.meta.url)).map((name) => read(`demo/device-maps/${name}`));

type Mutable<T> = { -readonly [Key in keyof T]: T[Key] extends object ? Mutable<T[Key]> : T[Key] };

/** A copy of a map with something changed, for maps that must be refused or behave differently. */
export function changed(map: DeviceMap, change: (copy: Mutable<DeviceMap>) => void): DeviceMap {
  const copy = structuredClone(map) as Mutable<DeviceMap>;
  change(copy);
  return copy as DeviceMap;
}

/** A bond of a map by its id. */
export function bondOf(map: DeviceMap, id: string): BondJoint {
  const joint = map.joints.find((each) => each.id === id);
  if (joint?.type !== 'bond') throw new Error(`no bond ${id}`);
  return joint;
}
