import { type DeviceMap, isSelfParting } from '../../model/device-map/index.ts';
import type { Target } from '../../planner/search/index.ts';
import { partName, thingName } from '../../planner/words/index.ts';

/** What is done with a part, as it is asked for when a device is taken in. */
export const ASKS = {
  part: 'replace',
  out: 'take out, put back',
  reach: 'reach',
} as const;
export type Ask = keyof typeof ASKS;

/** What can be asked for so: parts, and where something is to be reached plugs, bonds and screws as well. */
export function thingsFor(map: DeviceMap, ask: Ask): readonly { readonly id: string; readonly label: string }[] {
  const parts = map.parts.map(({ id }) => ({ id, label: partName(map, id) }));
  if (ask !== 'reach') return parts;
  const joints = map.joints.filter((each) => each.type !== 'hinge' && !isSelfParting(each));
  return [...parts, ...joints.map(({ id }) => ({ id, label: thingName(map, id) }))];
}

/**
 * The targets in an address: *?part=display&out=cell*, or *?full=1&keep=cell* for all of it but what is kept; none of it is
 * known by another name.
 */
export function targetsIn(search: URLSearchParams): readonly Target[] {
  if (search.has('full')) return [fullBut(search.getAll('keep'))];
  return [...search].flatMap(([key, id]): Target[] => {
    switch (key) {
      case 'part':
        return [{ replace: id }];
      case 'out':
        return [{ remove: id }];
      case 'reach':
        return [{ reach: id }];
      default:
        return [];
    }
  });
}

export function addressOf(map: string, targets: readonly Target[]): URLSearchParams {
  const search = new URLSearchParams({ map });
  for (const target of targets) {
    if ('full' in target) {
      search.append('full', '1');
      target.keep?.forEach((id) => search.append('keep', id));
    } else search.append(...askedOf(target));
  }
  return search;
}

function askedOf(target: Exclude<Target, { full: true }>): [Ask, string] {
  if ('replace' in target) return ['part', target.replace];
  return 'remove' in target ? ['out', target.remove] : ['reach', target.reach];
}

/** One more target; a part is asked for once, the last time counts. */
export function withAsked(targets: readonly Target[], ask: Ask, part: string): readonly Target[] {
  const others = targets.filter((each) => !('full' in each) && askedOf(each)[1] !== part);
  return [...others, ask === 'part' ? { replace: part } : ask === 'out' ? { remove: part } : { reach: part }];
}

/** All of it apart, but these and what they carry. */
export function fullBut(keep: readonly string[]): Target {
  return keep.length > 0 ? { full: true, keep } : { full: true };
}

/** *Display: replace*, *all of it apart* */
export function targetLine(map: DeviceMap, target: Target): string {
  if ('full' in target) {
    const kept = (target.keep ?? []).map((id) => partName(map, id)).join(', ');
    return `Take it all apart${kept ? ` but ${kept}` : ''}, and back`;
  }
  const [ask, thing] = askedOf(target);
  return `${thingName(map, thing)}: ${ASKS[ask]}`;
}

/** The part that a target is about; null where it is about all of them. */
export function partOf(target: Target | undefined): string | null {
  return target === undefined || 'full' in target ? null : askedOf(target)[1];
}
