import type { Ahead, AtHand } from '../../bench/in-hand/index.ts';
import type { WhereToTry } from '../../bench/trying/index.ts';
import type { TemperatureUnit } from '../../model/units/index.ts';
import type { Mechanism } from '../../planner/holds/index.ts';
import type { JobState } from '../../job/state/index.ts';

/** A repair at the bench, as it is known at one moment. */
export interface BenchNow {
  readonly mechanism: Mechanism;
  readonly state: JobState;
  /** null while it is being planned */
  readonly ahead: Ahead | null;
  /** milliseconds */
  readonly now: number;
  readonly atHand: AtHand;
  /** where a trial pays; null while nobody knows */
  readonly where: WhereToTry | null;
  /** what the bench reads temperatures in */
  readonly unit: TemperatureUnit;
}
