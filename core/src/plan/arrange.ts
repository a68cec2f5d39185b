import {
  type Budget,
  costOf,
  CycleError,
  type Gate,
  NoOrderError,
  type OrderProblem,
  type OrderResult,
  solveOrder,
} from '../order/index.ts';
import { tidied } from './tidy.ts';
import {
  applied,
  carried,
  type DeviceState,
  hostsOf,
  mayRebuild,
  type Mechanism,
  OFF,
  type PhysicalOp,
  type Rules,
  unmetFor,
} from '../holds/index.ts';

/** Guesses until the shop's own times replace them (contract.md, compute/plan). */
export const TOOL_CHANGE_S = 8;
export const FLIP_S = 5;

/** An operation to be put in order. */
export interface Task {
  readonly id: string;
  readonly seconds: number;
  readonly tool: string | null;
  readonly face: string | null;
  readonly after: ReadonlySet<string>;
  readonly physical?: PhysicalOp;
  /** tasks of one block follow each other directly; `starts` marks the first */
  readonly block?: string;
  readonly starts?: boolean;
  /** released live: all that leads to a dead device follows directly */
  readonly live?: boolean;
}

interface Place {
  readonly block: string | null;
  readonly blockLeft: number;
  readonly live: boolean;
  readonly isolatingLeft: number;
  readonly device: DeviceState | null;
}

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
  const gate = gateFor(mechanism, tasks, isolating, rules);
  const first = trySolving(() => solveOrder(problem, budget, gate(null)));
  if (first && isLegal(mechanism, start, tasks, first.order, rules)) {
    return naturally(mechanism, start, tasks, problem, first, gate(null), rules);
  }
  return trySolving(() => solveOrder(problem, budget, gate(start))) ?? asGiven(problem);
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
): OrderResult & { readonly onto: ReadonlyMap<string, number> } {
  const tasks = withAllPredecessors(given);
  const problem = problemOf(tasks);
  const gate = gateFor(mechanism, tasks, new Set(), rules);
  const first = trySolving(() => solveOrder(problem, budget, gate(null)));
  if (first && isLegal(mechanism, start, tasks, first.order, rules)) {
    return { ...naturally(mechanism, start, tasks, problem, first, gate(null), rules), onto: new Map() };
  }

  const moved = tasks.reduce(
    (state, { physical }) => (physical && !undone(physical) ? applied(mechanism, state, physical) : state),
    start,
  );
  // where the places of the procedures leave no way back at all, the way back goes before them
  for (const wanted of [given, freeOfProcedures(given)]) {
    const turned = withAllPredecessors(turnedRound(withAllPredecessors(wanted)));
    const down = gateFor(mechanism, turned, new Set(), rules)(whole);
    const found = trySolving(() => solveOrder(problemOf(turned), budget, groupKeeping(mechanism, turned, moved, down)));
    if (!found) continue;
    const order = [...found.order].reverse();
    const onto = placesLifted(mechanism, whole, turned, found.order);
    return { ...found, ...costOf(problem, order), onto, optimal: found.optimal && wanted === given };
  }
  return { ...asGiven(problem), onto: new Map() };
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
  gate: Gate<Place>,
  rules: Rules,
): OrderResult {
  const cost = costOf(problem, tidied(tasks, found.order, gate));
  if (cost.seconds > found.seconds + 1e-9 || !isLegal(mechanism, start, tasks, cost.order, rules)) return found;
  return { ...found, ...cost };
}

function problemOf(tasks: readonly Task[]): OrderProblem {
  return {
    ops: tasks.map((task) => ({ ...task, after: directOnly(tasks, task) })),
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

/** A part is fitted to the group where what holds it lies by then, unless its place is given. */
export function withHost(mechanism: Mechanism, state: DeviceState, op: PhysicalOp): PhysicalOp {
  if (op.kind !== 'fit' || op.onto >= 0) return op;
  return { ...op, onto: hostsOf(mechanism, state, op.part)[0] ?? mechanism.base };
}

function isLegalNow(mechanism: Mechanism, state: DeviceState, op: PhysicalOp, rules: Rules): boolean {
  switch (op.kind) {
    case 'release':
    case 'open':
    case 'lift':
      return unmetFor(mechanism, state, op, rules).length === 0;
    default:
      return mayRebuild(mechanism, state, op, undefined, rules.extra);
  }
}

/**
 * The same tasks with everything that precedes them, not just what directly does.
 * @throws CycleError where tasks wait for each other
 */
export function withAllPredecessors(tasks: readonly Task[]): Task[] {
  const byId = new Map(tasks.map((task) => [task.id, task]));
  const closed = new Map<string, Set<string>>();
  const path: string[] = [];
  const close = (id: string): Set<string> => {
    const known = closed.get(id);
    if (known) return known;
    if (path.includes(id)) throw new CycleError(path.slice(path.indexOf(id)).reverse());
    path.push(id);
    const all = new Set<string>();
    for (const each of byId.get(id)!.after) {
      if (!byId.has(each)) continue;
      all.add(each);
      close(each).forEach((earlier) => all.add(earlier));
    }
    path.pop();
    closed.set(id, all);
    return all;
  };
  return tasks.map((task) => ({ ...task, after: close(task.id) }));
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

function undone(op: PhysicalOp): PhysicalOp | undefined {
  switch (op.kind) {
    case 'make':
      return { kind: 'release', joint: op.joint };
    case 'close':
      return { kind: 'open', part: op.part };
    case 'fit':
      return { kind: 'lift', part: op.part };
    default:
      // taking off what moves over comes before anything is put back, and is no part of the way down
      return undefined;
  }
}

/** Lifts take along just what lies with the part where the rebuild starts. */
function groupKeeping(
  mechanism: Mechanism,
  tasks: readonly Task[],
  start: DeviceState,
  gate: Gate<Place>,
): Gate<Place> {
  return {
    ...gate,
    admits(place, op) {
      if (!gate.admits(place, op)) return false;
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

/** Leaves out what follows from the others: fewer arrows, the same orders. */
function directOnly(tasks: readonly Task[], task: Task): string[] {
  const byId = new Map(tasks.map((each) => [each.id, each]));
  const implied = new Set([...task.after].flatMap((id) => [...(byId.get(id)?.after ?? [])]));
  return [...task.after].filter((id) => !implied.has(id));
}

function gateFor(mechanism: Mechanism, tasks: readonly Task[], isolating: ReadonlySet<string>, rules: Rules) {
  const sizes = new Map<string, number>();
  for (const { block } of tasks) if (block) sizes.set(block, (sizes.get(block) ?? 0) + 1);
  const towards = new Set(isolating);
  for (const task of tasks) if (isolating.has(task.id)) task.after.forEach((id) => towards.add(id));
  const anyLive = tasks.some((task) => task.live);

  return (device: DeviceState | null): Gate<Place> => ({
    start: { block: null, blockLeft: 0, live: false, isolatingLeft: isolating.size, device },
    key: (place) => (place.device ? place.device.group.join() : ''),
    commits: (op) => tasks[op]!.starts === true || tasks[op]!.live === true,
    admits(place, op) {
      const task = tasks[op]!;
      if (place.block !== null && task.block !== place.block) return false;
      if (place.block === null && task.block !== undefined && !task.starts) return false;
      if (place.live && !towards.has(task.id)) return false;
      if (!place.device || !task.physical) return true;
      return isLegalNow(mechanism, place.device, withHost(mechanism, place.device, task.physical), rules);
    },
    after(place, op) {
      const task = tasks[op]!;
      const members = task.block === undefined ? 0 : sizes.get(task.block)!;
      const blockLeft = place.block === null ? members - 1 : place.blockLeft - 1;
      const isolatingLeft = place.isolatingLeft - (isolating.has(task.id) ? 1 : 0);
      return {
        block: blockLeft > 0 && task.block ? task.block : null,
        blockLeft: Math.max(0, blockLeft),
        live: anyLive && (place.live || task.live === true) && isolatingLeft > 0,
        isolatingLeft,
        device:
          place.device && task.physical
            ? applied(mechanism, place.device, withHost(mechanism, place.device, task.physical))
            : place.device,
      };
    },
  });
}
