import type { DeviceMap } from '../src/model/device-map/index.ts';
import type { CheckedPlan, CheckedPolicy } from './checked-plan.ts';
import { CheckedRebuild } from './checked-rebuild.ts';
import { CheckedStrip } from './checked-strip.ts';

export type { CheckedOp } from './checked-plan.ts';

/**
 * The rules of order (docs/device-map.md, *The order of a careful technician*) held against a plan from the whole device.
 * Written apart from the planner: it knows only what holds what. Answers *rule: what is wrong*, nothing where all is well.
 */
export function orderFaults(map: DeviceMap, plan: CheckedPlan, policy: CheckedPolicy = {}): string[] {
  return [...new CheckedStrip(map, plan, policy).check(), ...new CheckedRebuild(map, plan, policy).check()];
}
