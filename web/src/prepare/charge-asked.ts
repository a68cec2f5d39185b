import type { Ahead } from '@nibrel/core/bench/in-hand';
import { isDrying } from '@nibrel/core/job/rules';
import { type JobState } from '@nibrel/core/job/state';

/** What has to become of the charge first. Nobody waits for a wet device to run down: there it is decided. */
export function chargeAsked({ ops, charge }: Ahead, state: JobState): Ahead['charge'] {
  const isPlanned = ops.some(({ name }) => name === 'run-down' || name === 'charge-up');
  return isPlanned || isDrying(state) ? charge : null;
}
