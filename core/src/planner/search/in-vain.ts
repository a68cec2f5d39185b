import { type DeviceState, type Mechanism, play, type Rules, type StripOp } from '../holds/index.ts';
import { housekeeping } from './housekeeping.ts';
import type { Goal } from './least-set.ts';
import { noWork, opsOf, withOps, type WorkSet } from './work-set.ts';

/** A set of more operations is left as it is: each is tried without, and that takes a play each (guess). */
const MOST_TRIED = 200;

/**
 * The set without what it does in vain: no operation of what is left can be left out, together with what then is not
 * needed, and still reach the goal. What a school asks for comes on top of a least set, and may go another way than that.
 * @param refitted parts on their way back, which housekeeping leaves alone
 */
export function withoutVain(
  mechanism: Mechanism,
  start: DeviceState,
  goal: Goal,
  rules: Rules,
  set: WorkSet,
  refitted?: ReadonlySet<number>,
): WorkSet {
  const reaches = (smaller: WorkSet): WorkSet | null => {
    const { state, done } = play(mechanism, start, opsOf(smaller), rules);
    if (goal(state).length > 0 || housekeeping(mechanism, state, refitted).length > 0) return null;
    return withOps(noWork(mechanism), start, done);
  };
  let kept = set;
  for (;;) {
    const ops = opsOf(kept);
    if (ops.length > MOST_TRIED) return kept;
    const smaller = ops.flatMap((op) => {
      const found = reaches(without(kept, op));
      return found && found.weight < kept.weight ? [found] : [];
    });
    if (smaller.length === 0) return kept;
    kept = smaller.reduce((a, b) => (b.weight < a.weight ? b : a));
  }
}

/** A set in which a joint stays made, or a part goes less far. */
function without({ joints, parts, weight }: WorkSet, op: StripOp): WorkSet {
  if (op.kind === 'release') return { joints: joints.with(op.joint, 0), parts, weight: weight - 1 };
  const level = op.kind === 'open' ? 0 : 1;
  return { joints, parts: parts.with(op.part, level), weight: weight - (parts[op.part]! - level) };
}
