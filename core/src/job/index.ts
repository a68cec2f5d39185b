export {
  type BenchEvent,
  type DoneStep,
  EVENT_DATA,
  EVENTS,
  rowOf,
  type EventData,
  type DecisionAbout,
  type EventType,
  eventEnvelope,
  STOP_REASONS,
  type StopReason,
  TROUBLE_KINDS,
  type TroubleKind,
} from './events.ts';
export { doneSchema, targetSchema } from './request-schema.ts';
export type { Job } from './job.ts';
export { type JobState, newJob, type Peak, type Stop } from './state.ts';
export { zoneToWarm } from './zones.ts';
export { dropsOf, type Heating, lastWarmed, pastOf, type Warmed, type Zone } from './opening-state.ts';
export { heldParts } from './desk.ts';
export { isPrepared, targetsForNow, isDrying } from './gate.ts';
export { cellForALead } from './iron-at-cell.ts';
export { tooWarmForAlcohol } from './heat-rules.ts';
export { asItLies, type LyingBond } from './as-it-lies.ts';
export { hasCellNear, isCellBehind } from './heat-on-cell.ts';
export { isChargeSettled, runDownFor } from './charge-rule.ts';
export { countsFrom, lateBy_s } from './moments.ts';
export type { Objection } from './judge.ts';
export { type EventRow } from './event-row.ts';
export { TRANSPLANT_CHECKS, TRANSPLANT_GATE } from './intake.ts';
export { type Damage, DAMAGES } from './intake-events.ts';
export { closingNow, renewalNow } from './renewal-now.ts';
export { cutShort, shortWords } from './cut-short.ts';
export { type Curing, curing, mayGoFrom } from './curing.ts';
export { saidOfWater } from './opened-seals.ts';
export { handOverPoints, type HandOverPoint } from './handing-over.ts';
export { MOST_CHOSEN } from './closing-events.ts';
export { foldJob, foldOn, withEvent } from './fold.ts';
export { lastToUndo, undoProblem } from './undoable.ts';
export { airingLeft_s, benchUses, together } from './bench-use.ts';
export { asClosed, asFound, mechanismFound, targetsFound } from './as-found.ts';
export { extraOff, notThere } from './found.ts';
export type { ExtraPart } from './found-state.ts';
export { type WrongScrew, wrongScrews } from './screw-account.ts';
export type { PickedUp } from './screw-events.ts';
export { type BondClosing, CLOSINGS } from './found-events.ts';
export { failedTests, type Suspect, suspectsOf } from './failed-test.ts';
export { isTaped, type PutOn, putOn } from './put-on.ts';
export { isMet } from './reached.ts';
export { partsNewIn } from './parts-new-in.ts';
export { leftOpen, type LeftOpen } from './left-open.ts';
export { type BenchUse, IDLE, ONLY_BENCH, type Surroundings, tooFarAhead, UNKNOWN } from './surroundings.ts';
export { behindEdge } from './stops.ts';
export { refusal } from './steps.ts';
export { softensAt } from './trouble.ts';
