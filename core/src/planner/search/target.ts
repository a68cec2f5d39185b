import { notInMap, Refusal, wrong } from '../../model/refusal/index.ts';
import type { Mechanism } from '../holds/index.ts';

/** What a repair is for. No target at all means: close it up again. */
export type Target =
  | { readonly replace: string; readonly newIncludes?: readonly string[]; readonly newLacks?: readonly string[] }
  | { readonly remove: string }
  | { readonly reach: string }
  | { readonly full: true; readonly keep?: readonly string[] };

/** A request that can't be planned; `path` names the field, the message says what to do. */
export class PlanError extends Refusal {
  override readonly name = 'PlanError';
}

/** @throws PlanError where a target names what is not in the map. */
export function checkTargets(mechanism: Mechanism, targets: readonly Target[]): void {
  const part = (id: string, path: string) => {
    if (!mechanism.part.has(id)) throw new PlanError(notInMap(path, 'part', id));
  };
  const joint = (id: string, path: string) => {
    if (!mechanism.joint.has(id)) throw new PlanError(notInMap(path, 'joint', id));
  };
  targets.forEach((target, index) => {
    const at = `targets[${index}]`;
    if ('full' in target) {
      target.keep?.forEach((id, n) => part(id, `${at}.keep[${n}]`));
    } else if ('reach' in target) {
      if (!mechanism.part.has(target.reach) && !mechanism.joint.has(target.reach)) {
        throw new PlanError(notInMap(`${at}.reach`, 'part or joint', target.reach));
      }
    } else if ('remove' in target) {
      part(target.remove, `${at}.remove`);
      if (mechanism.part.get(target.remove) === mechanism.base) {
        throw new PlanError(wrong(`${at}.remove`, `"${target.remove}" is the base.`, 'Use {full: true} to bare it.'));
      }
    } else {
      part(target.replace, `${at}.replace`);
      target.newIncludes?.forEach((id, n) => part(id, `${at}.newIncludes[${n}]`));
      target.newLacks?.forEach((id, n) => joint(id, `${at}.newLacks[${n}]`));
    }
  });
}

/** What a target is for, told from every other: *replace:display*. */
export function targetId(target: Target): string {
  if ('full' in target) return ['full', ...(target.keep ?? []).toSorted()].join(' ');
  if ('reach' in target) return `reach:${target.reach}`;
  return 'remove' in target ? `remove:${target.remove}` : `replace:${target.replace}`;
}

export function inWords(mechanism: Mechanism, target: Target): string {
  const name = (id: string) => mechanism.map.parts[mechanism.part.get(id) ?? -1]?.name ?? id;
  if ('full' in target) return 'full strip';
  if ('reach' in target) return `reach ${name(target.reach)}`;
  return 'remove' in target ? `remove ${name(target.remove)}` : `replace ${name(target.replace)}`;
}
