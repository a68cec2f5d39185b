import type { Budget } from './order-problem.ts';

/**
 * A budget counted in steps of the search and not in time: the same problem is answered the same, on a slow machine and
 * on a fast one, in a window that was opened before and in one that is opened now.
 */
export function countedBudget(steps: number): Budget {
  let taken = 0;
  return { now: () => taken++, limitMs: steps };
}
