export { type Op, after, type Draft, physicalDraft } from './op.ts';
export { TIMES, length_mm, renewalFor } from './estimates.ts';
export { testedFunctions, testSeconds, withProving } from './proving.ts';
export { directOnly, type Task, withAllPredecessors } from './task.ts';
export { rebuildDrafts, wayBack } from './rebuild.ts';
export { placesOnMat, stripDrafts, workDrafts } from './strip.ts';
export { withTransplant, packsOf } from './transplant.ts';
