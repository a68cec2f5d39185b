export type { Op, Stage } from './op.ts';
export { physicalOp, procedureOp } from './op.ts';
export {
  downOf,
  GLASS_FILM_OFF,
  type OpId,
  opId,
  physicalId,
  type ProcedureName,
  TEST_AFTER,
  TEST_BEFORE,
  thingOf,
} from './op-id.ts';
export { after, afterBy, type Draft, physicalDraft } from './draft.ts';
export { type HeatBlock, heatBlocks, solventLast, withBlocks, withVents } from './softening.ts';
export { isSoftened, TIMES, length_mm, renewalFor, secondsToLay, secondsToScrape, usualSeconds } from './estimates.ts';
export { withoutIdleCounts } from './counts.ts';
export { withProving } from './proving.ts';
export { showable } from './showable.ts';
export { testedFunctions, testSeconds, triedAtTheEnd } from './touched.ts';
export { withBonds } from './bonds.ts';
export { type LastDisplay, withoutRings, withRebuildRules } from './ruled.ts';
export { type WayUp, wayUp } from './way-up.ts';
export { directOnly, type Task, withAllPredecessors, withRules } from './task.ts';
export { rebuildDrafts } from './rebuild-drafts.ts';
export { type WayBack, wayBack } from './way-back.ts';
export { placesOnMat, stripDrafts, workDrafts } from './strip.ts';
export { withTransplant, packsOf } from './transplant.ts';
export { mainBoard } from './set-up.ts';
export { cutPace } from './pace.ts';
