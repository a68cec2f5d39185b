import type { DeviceMap } from '../../model/device-map/index.ts';
import type { BenchEvent, DoneStep } from '../../job/events/index.ts';
import { guessOf, STARTS } from './samples.ts';

/** What waits or is tried has no usual time: it counts as much as one hand movement (guess). */
const HAND_S = 5;

/**
 * How long the steps of each press took, in seconds, from the press before to its own: by the id of its event, in the order
 * of its steps. What one press joins is shared out by what each is thought to take. None where nobody knows when hands
 * began on it.
 * @param events all of a job
 */
export function timesTaken(map: DeviceMap, events: readonly BenchEvent[]): ReadonlyMap<string, readonly number[]> {
  const taken = new Map<string, readonly number[]>();
  const joints = new Map(map.joints.map((each) => [each.id, each]));
  const usual = (step: DoneStep) => guessOf(step, joints.get(step.joint ?? '')) ?? HAND_S;
  let start: number | null = null;
  for (const event of events) {
    const at = Date.parse(event.at);
    if (event.type === 'did' && start !== null && at >= start) {
      const shares = event.data.steps.map(usual);
      const all = shares.reduce((sum, each) => sum + each, 0);
      taken.set(
        event.id,
        shares.map((each) => ((at - start!) / 1000) * (each / all)),
      );
    }
    start = STARTS.has(event.type) ? at : null;
  }
  return taken;
}
