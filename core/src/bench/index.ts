export {
  type BenchEvent,
  type DoneStep,
  EVENT_DATA,
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
export type {
  Correction,
  DamageMark,
  Decision,
  JobPhoto,
  JobState,
  Outcome,
  TestResult,
  Timer,
  Trouble,
  Wet,
} from './state.ts';
export { newJob, type Stop } from './state.ts';
export { zonesOf, zoneToWarm } from './zones.ts';
export { dropsOf, type Heating, lastWarmed, type Opening, pastOf, type Warmed, type Zone } from './opening-state.ts';
export type { Placeholder } from './opening-events.ts';
export { isPrepared, targetsForNow } from './gate.ts';
export { TRANSPLANT_CHECKS, TRANSPLANT_GATE } from './intake.ts';
export { type Damage, DAMAGES } from './intake-events.ts';
export { foldJob, foldOn, undoneBy, withEvent } from './fold.ts';
export { lastToUndo, undoProblem } from './undoable.ts';
export { airingLeft_s, benchUses, dropCount, together } from './bench-use.ts';
export { leftOpen, type LeftOpen } from './left-open.ts';
export { type BenchUse, IDLE, ONLY_BENCH, type Surroundings, tooFarAhead, UNKNOWN } from './surroundings.ts';
export { behindEdge } from './stops.ts';
export { refusal } from './steps.ts';
export { softensAt } from './trouble.ts';
export { targetsLeft } from './reached.ts';
export { type Ahead, doneStep, planAhead } from './ahead.ts';
export { aheadOf, benchBudget, followed, type PlansMade } from './follow.ts';
