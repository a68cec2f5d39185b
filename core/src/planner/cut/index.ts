export { type CutEdge, type CutPlan, planCut } from './cut-plan.ts';
export { type CutRequest, cutRequest } from './cut-request.ts';
export { type BondCut, cutOfBond, warmedAs } from './cut-of-bond.ts';
export { type PickCard, pickCard } from './pick-card.ts';
export { warmingsOf } from './warmings.ts';
export { type Lie, lieOf } from './inward.ts';
