import { type BondCut, cutOfBond, type CutRequest } from '../../planner/cut/index.ts';
import type { BondJoint, DeviceMap } from '../../model/device-map/index.ts';
import { type Foresight, likelyBelow_s } from '../../physics/heat/index.ts';
import type { JobState } from '../../job/state/index.ts';
import { COOLING_S, type WarmBond, type Yields } from './warm-bond.ts';

/** The cut of a bond as it is planned, with its pauses for heat; null for what is not cut by edges. */
export function cutInHand(map: DeviceMap, state: JobState, bond: BondJoint, warm: WarmBond | null): BondCut | null {
  const { working_s, drags_s, byEdge } = warm?.off ?? { working_s: null, drags_s: null, byEdge: null };
  return cutAt(map, state, bond, working_s ? { workingTime_s: working_s, ...dragTime(drags_s), ...byEdge } : null);
}

/** The cut that a warming would make possible. */
export function cutForeseen(
  map: DeviceMap,
  state: JobState,
  bond: BondJoint,
  { working_s, ...foresight }: Foresight,
  { drag }: Yields,
  heat_s: number,
): BondCut | null {
  const drags_s = likelyBelow_s({ working_s, ...foresight }, drag.likely, heat_s);
  return cutAt(map, state, bond, working_s ? { workingTime_s: working_s, ...dragTime(drags_s) } : null);
}

/** An open seam that does not drag for as long as is looked at. */
function dragTime(drags_s: number | null): { readonly dragTime_s: number } {
  return { dragTime_s: drags_s === null ? COOLING_S : Math.max(1, drags_s) };
}

function cutAt(map: DeviceMap, { limits, policy }: JobState, bond: BondJoint, heat: CutRequest['heat'] | null) {
  return cutOfBond(map, bond, {
    speed_mm_s: limits.cutSpeed_mm_s,
    ...(policy.warm ? { warm: policy.warm } : {}),
    ...(heat ? { heat } : {}),
  });
}
