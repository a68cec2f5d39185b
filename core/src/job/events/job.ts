import type { Policy } from '../../model/policy/index.ts';
import type { Target } from '../../planner/search/index.ts';
import type { Limits } from '../../model/limits/index.ts';

/** A repair job as it was taken in. What became of it is told by its events. */
export interface Job {
  readonly id: string;
  readonly map: string;
  readonly revision: number;
  readonly targets: readonly Target[];
  readonly policy: Partial<Policy>;
  readonly title: string;
  readonly owner?: string;
  readonly serial?: string;
  readonly colour?: string;
  /** who took it in; left out in jobs from before that was asked */
  readonly by?: string;
  /** the workshop's limits when it was taken in; the defaults where it has none */
  readonly limits?: Limits;
  /** ISO 8601 */
  readonly createdAt: string;
}
