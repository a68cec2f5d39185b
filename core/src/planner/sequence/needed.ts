import { changesNothing, type DeviceState, type Mechanism, play, type Rules, type StripOp } from '../holds/index.ts';
import { type Goal, leastSets, hasOp, noWork, opKey, type Precedence, type WorkSet } from '../search/index.ts';

/** A chosen set of operations, asked what of it something needs. */
export interface Chosen {
  readonly mechanism: Mechanism;
  readonly start: DeviceState;
  readonly rules: Rules;
  readonly precedence: Precedence;
  /** hands-on seconds by operation, which decide between subsets of one size */
  readonly seconds: readonly number[];
}

/** The least subset of the chosen set that reaches this operation, itself among it. */
export function neededFor(chosen: Chosen, target: number): ReadonlySet<number> {
  const { mechanism, start, rules, precedence } = chosen;
  const sure = new Set([...precedence.before[target]!, target]);
  const played = play(
    mechanism,
    start,
    [...sure].map((each) => precedence.ops[each]!),
    rules,
  );
  // what comes before it in every order is enough in all but a few maps
  if (changesNothing(played.state, precedence.ops[target]!)) return sure;
  const op = precedence.ops[target]!;
  const goal: Goal = (state) => (changesNothing(state, op) ? [] : [{ options: [op] }]);
  return leastOf(chosen, goal) ?? new Set(Array.from({ length: target + 1 }, (_, each) => each));
}

function leastOf({ mechanism, start, rules, precedence, seconds }: Chosen, goal: Goal): ReadonlySet<number> | null {
  const byKey = new Map(precedence.ops.map((op) => [opKey(op), op]));
  // what is only lifted, in one movement, is open from then on
  const within = (asked: StripOp) =>
    byKey.get(opKey(asked)) ?? (asked.kind === 'open' ? byKey.get(`lift ${asked.part}`) : undefined);
  const found = leastSets(mechanism, start, goal, rules, noWork(mechanism), { within });
  const sets = found.map((set) => numbersOf(precedence, set));
  const cost = (set: ReadonlySet<number>) => [...set].reduce((sum, each) => sum + seconds[each]!, 0);
  return sets.length === 0 ? null : sets.reduce((a, b) => (cost(b) < cost(a) ? b : a));
}

function numbersOf({ ops }: Precedence, set: WorkSet): ReadonlySet<number> {
  return new Set(ops.flatMap((op, index) => (hasOp(set, op) ? [index] : [])));
}
