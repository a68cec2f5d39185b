export { setUpBefore } from './costs.ts';
export { type Plan, planRepair, type PlanRequest } from './plan.ts';
export { type OwnTime, timesSchema } from './times.ts';
export { compareOp, takeUpOp } from './comparisons.ts';
export { inspectOp } from './inspections.ts';
export type { DoneOp } from './present.ts';
export { type Consumable, consumablesOf, type ScrewLine } from './plan-supplies.ts';
