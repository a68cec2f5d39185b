export { type Ahead, doneStep, planAhead } from './ahead.ts';
export { aheadOf, benchBudget, followed, type PlansMade } from './follow.ts';
