import type { Kit } from '../../after/kit/index.ts';
import type { Ahead } from '../../bench/in-hand/index.ts';
import type { JobState } from '../../job/state/index.ts';
import type { CalendarDate } from '../../model/calendar/index.ts';
import type { Mechanism } from '../../planner/holds/index.ts';

/** A repair that is being prepared, as it is known at one moment. */
export interface Preparing {
  readonly mechanism: Mechanism;
  readonly state: JobState;
  readonly ahead: Ahead;
  /** what the plan needs against what the workshop has; null while nobody knows */
  readonly kit: Kit | null;
  /** the days on which a part may go back, and today; null while nobody knows */
  readonly desk: { readonly today: CalendarDate; readonly window_days: number } | null;
  /** where parts came from the last time; empty where none ever came */
  readonly usualSource: string;
  readonly draft: Draft;
  /** milliseconds */
  readonly now: number;
}

/** What was said on the page and is recorded with the bench. */
export interface Draft {
  /** things of the bench that are so */
  readonly done: ReadonlySet<string>;
  /** what is gone on without, and why */
  readonly without: ReadonlyMap<string, string>;
  /** new parts that are not here yet */
  readonly passed: ReadonlySet<string>;
}

export const NO_DRAFT: Draft = { done: new Set(), without: new Map(), passed: new Set() };
