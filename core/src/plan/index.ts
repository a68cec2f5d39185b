export { type Plan, planRepair, type PlanRequest } from './plan.ts';
export type { DoneOp } from './present.ts';
export { type Consumable, consumablesOf, type ScrewLine } from './supplies.ts';
