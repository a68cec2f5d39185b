import type { Mechanism } from '../../planner/holds/index.ts';
import { chosenPart } from '../../workshop/parts/index.ts';
import { isReached, type Target, targetId } from '../../planner/search/index.ts';
import type { JobState } from './job-state.ts';

type ReplaceTarget = Extract<Target, { readonly replace: string }>;

/** Targets reached by now: once a part was off, or a base bare, it may go back without the plan asking for it again. */
export function newlyReached(mechanism: Mechanism, state: JobState): ReadonlySet<string> {
  const fresh = state.targets.filter(
    (target) => !state.reached.has(targetId(target)) && isReached(mechanism, state.device, target),
  );
  return fresh.length === 0 ? state.reached : new Set([...state.reached, ...fresh.map(targetId)]);
}

/** Is this target met: its new part in, or what was to be off, reached or bare once so? */
export function isMet(mechanism: Mechanism, state: JobState, target: Target): boolean {
  const isBase = 'replace' in target && mechanism.part.get(target.replace) === mechanism.base;
  if (!('replace' in target) || isBase) return state.reached.has(targetId(target));
  return state.done.some((op) => op.kind === 'fit' && op.new === true && op.part === target.replace);
}

/**
 * What is still to be planned for: a part to be replaced until its new one is in, everything else until it was reached.
 * A new part that was looked at tells what came with it, and what it has no place for.
 */
export function targetsLeft(mechanism: Mechanism, state: JobState): Target[] {
  const base = mechanism.map.parts[mechanism.base]!.id;
  return state.targets
    .filter((target) => ('replace' in target && target.replace !== base) || !state.reached.has(targetId(target)))
    .map((target) => ('replace' in target ? asItCame(state, target) : target));
}

/** A replaced part with what its new one was found to include and lack. */
export function asItCame(state: JobState, target: ReplaceTarget): ReplaceTarget {
  const looked = chosenPart(state.parts, target.replace)?.looked;
  return looked ? { ...target, newIncludes: looked.includes, newLacks: looked.lacks } : target;
}
