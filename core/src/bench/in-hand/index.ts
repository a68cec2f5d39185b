export type { FailedTest, SuspectCost } from './failed.ts';
export { failedTogether, type SharedSuspect } from './failed-together.ts';
export { type HeldBack, heldBack, type Holding } from './before-you-pull.ts';
export { lyingParts, type LyingPart } from './lying-parts.ts';
export { leaving, type Leaving, type TurnsBad } from './leaving.ts';
export { bondToClose, type ClosingChoice, closingChoices } from './closings.ts';
export { type Ahead, planAhead } from './ahead.ts';
export { doneStep } from './done-step.ts';
export { aheadOf, benchBudget, followed, type PlansMade } from './follow.ts';
export { bondInHand, bondWork, type BondWork, warmPlace, zoneInHand } from './bond-in-hand.ts';
export {
  afterwards,
  alarmOf,
  type BondBasis,
  bondBasis,
  coolingBond,
  deviceAfterwards,
  elapsed_s,
  heatingBond,
  ifOffNow,
  isSoft,
  LIMIT_NEAR_S,
  type WarmBond,
  whileOn,
  type Yields,
  yieldsOf,
} from './warm-bond.ts';
export { type EdgeInHand, edgeInHand } from './edge-in-hand.ts';
export { sourceFor, type SourceVerdict, verdictOn } from './source-for.ts';
export { nextWarming } from './to-warm.ts';
export { clicks, isHeldByFault, nextPress, nextScrew, lookAnswer, withNewScrews } from './next-press.ts';
export type { AtHand, Does, NextPress } from './one-press.ts';
export { edgeCut } from './press-on-bond.ts';
export { cutForeseen, cutInHand } from './cut-in-hand.ts';
export type { Said } from './said.ts';
export { noPlaceFor, type PieceAt, sideBySide, type SideBySide } from './side-by-side.ts';
export { nextUntested, restWorks, testAnswer, testStage } from './testing.ts';
export { leadOf, together } from './together.ts';
export { doneUntil, opFor } from './until.ts';
export { justClosed } from './just-closed.ts';
export { isAiring, isWatched, waitLeft_s } from './waits.ts';
