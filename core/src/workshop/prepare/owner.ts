import type { DeviceMap } from '../../model/device-map/index.ts';
import { chosenPart, type DeskPart } from '../parts/index.ts';
import { partName } from '../../planner/words/index.ts';
import type { Plan } from '../../planner/plan/index.ts';
import type { Target } from '../../planner/search/index.ts';

/** What the owner is told and agrees to before the device is opened. */
export interface OwnerItem {
  readonly kind: 'loss' | 'warning' | 'seal' | 'data' | 'origin' | 'fault';
  readonly text: string;
}

const KINDS: Readonly<Record<string, OwnerItem['kind']>> = {
  lost: 'loss',
  'stays-with': 'loss',
  recalibrate: 'warning',
  warning: 'warning',
  later: 'warning',
  'seal-opened': 'seal',
  data: 'data',
};

/** From the plan's warnings, the parts that came, and what was found not to work when it was taken in. */
export function ownerMustKnow(
  map: DeviceMap,
  plan: Pick<Plan, 'warnings'>,
  targets: readonly Target[],
  parts: readonly DeskPart[],
  failing: readonly string[],
): OwnerItem[] {
  const warned = plan.warnings.flatMap(({ code, text }): OwnerItem[] => {
    const kind = KINDS[code];
    return kind ? [{ kind, text }] : [];
  });
  const origins = targets.flatMap((target): OwnerItem[] => {
    const part = 'replace' in target ? chosenPart(parts, target.replace) : undefined;
    if (!part) return [];
    return [{ kind: 'origin', text: `The new ${partName(map, part.mapPart)} comes from: ${part.source}.` }];
  });
  const names = map.functions.filter((each) => failing.includes(each.id)).map((each) => each.name);
  const old: OwnerItem[] =
    names.length > 0 ? [{ kind: 'fault', text: `Did not work when it came in: ${names.join(', ')}.` }] : [];
  const all = [...old, ...warned, ...origins];
  return all.filter((each, index) => all.findIndex(({ text }) => text === each.text) === index);
}
