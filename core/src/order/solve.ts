import FlatQueue from 'flatqueue';
import { changesLeft, runBound } from './bound.ts';
import { networkOf } from './network.ts';
import { type Budget, costOf, type Gate, type OrderProblem, type OrderResult } from './problem.ts';

/** A point of the search: what is done, what is in hand, which face is up. `cost` counts setups only. */
interface Node<S> {
  readonly done: Uint32Array;
  readonly left: number;
  readonly tool: number;
  readonly face: number;
  readonly cost: number;
  readonly bound: number;
  readonly key: string;
  readonly gate: S;
  /** the operations done on the way here from `parent` */
  readonly steps: readonly number[];
  readonly parent: Node<S> | null;
}

const MOST_NODES = 700_000;
const BEAM_WIDTHS = [1, 12, 120];

const OPEN_GATE: Gate<null> = { start: null, admits: () => true, after: () => null, commits: () => false };

/**
 * An order of least cost, and the proof of it: best-first search over closed sets of operations.
 *
 * An operation that needs neither another tool nor another face is done at once: moved to the front of any order it
 * costs nothing there, and where it stood the rest never gets dearer. So the search branches only on what to take up
 * next. The bound is `changesLeft`, for tools and faces; when the first node popped is complete, or no node can beat
 * the best order found by the beams before it, that order is proven.
 *
 * When the budget runs out the best order found is returned with the least bound still open.
 * @throws CycleError
 */
export function solveOrder<S = null>(problem: OrderProblem, budget: Budget, gate?: Gate<S>): OrderResult {
  const search = new Search<S>(problem, gate ?? (OPEN_GATE as unknown as Gate<S>));
  const until = budget.now() + budget.limitMs;
  const work = problem.ops.reduce((sum, op) => sum + op.seconds, 0);

  let best: Node<S> | null = null;
  for (const width of BEAM_WIDTHS) {
    const found = search.beam(width, () => best !== null && budget.now() > until);
    if (found && (!best || found.cost < best.cost)) best = found;
    if ((best && best.cost <= search.root.bound + 1e-9) || budget.now() > until) break;
  }

  let bound = search.root.bound;
  if (!best || best.cost > bound + 1e-9) {
    const outcome = search.bestFirst(best, (bound_) => {
      bound = bound_;
      if (best) budget.onProgress?.({ seconds: work + best.cost, lowerBoundSeconds: work + bound });
      return budget.now() > until;
    });
    best = outcome.best;
    bound = outcome.bound;
  }
  if (!best) throw new NoOrderError();
  const optimal = best.cost <= bound + 1e-9;
  const cost = costOf(problem, orderOf(best, problem));
  return { ...cost, lowerBoundSeconds: optimal ? cost.seconds : work + bound, optimal };
}

/** No order satisfies the gate; without one this can't happen. */
export class NoOrderError extends Error {
  constructor() {
    super('These operations have no order that the rules allow.');
    this.name = 'NoOrderError';
  }
}

class Search<S> {
  readonly #problem: OrderProblem;
  readonly #gate: Gate<S>;
  readonly #network;
  readonly #tools;
  readonly #faces;
  readonly root: Node<S>;

  constructor(problem: OrderProblem, gate: Gate<S>) {
    this.#problem = problem;
    this.#gate = gate;
    this.#network = networkOf(problem);
    const { size, words, tool, face, tools, faces, startTool, startFace } = this.#network;
    this.#tools = runBound(this.#network, tool, tools);
    this.#faces = runBound(this.#network, face, faces);
    this.root = this.#settled(new Uint32Array(words), size, startTool, startFace, 0, gate.start, [], null);
  }

  /** Follows the `width` most promising nodes level by level; quick, and without proof. */
  beam(width: number, expired: () => boolean): Node<S> | null {
    let level = [this.root];
    while (level.length > 0) {
      const done = level.find((node) => node.left === 0);
      if (done) return done;
      if (expired()) return null;
      const seen = new Map<string, Node<S>>();
      for (const node of level) {
        for (const next of this.#expand(node)) {
          const known = seen.get(next.key);
          if (!known || next.cost < known.cost) seen.set(next.key, next);
        }
      }
      level = [...seen.values()].sort((a, b) => a.bound - b.bound || a.left - b.left).slice(0, width);
    }
    return null;
  }

  bestFirst(found: Node<S> | null, expired: (bound: number) => boolean): { best: Node<S> | null; bound: number } {
    const queue = new FlatQueue<Node<S>>();
    const cheapest = new Map<string, number>([[this.root.key, 0]]);
    let best = found;
    queue.push(this.root, priority(this.root));
    for (let popped = 1; queue.length > 0; popped++) {
      const node = queue.pop()!;
      if (best && node.bound >= best.cost - 1e-9) return { best, bound: best.cost };
      if (node.left === 0) return { best: node, bound: node.cost };
      const stop = cheapest.size > MOST_NODES || (popped % 64 === 0 && expired(node.bound));
      if (stop && best) return { best, bound: node.bound };
      if (cheapest.get(node.key)! < node.cost) continue;
      for (const next of this.#expand(node)) {
        if (best && next.bound >= best.cost - 1e-9) continue;
        const known = cheapest.get(next.key);
        if (known !== undefined && known <= next.cost) continue;
        cheapest.set(next.key, next.cost);
        if (next.left === 0) best = next;
        else queue.push(next, priority(next));
      }
    }
    return { best, bound: best ? best.cost : this.root.bound };
  }

  /** One successor for each tool and face that could be taken up next, and for each operation that commits. */
  #expand(node: Node<S>): Node<S>[] {
    const { tool, face } = this.#network;
    const found: Node<S>[] = [];
    const taken = new Set<number>();
    for (const op of this.#free(node.done, node.gate)) {
      const nextTool = tool[op]! < 0 ? node.tool : tool[op]!;
      const nextFace = face[op]! < 0 ? node.face : face[op]!;
      const pair = (nextTool + 1) * (this.#network.faces + 1) + nextFace + 1;
      const commits = this.#gate.commits(op);
      if (taken.has(pair) && !commits) continue;
      if (!commits) taken.add(pair);
      const cost =
        node.cost +
        (nextTool === node.tool ? 0 : this.#problem.toolChangeSeconds) +
        (nextFace === node.face || node.face < 0 ? 0 : this.#problem.flipSeconds);
      const done = withBit(node.done, op);
      const gate = this.#gate.after(node.gate, op);
      found.push(this.#settled(done, node.left - 1, nextTool, nextFace, cost, gate, [op], node));
    }
    return found;
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
    let gate = startGate;
    let free: number[] = [];
    for (let again = true; again;) {
      again = false;
      free = this.#ready(done);
      for (const op of free) {
        const needsSetup = (toolOf[op]! >= 0 && toolOf[op] !== tool) || (faceOf[op]! >= 0 && faceOf[op] !== face);
        if (needsSetup || this.#gate.commits(op) || !this.#gate.admits(gate, op)) continue;
        done[op >>> 5]! |= 1 << (op & 31);
        gate = this.#gate.after(gate, op);
        steps.push(op);
        left--;
        again = true;
      }
    }
    const toolChanges = changesLeft(this.#tools, free, tool);
    const faceRuns = changesLeft(this.#faces, free, face);
    const flips = face < 0 && faceRuns > 0 ? faceRuns - 1 : faceRuns;
    const bound = cost + toolChanges * this.#problem.toolChangeSeconds + flips * this.#problem.flipSeconds;
    const key = keyOf(done, tool, face) + (this.#gate.key?.(gate) ?? '');
    return { done, left, tool, face, cost, bound, key, gate, steps, parent };
  }

  /** Operations that are not done and whose predecessors are. */
  #ready(done: Uint32Array): number[] {
    const { size, words, before } = this.#network;
    const found: number[] = [];
    for (let op = 0; op < size; op++) {
      if (done[op >>> 5]! & (1 << (op & 31))) continue;
      let free = true;
      for (let word = 0, at = op * words; word < words && free; word++, at++) {
        free = (before[at]! & ~done[word]!) === 0;
      }
      if (free) found.push(op);
    }
    return found;
  }

  #free(done: Uint32Array, gate: S): number[] {
    return this.#ready(done).filter((op) => this.#gate.admits(gate, op));
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
