export { type CutEdge, type CutPlan, planCut } from './plan.ts';
export { type CutRequest, cutRequest } from './request.ts';
export { type BondCut, cutOfBond, warmedAs } from './of-bond.ts';
export { type PickCard, pickCard } from './pick-card.ts';
export { warmingsOf } from './warmings.ts';
export { type Lie, lieOf } from './inward.ts';
