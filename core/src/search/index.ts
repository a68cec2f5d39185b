export { checkTargets, inWords, PlanError, type Target } from './target.ts';
export { isReached, goalOf } from './goal.ts';
export { type Goal, leastSets } from './least-set.ts';
export { movesOf, moveWork, type Move } from './moves.ts';
export { needsFor } from './need.ts';
export { opKey } from './op-key.ts';
export { isComplete, precedenceOf, type Precedence } from './precedence.ts';
export { ownRemoval, schoolFor, rebuildWaits, lyingBeneath } from './school.ts';
export { hasOp, noWork, type WorkSet, opsOf, withOps } from './work-set.ts';
