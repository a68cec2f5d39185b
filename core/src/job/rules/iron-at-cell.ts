import { cellSolderedAt, type DeviceMap, jointById } from '../../model/device-map/index.ts';
import { partName } from '../../planner/words/index.ts';
import type { BenchEvent } from '../events/index.ts';
import type { JobState } from '../state/index.ts';

/**
 * The cell, by name, that a step takes an iron or a welder to while no lead has allowed it, by whatever way the step came
 * into the plan; null where none.
 */
export function cellForALead(
  map: DeviceMap,
  { transplant }: JobState,
  { kind, joint: id }: { readonly kind: string; readonly joint?: string },
): string | null {
  if (transplant.allowed || (kind !== 'release' && kind !== 'make')) return null;
  const joint = jointById(map, id);
  const cell = joint && cellSolderedAt(map, joint);
  return cell ? partName(map, cell.id) : null;
}

/** That an iron was taken to a cell all the same is for a lead to record. Begins a sentence. */
export function ironAnyway(map: DeviceMap, state: JobState, event: BenchEvent): string | null {
  if (event.type !== 'did' || event.data.anyway === undefined) return null;
  const cells = event.data.steps.map((step) =>
    step.name === 'transplant' && !state.transplant.allowed ? 'the battery' : cellForALead(map, state, step),
  );
  const cell = cells.find((each) => each !== null);
  return cell ? `An iron at ${cell}, also one that was taken to it anyway, is for a lead to record` : null;
}
