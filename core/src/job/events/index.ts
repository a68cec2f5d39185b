export { CLOSING_EVENTS, type ClosingEventData, MOST_CHOSEN } from './closing-events.ts';
export type { EventRow } from './event-row.ts';
export {
  type BenchEvent,
  type DecisionAbout,
  type DoneStep,
  EVENTS,
  EVENT_DATA,
  type EventData,
  type EventType,
  STOP_REASONS,
  type StopReason,
  TROUBLE_KINDS,
  type TroubleKind,
  eventEnvelope,
  rowOf,
} from './events.ts';
export { type BondClosing, CLOSINGS, DEVIATION_EVENTS, type DeviationEventData } from './deviation-events.ts';
export { DAMAGES, type Damage, INTAKE_EVENTS, type IntakeEventData } from './intake-events.ts';
export type { Job } from './job.ts';
export { AHEAD_ms, countsFrom, lateBy_s, toldBy } from './moments.ts';
export { OPENING_EVENTS, type OpeningEventData, type Placeholder } from './opening-events.ts';
export { PART_EVENTS, type PartEventData } from './part-events.ts';
export { doneSchema, targetSchema } from './request-schema.ts';
export { type PickedUp, SCREW_EVENTS, type ScrewEventData } from './screw-events.ts';
export { TEARDOWN_EVENTS } from './teardown-events.ts';
export { lastToUndo, undoProblem } from './undoable.ts';
