import {
  applied,
  carried,
  type DeviceState,
  inverse,
  isStripOp,
  type Mechanism,
  OFF,
  type PhysicalOp,
  type Rules,
  type StripOp,
  isLegalNow,
  withHost,
} from '../holds/index.ts';
import {
  type Budget,
  costOf,
  leastSeconds,
  type Admission,
  NoOrderError,
  type OrderProblem,
  type OrderResult,
  solveOrder,
} from '../order/index.ts';
import { admissionFor, type Place } from './admission.ts';
import { directOnly, type Draft, type Task, withAllPredecessors } from '../drafts/index.ts';
import { tidied } from './tidy.ts';

/** Guesses until the shop's own times replace them (docs/http.md, compute/plan). */
export const TOOL_CHANGE_S = 8;
export const FLIP_S = 5;

/**
 * The cheapest order of strip-down tasks. What the tasks say of each other is tried first; where an order found that way
 * breaks a rule (what precedes an operation can have alternatives), the search runs over the device's states instead.
 */
export function arrange(
  mechanism: Mechanism,
  start: DeviceState,
  given: readonly Task[],
  isolating: ReadonlySet<string>,
  rules: Rules,
  budget: Budget,
): OrderResult {
  const tasks = withAllPredecessors(given);
  const problem = problemOf(tasks);
  const admission = admissionFor(mechanism, tasks, isolating, rules);
  const first = trySolving(() => solveOrder(problem, budget, admission(null)));
  if (first && isLegal(mechanism, start, tasks, first.order, rules)) {
    return naturally(mechanism, start, tasks, problem, first, admission(null), rules);
  }
  return trySolving(() => solveOrder(problem, budget, admission(start))) ?? asGiven(problem);
}

/**
 * The same for a rebuild. On the way back an operation done too soon can bury another, so states are searched from the
 * whole device downwards: the order found is turned round. @param start the state that the rebuild starts from
 */
export function arrangeBack(
  mechanism: Mechanism,
  whole: DeviceState,
  start: DeviceState,
  given: readonly Task[],
  rules: Rules,
  budget: Budget,
): OrderResult & { readonly onto: ReadonlyMap<string, number>; readonly isLegal: boolean } {
  const tasks = withAllPredecessors(given);
  const problem = problemOf(tasks);
  const admission = admissionFor(mechanism, tasks, new Set(), rules);
  const first = trySolving(() => solveOrder(problem, budget, admission(null)));
  if (first && isLegal(mechanism, start, tasks, first.order, rules)) {
    const order = naturally(mechanism, start, tasks, problem, first, admission(null), rules);
    return { ...order, onto: new Map(), isLegal: true };
  }

  const moved = tasks.reduce(
    (state, { physical }) => (physical && !undone(physical) ? applied(mechanism, state, physical) : state),
    start,
  );
  // where the places of the procedures leave no way back at all, the way back goes before them
  for (const wanted of [given, freeOfProcedures(given)]) {
    const turned = withAllPredecessors(turnedRound(withAllPredecessors(wanted)));
    const down = admissionFor(mechanism, turned, new Set(), rules)(whole);
    const found = trySolving(() => solveOrder(problemOf(turned), budget, groupKeeping(mechanism, turned, moved, down)));
    if (!found) continue;
    const order = [...found.order].reverse();
    const onto = placesLifted(mechanism, whole, turned, found.order);
    const optimal = found.optimal && wanted === given;
    return { ...found, ...costOf(problem, order), onto, optimal, isLegal: true };
  }
  return { ...asGiven(problem), onto: new Map(), isLegal: false };
}

function freeOfProcedures(tasks: readonly Task[]): Task[] {
  const physical = new Set(tasks.filter((task) => task.physical).map((task) => task.id));
  return tasks.map((task) =>
    task.physical ? { ...task, after: new Set([...task.after].filter((id) => physical.has(id))) } : task,
  );
}

/** The group that each part was lifted from on the way down: the one it joins on the way back. */
function placesLifted(
  mechanism: Mechanism,
  whole: DeviceState,
  tasks: readonly Task[],
  order: readonly string[],
): Map<string, number> {
  const byId = new Map(tasks.map((task) => [task.id, task.physical]));
  const places = new Map<string, number>();
  let state = whole;
  for (const id of order) {
    const op = byId.get(id);
    if (op?.kind === 'lift') places.set(id, state.group[op.part]!);
    if (op) state = applied(mechanism, state, op);
  }
  return places;
}

/** The order tidied, where that is as cheap and as legal. */
function naturally(
  mechanism: Mechanism,
  start: DeviceState,
  tasks: readonly Task[],
  problem: OrderProblem,
  found: OrderResult,
  admission: Admission<Place>,
  rules: Rules,
): OrderResult {
  const cost = costOf(problem, tidied(tasks, found.order, admission));
  if (cost.seconds > found.seconds + 1e-9 || !isLegal(mechanism, start, tasks, cost.order, rules)) return found;
  return { ...found, ...cost };
}

/** Seconds that no legal order of these operations beats. */
export function leastSecondsOf(drafts: readonly Draft[]): number {
  return leastSeconds(problemOf(withAllPredecessors(drafts.map(({ task }) => task))));
}

function problemOf(tasks: readonly Task[]): OrderProblem {
  const byId = new Map(tasks.map((task) => [task.id, task]));
  return {
    ops: tasks.map((task) => ({ ...task, after: directOnly(byId, task) })),
    start: { tool: null, face: null },
    toolChangeSeconds: TOOL_CHANGE_S,
    flipSeconds: FLIP_S,
  };
}

function asGiven(problem: OrderProblem): OrderResult {
  const cost = costOf(
    problem,
    problem.ops.map((op) => op.id),
  );
  return { ...cost, lowerBoundSeconds: 0, optimal: false };
}

function trySolving(solve: () => OrderResult): OrderResult | null {
  try {
    return solve();
  } catch (error) {
    if (error instanceof NoOrderError) return null;
    throw error;
  }
}

function isLegal(
  mechanism: Mechanism,
  start: DeviceState,
  tasks: readonly Task[],
  order: readonly string[],
  rules: Rules,
): boolean {
  const byId = new Map(tasks.map((task) => [task.id, task]));
  let state = start;
  for (const id of order) {
    const { physical } = byId.get(id)!;
    if (!physical) continue;
    const op = withHost(mechanism, state, physical);
    if (!isLegalNow(mechanism, state, op, rules)) return false;
    state = applied(mechanism, state, op);
  }
  return true;
}

/** The tasks of a rebuild as the strip-down that they undo; everything else keeps its place in the order, turned round. */
function turnedRound(tasks: readonly Task[]): Task[] {
  const later = new Map(tasks.map((task) => [task.id, new Set<string>()]));
  for (const task of tasks) task.after.forEach((id) => later.get(id)!.add(task.id));
  return tasks.map((task) => ({
    ...task,
    after: later.get(task.id)!,
    physical: task.physical && undone(task.physical),
    // a block is entered by one of its cuts, and left by its heat
    ...(task.block === undefined ? {} : { starts: task.starts !== true }),
  }));
}

/** Taking off what moves over comes before anything is put back, and is no part of the way down. */
function undone(op: PhysicalOp): StripOp | undefined {
  return isStripOp(op) ? undefined : inverse(op);
}

/** Lifts take along just what lies with the part where the rebuild starts. */
function groupKeeping(
  mechanism: Mechanism,
  tasks: readonly Task[],
  start: DeviceState,
  admission: Admission<Place>,
): Admission<Place> {
  return {
    ...admission,
    admits(place, op) {
      if (!admission.admits(place, op)) return false;
      const { physical } = tasks[op]!;
      if (physical?.kind !== 'lift' || !place.device) return true;
      const along = carried(mechanism, place.device, physical.part);
      return mechanism.map.parts.every((_, part) => {
        if (start.status[part] === OFF) return true;
        const home = start.group[part]!;
        return home === physical.part ? along.has(part) : !along.has(part) || along.has(home);
      });
    },
  };
}
