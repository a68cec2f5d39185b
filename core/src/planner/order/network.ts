import { Refusal, wrong } from '../../model/refusal/index.ts';
import { CycleError, type OrderProblem } from './order-problem.ts';

/**
 * An order problem by number. What precedes an operation is a row of bits, so that one look tells whether it is free.
 */
export interface Network {
  readonly size: number;
  readonly words: number;
  /** `words` 32-bit words per operation: the operations that come before it */
  readonly before: Uint32Array;
  readonly next: readonly (readonly number[])[];
  /** −1: by hand, or any face */
  readonly tool: Int16Array;
  readonly face: Int16Array;
  readonly tools: number;
  readonly faces: number;
  readonly startTool: number;
  readonly startFace: number;
  /** every operation after all that precede it */
  readonly sorted: readonly number[];
}

/** @throws CycleError where operations wait for each other; Refusal where `after` names no operation. */
export function networkOf(problem: OrderProblem): Network {
  const { ops, start } = problem;
  const number = new Map(ops.map((op, index) => [op.id, index]));
  const size = ops.length;
  const words = Math.max(1, Math.ceil(size / 32));
  const before = new Uint32Array(size * words);
  const next: number[][] = ops.map(() => []);
  const waiting = new Int32Array(size);
  ops.forEach((op, index) => {
    for (const id of new Set(op.after)) {
      const earlier = number.get(id);
      if (earlier === undefined)
        throw new Refusal(wrong('ops', `"${op.id}" comes after "${id}", which is no operation here.`));
      before[index * words + (earlier >>> 5)]! |= 1 << (earlier & 31);
      next[earlier]!.push(index);
      waiting[index]!++;
    }
  });
  const sorted = ops.flatMap((_, index) => (waiting[index] === 0 ? [index] : []));
  for (const at of sorted) for (const each of next[at]!) if (--waiting[each]! === 0) sorted.push(each);
  if (sorted.length < size) throw new CycleError(shortestCycle(problem, next, waiting));

  const tools = numbered(
    ops.map((op) => op.tool),
    start.tool,
  );
  const faces = numbered(
    ops.map((op) => op.face),
    start.face,
  );
  return {
    size,
    words,
    before,
    next,
    tool: Int16Array.from(ops, (op) => tools.get(op.tool) ?? -1),
    face: Int16Array.from(ops, (op) => faces.get(op.face) ?? -1),
    tools: tools.size,
    faces: faces.size,
    startTool: tools.get(start.tool) ?? -1,
    startFace: faces.get(start.face) ?? -1,
    sorted,
  };
}

function numbered(names: readonly (string | null)[], first: string | null): Map<string | null, number> {
  const all = new Set([first, ...names].filter((each) => each !== null));
  return new Map([...all].map((each, index) => [each, index]));
}

function shortestCycle(problem: OrderProblem, next: readonly number[][], waiting: Int32Array): string[] {
  let best: number[] = [];
  const left = [...waiting.keys()].filter((index) => waiting[index]! > 0);
  for (const start of left.slice(0, 200)) {
    const from = new Map<number, number>();
    const queue = [start];
    search: for (const at of queue) {
      for (const each of next[at]!) {
        if (each === start) {
          const ring = [at];
          while (ring[0] !== start) ring.unshift(from.get(ring[0]!)!);
          if (best.length === 0 || ring.length < best.length) best = ring;
          break search;
        }
        if (waiting[each]! > 0 && !from.has(each)) {
          from.set(each, at);
          queue.push(each);
        }
      }
    }
  }
  return best.map((index) => problem.ops[index]!.id);
}
