import { Refusal, wrong } from '../../model/refusal/index.ts';

/** One operation to be ordered. A null tool is *by hand* and keeps the tool in hand; a null face keeps the face up. */
export interface OrderOp {
  readonly id: string;
  readonly seconds: number;
  readonly tool: string | null;
  readonly face: string | null;
  readonly after: readonly string[];
}

export interface OrderProblem {
  readonly ops: readonly OrderOp[];
  readonly start: { readonly tool: string | null; readonly face: string | null };
  readonly toolChangeSeconds: number;
  readonly flipSeconds: number;
}

export interface OrderResult {
  readonly order: readonly string[];
  /** operations, tool changes and flips together */
  readonly seconds: number;
  readonly setupSeconds: number;
  readonly toolChanges: number;
  readonly flips: number;
  readonly lowerBoundSeconds: number;
  /** true only where it is proven */
  readonly optimal: boolean;
}

/** How long a search may take. The core has no clock of its own: `now` is handed in, in milliseconds. */
export interface Budget {
  readonly now: () => number;
  readonly limitMs: number;
  readonly onProgress?: (progress: { seconds: number; lowerBoundSeconds: number }) => void;
}

/** The ids of a ring among the operations, each after the one before it; thrown by `solveOrder`. */
export class CycleError extends Refusal {
  readonly cycle: readonly string[];
  constructor(cycle: readonly string[]) {
    super(
      wrong(
        'ops',
        `These operations wait for each other: ${[...cycle, cycle[0]].join(' before ')}.`,
        'Take one of these waits out.',
      ),
    );
    this.name = 'CycleError';
    this.cycle = cycle;
  }
}

/**
 * Constraints that depend on what has been done and can't be said by `after` alone. `commits` are operations that
 * start something which must then be finished, and so are never done early for free.
 */
export interface Admission<S> {
  readonly start: S;
  /** true where it admits everything */
  readonly isOpen?: boolean;
  admits(state: S, op: number): boolean;
  after(state: S, op: number): S;
  commits(op: number): boolean;
  /** what of the state is not told by the set of operations done; left out where that set tells all */
  key?(state: S): string;
}

/** Cost of one given order under the rules of the contract. */
export function costOf(
  problem: OrderProblem,
  order: readonly string[],
): Omit<OrderResult, 'lowerBoundSeconds' | 'optimal'> {
  const byId = new Map(problem.ops.map((op) => [op.id, op]));
  let { tool, face } = problem.start;
  let toolChanges = 0;
  let flips = 0;
  let work = 0;
  for (const id of order) {
    const op = byId.get(id)!;
    work += op.seconds;
    if (op.tool !== null && op.tool !== tool) {
      toolChanges++;
      tool = op.tool;
    }
    if (op.face !== null && op.face !== face) {
      if (face !== null) flips++;
      face = op.face;
    }
  }
  const setupSeconds = toolChanges * problem.toolChangeSeconds + flips * problem.flipSeconds;
  return { order, seconds: work + setupSeconds, setupSeconds, toolChanges, flips };
}
