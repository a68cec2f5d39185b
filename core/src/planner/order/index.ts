export {
  type Budget,
  costOf,
  CycleError,
  type Admission,
  type OrderOp,
  type OrderProblem,
  type OrderResult,
} from './order-problem.ts';
export { leastSeconds, NoOrderError, solveOrder } from './solve-order.ts';
export { countedBudget } from './counted.ts';
