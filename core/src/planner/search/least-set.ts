import FlatQueue from 'flatqueue';
import { changesNothing, type DeviceState, type Mechanism, play, type Rules, type StripOp } from '../holds/index.ts';
import { type Need, needsFor } from './need.ts';
import { opKey } from './op-key.ts';
import { housekeeping } from './housekeeping.ts';
import { hasOp, opsOf, setKey, withOps, type WorkSet } from './work-set.ts';

/** What must be reached: the needs that are still open in a state; none means reached. */
export type Goal = (state: DeviceState) => readonly Need[];

export interface SearchBounds {
  /** parts on their way back, which housekeeping leaves alone */
  readonly refitted?: ReadonlySet<number>;
  /** only what it gives is looked at, in place of what is asked for, and nothing is added for housekeeping */
  readonly within?: (asked: StripOp) => StripOp | undefined;
}

interface Node {
  readonly set: WorkSet;
  readonly state: DeviceState;
}

const MOST_NODES = 4000;
const MOST_EQUALS = 8;

/**
 * The least sets of operations that can be done from `start` and reach the goal; all of one weight, at most eight.
 *
 * Best first over sets. Each set is played as far as it goes; what then still waits, or is not reached, needs one of a
 * few operations, and every solution that contains the set contains one of those. So the first complete set is a least
 * one. Needs that the set already answers are left to it.
 * @param seed operations that belong to the set in any case
 * @returns [] where no set reaches the goal
 */
export function leastSets(
  mechanism: Mechanism,
  start: DeviceState,
  goal: Goal,
  rules: Rules,
  seed: WorkSet,
  bounds: SearchBounds = {},
): WorkSet[] {
  const queue = new FlatQueue<Node>();
  const seen = new Set<string>();
  const found: WorkSet[] = [];
  const push = (set: WorkSet, state: DeviceState, depth: number) => {
    const key = setKey(set);
    if (seen.has(key)) return;
    seen.add(key);
    queue.push({ set, state }, set.weight - depth * 1e-6);
  };
  push(seed, start, 0);
  for (let depth = 1; queue.length > 0 && depth < MOST_NODES && found.length < MOST_EQUALS; depth++) {
    const node = queue.pop()!;
    if (found.length > 0 && node.set.weight > found[0]!.weight) break;
    const { set, state, open } = grown(mechanism, node, start, goal, rules, bounds);
    if (open === null) continue;
    if (set.weight > node.set.weight && open.length > 0) {
      push(set, state, depth);
      continue;
    }
    if (open.length === 0) {
      if (set.weight === node.set.weight) found.push(set);
      else push(set, state, depth);
      continue;
    }
    const narrowest = open.reduce((a, b) => (b.options.length < a.options.length ? b : a));
    for (const option of narrowest.options) push(withOps(set, start, [option]), state, depth);
  }
  return found.filter((set) => set.weight === found[0]!.weight);
}

/** Plays the set and adds what is forced, until only real choices are open; null where nothing can answer a need. */
function grown(
  mechanism: Mechanism,
  node: Node,
  start: DeviceState,
  goal: Goal,
  rules: Rules,
  { refitted, within }: SearchBounds,
): { set: WorkSet; state: DeviceState; open: readonly Need[] | null } {
  let { set, state } = node;
  for (;;) {
    const played = play(mechanism, state, opsOf(set), rules);
    state = played.state;
    const waiting: Waiting[] = played.waiting
      .filter(({ op }) => op.kind !== 'open' || set.parts[op.part] === 1)
      .map(({ op, unmet }) => {
        const host = op.kind === 'release' ? mechanism.to[op.joint]! : op.part;
        return { op, needs: needsFor(mechanism, state, unmet, host, op, rules) };
      });
    const asked = [...goal(state), ...(within ? [] : housekeeping(mechanism, state, refitted))];
    const all = [...asked, ...waiting.flatMap((each) => each.needs)];
    const needs = within ? all.map((need) => ({ options: need.options.flatMap((op) => within(op) ?? []) })) : all;
    if (needs.length === 0) return { set, state, open: waiting.length > 0 ? null : [] };
    const pending = (op: StripOp) => hasOp(set, op) && !changesNothing(state, op);
    const unanswered = needs.filter((need) => !need.options.some(pending));
    if (unanswered.some((need) => need.options.length === 0)) return { set, state, open: null };
    const forced = unanswered.filter((need) => need.options.length === 1).map((need) => need.options[0]!);
    if (forced.length > 0) {
      const larger = withOps(set, start, forced);
      // what it is asked for was done, and that does not help
      if (larger.weight === set.weight) return { set, state, open: null };
      set = larger;
      continue;
    }
    if (unanswered.length > 0) return { set, state, open: unanswered };
    const others = waysOut(waiting, set);
    return { set, state, open: others.length > 0 ? [{ options: others }] : null };
  }
}

interface Waiting {
  readonly op: StripOp;
  readonly needs: readonly Need[];
}

/**
 * Every need is answered by an operation that itself waits: they wait for each other. Every solution breaks such a ring
 * by an operation from outside, so one of the other options of the ring's members has to be chosen.
 */
function waysOut(waiting: readonly Waiting[], set: WorkSet): StripOp[] {
  const byKey = new Map(waiting.map((each) => [opKey(each.op), each]));
  const waitedFor = (each: Waiting) =>
    each.needs.flatMap((need) => need.options.flatMap((op) => byKey.get(opKey(op)) ?? liftFor(byKey, op)));
  const reach = (from: Waiting) => {
    const found = new Set([from]);
    for (const each of found) waitedFor(each).forEach((next) => found.add(next));
    return found;
  };
  // the members of a ring that waits for nothing outside itself reach least
  const ring = waiting.map(reach).reduce((a, b) => (b.size < a.size ? b : a), new Set(waiting));
  const others = [...ring].flatMap((each) =>
    each.needs.flatMap((need) => need.options.filter((op) => !hasOp(set, op))),
  );
  return [...new Map(others.map((op) => [opKey(op), op])).values()];
}

/** Opening is part of a lift that is waited for. */
function liftFor(byKey: ReadonlyMap<string, Waiting>, op: StripOp): Waiting[] {
  const lift = op.kind === 'open' ? byKey.get(`lift ${op.part}`) : undefined;
  return lift ? [lift] : [];
}
