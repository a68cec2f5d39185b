export {
  type BenchEvent,
  type DoneStep,
  EVENT_DATA,
  type EventData,
  type EventType,
  eventEnvelope,
  TROUBLE_KINDS,
  type TroubleKind,
} from './events.ts';
export { doneSchema, policySchema, targetSchema } from './request-schema.ts';
export type { Job } from './job.ts';
export type { Correction, JobState, Outcome, TestResult, Timer, Trouble } from './state.ts';
export { newJob } from './state.ts';
export { foldJob, isUndoable, refusal, withEvent } from './fold.ts';
export { targetsLeft } from './reached.ts';
export { type Ahead, doneStep, planAhead } from './ahead.ts';
