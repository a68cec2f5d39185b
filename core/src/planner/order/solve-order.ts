import FlatQueue from 'flatqueue';
import { changesLeft, runBound } from './bound.ts';
import { networkOf } from './network.ts';
import { type Budget, costOf, type Admission, type OrderProblem, type OrderResult } from './order-problem.ts';

/** A point of the search: what is done, what is in hand, which face is up. `cost` counts setups only. */
interface Node<S> {
  readonly done: Uint32Array;
  readonly left: number;
  readonly tool: number;
  readonly face: number;
  readonly cost: number;
  readonly bound: number;
  readonly key: string;
  readonly admission: S;
  /** the operations done on the way here from `parent` */
  readonly steps: readonly number[];
  readonly parent: Node<S> | null;
}

const MOST_NODES = 700_000;
const BEAM_WIDTHS = [1, 12, 120];

const OPEN_GATE: Admission<null> = {
  isOpen: true,
  start: null,
  admits: () => true,
  after: () => null,
  commits: () => false,
};

/**
 * An order of least cost, and the proof of it: best-first search over closed sets of operations.
 *
 * An operation that needs neither another tool nor another face is done at once: moved to the front of any order it
 * costs nothing there, and where it stood the rest never gets dearer. So the search branches only on what to take up
 * next. The bound is `changesLeft`, for tools and faces; when the first node popped is complete, or no node can beat
 * the best order that greed and beams have found before, that order is proven.
 *
 * When the budget runs out the best order found is returned with the least bound still open.
 * @throws CycleError
 */
export function solveOrder<S = null>(problem: OrderProblem, budget: Budget, admission?: Admission<S>): OrderResult {
  const search = new Search<S>(problem, admission ?? (OPEN_GATE as unknown as Admission<S>));
  const until = budget.now() + budget.limitMs;
  const expired = () => budget.now() > until;
  const work = problem.ops.reduce((sum, op) => sum + op.seconds, 0);

  let best = search.greedy();
  const isBest = () => best !== null && best.cost <= search.root.bound + 1e-9;
  for (const width of BEAM_WIDTHS) {
    if (isBest() || (best && expired())) break;
    const found = search.beam(width, () => best !== null && expired());
    if (found && (!best || found.cost < best.cost)) best = foundBy(found, problem);
  }

  let bound = search.root.bound;
  if (!isBest() && !(best && expired())) {
    const outcome = search.bestFirst(best?.cost ?? Infinity, (open) => {
      bound = open;
      if (best) budget.onProgress?.({ seconds: work + best.cost, lowerBoundSeconds: work + open });
      return best !== null && expired();
    });
    if (outcome.found) best = foundBy(outcome.found, problem);
    bound = outcome.bound;
  }
  if (!best) throw new NoOrderError();
  const optimal = best.cost <= bound + 1e-9;
  const cost = costOf(problem, best.order);
  return { ...cost, lowerBoundSeconds: optimal ? cost.seconds : work + bound, optimal };
}

/** Seconds that no order of these operations beats, found without a search. @throws CycleError */
export function leastSeconds(problem: OrderProblem): number {
  const work = problem.ops.reduce((sum, op) => sum + op.seconds, 0);
  return work + new Search(problem, OPEN_GATE).root.bound;
}

/** An order with the cost of its setups. */
interface Found {
  readonly order: readonly string[];
  readonly cost: number;
}

function foundBy<S>(node: Node<S>, problem: OrderProblem): Found {
  return { order: orderOf(node, problem), cost: node.cost };
}

/** No order satisfies the admission; without one this can't happen. */
export class NoOrderError extends Error {
  constructor() {
    super('These operations have no order that the rules allow.');
    this.name = 'NoOrderError';
  }
}

class Search<S> {
  readonly #problem: OrderProblem;
  readonly #admission: Admission<S>;
  readonly #network;
  readonly #tools;
  readonly #faces;
  readonly root: Node<S>;

  constructor(problem: OrderProblem, admission: Admission<S>) {
    this.#problem = problem;
    this.#admission = admission;
    this.#network = networkOf(problem);
    const { size, words, tool, face, tools, faces, startTool, startFace } = this.#network;
    this.#tools = runBound(this.#network, tool, tools);
    this.#faces = runBound(this.#network, face, faces);
    this.root = this.#settled(new Uint32Array(words), size, startTool, startFace, 0, admission.start, [], null);
  }

  /** Takes what costs least now, again and again: a first order for problems of any size. Null where it gets stuck. */
  greedy(): Found | null {
    const { size, tool, face, next, startTool, startFace } = this.#network;
    const waiting = new Int32Array(size);
    next.forEach((followers) => followers.forEach((op) => waiting[op]!++));
    const ready = new Set([...waiting.keys()].filter((op) => waiting[op] === 0));
    const order: string[] = [];
    let [nowTool, nowFace, cost, admission] = [startTool, startFace, 0, this.#admission.start];
    const setup = (op: number) => this.#setupCost(op, nowTool, nowFace);
    while (ready.size > 0) {
      let chosen = -1;
      for (const op of ready) {
        if (!this.#admission.admits(admission, op)) continue;
        if (chosen < 0 || setup(op) < setup(chosen)) chosen = op;
        if (setup(chosen) === 0 && !this.#admission.commits(chosen)) break;
      }
      if (chosen < 0) return null;
      cost += setup(chosen);
      if (tool[chosen]! >= 0) nowTool = tool[chosen]!;
      if (face[chosen]! >= 0) nowFace = face[chosen]!;
      admission = this.#admission.after(admission, chosen);
      ready.delete(chosen);
      for (const each of next[chosen]!) if (--waiting[each]! === 0) ready.add(each);
      order.push(this.#problem.ops[chosen]!.id);
    }
    return { order, cost };
  }

  #setupCost(op: number, toolNow: number, faceNow: number): number {
    const [tool, face] = [this.#network.tool[op]!, this.#network.face[op]!];
    const change = tool >= 0 && tool !== toolNow ? this.#problem.toolChangeSeconds : 0;
    return change + (face >= 0 && face !== faceNow && faceNow >= 0 ? this.#problem.flipSeconds : 0);
  }

  /** Follows the `width` most promising nodes level by level; quick, and without proof. */
  beam(width: number, expired: () => boolean): Node<S> | null {
    let level = [this.root];
    while (level.length > 0) {
      const done = level.find((node) => node.left === 0);
      if (done) return done;
      const seen = new Map<string, Node<S>>();
      for (const node of level) {
        for (const next of this.#expand(node)) {
          if (expired()) return null;
          const known = seen.get(next.key);
          if (!known || next.cost < known.cost) seen.set(next.key, next);
        }
      }
      level = [...seen.values()].sort((a, b) => a.bound - b.bound || a.left - b.left).slice(0, width);
    }
    return null;
  }

  /** @param beaten the cost of the best order known; `found` is set only where it is beaten */
  bestFirst(beaten: number, expired: (bound: number) => boolean): { found: Node<S> | null; bound: number } {
    const queue = new FlatQueue<Node<S>>();
    const cheapest = new Map<string, number>([[this.root.key, 0]]);
    let found: Node<S> | null = null;
    let least = beaten;
    queue.push(this.root, priority(this.root));
    for (let popped = 1; queue.length > 0; popped++) {
      const node = queue.pop()!;
      if (node.bound >= least - 1e-9) return { found, bound: least };
      if (node.left === 0) return { found: node, bound: node.cost };
      const full = cheapest.size > MOST_NODES && least < Infinity;
      if (full || (popped % 16 === 0 && expired(node.bound))) return { found, bound: node.bound };
      if (cheapest.get(node.key)! < node.cost) continue;
      for (const next of this.#expand(node)) {
        if (next.bound >= least - 1e-9) continue;
        const known = cheapest.get(next.key);
        if (known !== undefined && known <= next.cost) continue;
        cheapest.set(next.key, next.cost);
        if (next.left === 0) [found, least] = [next, next.cost];
        else queue.push(next, priority(next));
      }
    }
    return { found, bound: least < Infinity ? least : this.root.bound };
  }

  /** One successor for each tool and face that could be taken up next, and for each operation that commits. */
  *#expand(node: Node<S>): Generator<Node<S>> {
    const { tool, face } = this.#network;
    const taken = new Set<number>();
    for (const op of this.#free(node.done, node.admission)) {
      const nextTool = tool[op]! < 0 ? node.tool : tool[op]!;
      const nextFace = face[op]! < 0 ? node.face : face[op]!;
      const pair = (nextTool + 1) * (this.#network.faces + 1) + nextFace + 1;
      const commits = this.#admission.commits(op);
      if (taken.has(pair) && !commits) continue;
      if (!commits) taken.add(pair);
      const cost = node.cost + this.#setupCost(op, node.tool, node.face);
      const done = withBit(node.done, op);
      const admission = this.#admission.after(node.admission, op);
      yield this.#settled(done, node.left - 1, nextTool, nextFace, cost, admission, [op], node);
    }
  }

  /** The node after everything has been done that costs no setup. */
  #settled(
    start: Uint32Array,
    startLeft: number,
    tool: number,
    face: number,
    cost: number,
    startGate: S,
    first: readonly number[],
    parent: Node<S> | null,
  ): Node<S> {
    const { tool: toolOf, face: faceOf } = this.#network;
    const done = start.slice();
    const steps = [...first];
    let left = startLeft;
    let admission = startGate;
    const pending = this.#ready(done);
    const free: number[] = [];
    for (let at = 0; at < pending.length; at++) {
      const op = pending[at]!;
      const needsSetup = (toolOf[op]! >= 0 && toolOf[op] !== tool) || (faceOf[op]! >= 0 && faceOf[op] !== face);
      if (needsSetup || this.#admission.commits(op) || !this.#admission.admits(admission, op)) {
        free.push(op);
        continue;
      }
      done[op >>> 5]! |= 1 << (op & 31);
      admission = this.#admission.after(admission, op);
      steps.push(op);
      left--;
      for (const each of this.#network.next[op]!) if (this.#isReady(done, each)) pending.push(each);
      // what the admission held back may be admitted now
      if (this.#admission.isOpen !== true) pending.push(...free.splice(0));
    }
    const toolChanges = changesLeft(this.#tools, free, tool);
    const faceRuns = changesLeft(this.#faces, free, face);
    const flips = face < 0 && faceRuns > 0 ? faceRuns - 1 : faceRuns;
    const bound = cost + toolChanges * this.#problem.toolChangeSeconds + flips * this.#problem.flipSeconds;
    const key = keyOf(done, tool, face) + (this.#admission.key?.(admission) ?? '');
    return { done, left, tool, face, cost, bound, key, admission, steps, parent };
  }

  /** Operations that are not done and whose predecessors are. */
  #ready(done: Uint32Array): number[] {
    const found: number[] = [];
    for (let op = 0; op < this.#network.size; op++) {
      if (!(done[op >>> 5]! & (1 << (op & 31))) && this.#isReady(done, op)) found.push(op);
    }
    return found;
  }

  #isReady(done: Uint32Array, op: number): boolean {
    const { words, before } = this.#network;
    for (let word = 0, at = op * words; word < words; word++, at++) {
      if (before[at]! & ~done[word]!) return false;
    }
    return true;
  }

  #free(done: Uint32Array, admission: S): number[] {
    return this.#ready(done).filter((op) => this.#admission.admits(admission, op));
  }
}

/** Least bound first; among equals the node that has come furthest. */
function priority<S>(node: Node<S>): number {
  return node.bound + node.left * 1e-7;
}

function withBit(done: Uint32Array, op: number): Uint32Array {
  const next = done.slice();
  next[op >>> 5]! |= 1 << (op & 31);
  return next;
}

function keyOf(done: Uint32Array, tool: number, face: number): string {
  let key = String.fromCharCode(tool + 1, face + 1);
  for (const word of done) key += String.fromCharCode(word & 0xffff, word >>> 16);
  return key;
}

function orderOf<S>(node: Node<S>, problem: OrderProblem): string[] {
  const order: string[] = [];
  for (let at: Node<S> | null = node; at; at = at.parent) {
    for (let step = at.steps.length - 1; step >= 0; step--) order.push(problem.ops[at.steps[step]!]!.id);
  }
  return order.reverse();
}
