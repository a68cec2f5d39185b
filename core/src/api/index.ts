export type { Appended, LeadsNow, MapLine, RejectedEvent } from './answers.ts';
export type { JobLine, JobSummary, NextInJob, StoppedBefore } from './job-answers.ts';
export type { PartLine, Person, ShopNow } from './shop-answers.ts';
export { problemAnswer, storedEvent } from './answers.ts';
export {
  DEFAULT_MS,
  type DoneRequest,
  type JobsQuery,
  LEAST_SECRET,
  MOST_EVENTS,
  MOST_MS,
  type MatQuery,
  type MeterQuery,
  type NewJob,
  type OrderRequest,
  type PlanBody,
  type PossibleBody,
} from './requests.ts';
export { type Route, type RouteName, type Routes, ROUTES } from './routes.ts';
export { NAMED } from './shape.ts';
