import type { DeviceMap } from '../../model/device-map/index.ts';

/** The same map with its lists sorted by id: the order of parts and joints in a file means nothing, so neither to a plan. */
export function inOrderOfIds(map: DeviceMap): DeviceMap {
  return {
    ...map,
    fasteners: sorted(map.fasteners),
    parts: sorted(map.parts).map((part) => (part.under ? { ...part, under: sortedEntries(part.under) } : part)),
    joints: sorted(map.joints).map((joint) => ({
      ...joint,
      holds: joint.holds.toSorted(byText),
      ...(joint.under ? { under: sortedEntries(joint.under) } : {}),
    })),
    functions: sorted(map.functions),
  };
}

function sorted<T extends { readonly id: string }>(list: readonly T[]): T[] {
  return list.toSorted((a, b) => byText(a.id, b.id));
}

function sortedEntries<T extends object>(entries: readonly T[]): T[] {
  return entries.toSorted((a, b) => byText(JSON.stringify(a), JSON.stringify(b)));
}

function byText(a: string, b: string): number {
  return a < b ? -1 : a > b ? 1 : 0;
}
