import { applied, carried, type DeviceState, type Mechanism, OFF, type Rules, type StripOp } from '../holds/index.ts';
import { partedFrom } from './goal.ts';
import { leastSets } from './least-set.ts';
import { type Precedence, precedenceOf } from './precedence.ts';
import type { Target } from './target.ts';
import { noWork } from './work-set.ts';

/** What goes from an old part to its new one, side by side on the mat. */
export interface Move {
  readonly replaced: number;
  /** every part that moves over, also one that rides on another */
  readonly parts: readonly number[];
  /** carried parts that stay on the old one and are renewed: single-use pieces */
  readonly renewed: readonly number[];
  readonly included: readonly number[];
}

/**
 * What each replaced part carries when it is lifted. @param ops the strip-down in its order, the earlier work first
 */
export function movesOf(
  mechanism: Mechanism,
  assembledState: DeviceState,
  ops: readonly StripOp[],
  targets: readonly Target[],
): Move[] {
  const replaced = new Map(
    targets.flatMap((target) => ('replace' in target ? [[mechanism.part.get(target.replace)!, target] as const] : [])),
  );
  const moves: Move[] = [];
  const note = (part: number, along: Iterable<number>) => {
    const included = (replaced.get(part)!.newIncludes ?? []).map((id) => mechanism.part.get(id)!);
    const others = [...along].filter((each) => each !== part && !replaced.has(each) && !included.includes(each));
    const singleUse = (each: number) => mechanism.map.parts[each]!.reuse === 'single-use';
    moves.push({
      replaced: part,
      parts: others.filter((each) => !singleUse(each)),
      renewed: others.filter(singleUse),
      included,
    });
  };
  let state = assembledState;
  for (const op of ops) {
    if (op.kind === 'lift' && replaced.has(op.part)) note(op.part, carried(mechanism, state, op.part));
    state = applied(mechanism, state, op);
  }
  if (replaced.has(mechanism.base)) note(mechanism.base, mechanism.map.parts.keys());
  return moves;
}

/** The work that takes the moved parts off the old ones, from the state after the strip-down. */
export function moveWork(mechanism: Mechanism, state: DeviceState, moves: readonly Move[], rules: Rules): Precedence {
  const goals = moves
    .filter((move) => move.replaced !== mechanism.base)
    .map((move) =>
      partedFrom(
        mechanism,
        move.replaced,
        move.parts.filter((part) => state.status[part] !== OFF),
      ),
    );
  const set = leastSets(mechanism, state, (now) => goals.flatMap((goal) => goal(now)), rules, noWork(mechanism))[0];
  return precedenceOf(mechanism, state, set ?? noWork(mechanism), rules);
}
