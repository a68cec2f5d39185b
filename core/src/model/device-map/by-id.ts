import type { DeviceMap, Joint, Part } from './types.ts';

interface Index {
  readonly parts: ReadonlyMap<string, Part>;
  readonly joints: ReadonlyMap<string, Joint>;
}

/** A map never changes once it is used: what has which id is found out once. */
const known = new WeakMap<DeviceMap, Index>();

function indexOf(map: DeviceMap): Index {
  const before = known.get(map);
  if (before) return before;
  const parts = new Map(map.parts.map((each) => [each.id, each]));
  const joints = new Map(map.joints.map((each) => [each.id, each]));
  const index = { parts, joints };
  known.set(map, index);
  return index;
}

/** @returns undefined where the map has no such part, or none is named */
export function partById(map: DeviceMap, id: string | null | undefined): Part | undefined {
  return id === undefined || id === null ? undefined : indexOf(map).parts.get(id);
}

/** @returns undefined where the map has no such joint, or none is named */
export function jointById(map: DeviceMap, id: string | null | undefined): Joint | undefined {
  return id === undefined || id === null ? undefined : indexOf(map).joints.get(id);
}
