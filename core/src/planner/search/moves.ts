import {
  applied,
  carried,
  type DeviceState,
  type Mechanism,
  OFF,
  type PhysicalOp,
  type Rules,
} from '../holds/index.ts';
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
  /** those of the parts that are on the new one already */
  readonly moved: ReadonlySet<number>;
}

/**
 * What each replaced part carries when it is lifted; what was fitted to the new one since then has moved already.
 * @param ops all that was done, and the strip-down in its order
 */
export function movesOf(
  mechanism: Mechanism,
  assembledState: DeviceState,
  ops: readonly PhysicalOp[],
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
      moved: new Set(),
    });
  };
  let state = assembledState;
  for (const op of ops) {
    if (op.kind === 'lift' && replaced.has(op.part)) note(op.part, carried(mechanism, state, op.part));
    if (op.kind === 'fit') {
      const onto = state.group[op.onto]!;
      const arrived = new Set([...state.group.keys()].filter((part) => state.group[part] === op.part));
      const index = moves.findIndex((move) => move.replaced === onto);
      if (index >= 0) {
        const move = moves[index]!;
        moves[index] = { ...move, moved: new Set([...move.moved, ...move.parts.filter((part) => arrived.has(part))]) };
      }
    }
    state = applied(mechanism, state, op);
  }
  if (replaced.has(mechanism.base)) note(mechanism.base, mechanism.map.parts.keys());
  return moves;
}

/** The work that takes the moved parts off the old ones, from the state after the strip-down. */
export function moveWork(
  mechanism: Mechanism,
  state: DeviceState,
  moves: readonly Move[],
  rules: Rules,
  refitted: ReadonlySet<number>,
): Precedence {
  const goals = moves
    .filter((move) => move.replaced !== mechanism.base)
    .map((move) =>
      partedFrom(
        mechanism,
        move.replaced,
        move.parts.filter((part) => state.status[part] !== OFF && !move.moved.has(part)),
      ),
    );
  const set = leastSets(mechanism, state, (now) => goals.flatMap((goal) => goal(now)), rules, noWork(mechanism), {
    refitted,
  })[0];
  return precedenceOf(mechanism, state, set ?? noWork(mechanism), rules);
}
