import type { Policy, Target } from '../plan/index.ts';

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
  /** ISO 8601 */
  readonly createdAt: string;
}
