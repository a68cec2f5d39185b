export { asClosed, asItIs, mechanismAsItIs, targetsAsItIs } from './as-it-is.ts';
export { type LyingBond, asItLies } from './as-it-lies.ts';
export { airingLeft_s, benchUses, allUses, dropCount, knownBench, useAt } from './bench-use.ts';
export { type Curing, curing, mayGoFrom } from './curing.ts';
export { cutShort, shortWords } from './cut-short.ts';
export { type Suspect, closesOverFault, failedTests, suspectsOf } from './failed-test.ts';
export type { ExtraPart } from './deviations.ts';
export { folding, grown, withKey } from './grown.ts';
export { type HandOverPoint, handOverPoints, notHandedOver } from './handing-over.ts';
export { hasCellNear, isCellBehind, pastTheCell } from './heat-on-cell.ts';
export { saidOfWater } from './opened-seals.ts';
export { type Heating, type Opening, type Warmed, type Zone, dropsOf, lastWarmed, pastOf } from './opening-state.ts';
export { partsNewIn } from './parts-new-in.ts';
export { type PutOn, isTaped, putOn } from './put-on.ts';
export { asItCame, isMet, newlyReached, targetsLeft } from './reached.ts';
export { closingNow, renewalNow } from './renewal-now.ts';
export {
  type Correction,
  type JobState,
  type Outcome,
  type Peak,
  type Stop,
  type Trouble,
  newJob,
} from './job-state.ts';
export {
  type BenchUse,
  IDLE,
  ONLY_BENCH,
  type Surroundings,
  UNKNOWN,
  notAtThatTime,
  tooFarAhead,
} from './surroundings.ts';
export { isWarmedThrough, zoneToWarm, zonesOf } from './zones.ts';
