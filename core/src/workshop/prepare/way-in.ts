import type { DeviceMap, UnderEntry } from '../../model/device-map/index.ts';
import type { Policy } from '../../model/policy/index.ts';
import type { Target } from '../../planner/search/index.ts';

/** Parts and joints that the way to some targets leads past, by the map alone. */
export interface WayIn {
  readonly parts: ReadonlySet<string>;
  readonly joints: ReadonlySet<string>;
}

/**
 * What has to give way before the targets are reached, without a plan: what holds each of them, what lies over it, and
 * what holds that. Where a plan finds a way round, this is more than it touches.
 */
export function wayIn(map: DeviceMap, targets: readonly Target[]): WayIn {
  const parts = new Set<string>();
  const joints = new Set<string>();
  const byId = new Map(map.parts.map((each) => [each.id, each]));
  const jointById = new Map(map.joints.map((each) => [each.id, each]));
  const holding = new Map<string, string[]>();
  for (const { id, holds } of map.joints)
    for (const part of holds) holding.set(part, [...(holding.get(part) ?? []), id]);
  const toDo: string[] = [];
  const reach = (id: string) => {
    if (parts.has(id) || joints.has(id)) return;
    (jointById.has(id) ? joints : parts).add(id);
    toDo.push(id);
  };
  const past = (under: readonly UnderEntry[] | undefined) =>
    under?.forEach((entry) => reach('part' in entry ? entry.part : entry.joint));
  for (const target of targets) {
    if ('full' in target) map.parts.forEach((each) => !each.base && !target.keep?.includes(each.id) && reach(each.id));
    else reach('replace' in target ? target.replace : 'remove' in target ? target.remove : target.reach);
  }
  for (let id = toDo.pop(); id !== undefined; id = toDo.pop()) {
    past((byId.get(id) ?? jointById.get(id))?.under);
    for (const joint of holding.get(id) ?? []) reach(joint);
  }
  return { parts, joints };
}

/** Does a target itself take a part out of the device? */
export function takesOut(map: DeviceMap, targets: readonly Target[], part: string): boolean {
  const base = map.parts.find((each) => each.base)?.id;
  return targets.some(
    (target) =>
      ('full' in target && !target.keep?.includes(part)) ||
      ('replace' in target && (target.replace === part || target.replace === base)) ||
      ('remove' in target && target.remove === part),
  );
}

/** Bonds on the way in, as the operations that cut them; none where the cell is taken out before anything is pried. */
export function certainCuts(
  map: DeviceMap,
  targets: readonly Target[],
  policy: Pick<Policy, 'batteryWhilePrying'>,
): { readonly kind: 'release'; readonly joint: string }[] {
  if (policy.batteryWhilePrying === 'out') return [];
  const { joints } = wayIn(map, targets);
  return map.joints.flatMap(({ id, type }) =>
    type === 'bond' && joints.has(id) ? [{ kind: 'release', joint: id }] : [],
  );
}

/** What the owner of a device is told of the parts that are replaced, whatever the plan. */
export function tellAnyhow(map: DeviceMap, targets: readonly Target[]): string[] {
  const replaced = targets.flatMap((each) => ('replace' in each ? [each.replace] : []));
  const notes = map.parts.flatMap(({ id, onReplace = [] }) =>
    replaced.includes(id) ? onReplace.map(({ note }) => note) : [],
  );
  return [...new Set(notes)];
}
