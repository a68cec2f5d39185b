import { type BondJoint, type DeviceMap, isOuter, jointById } from '../../model/device-map/index.ts';
import type { Op } from '../../planner/drafts/index.ts';
import type { Mechanism } from '../../planner/holds/index.ts';
import { type BondClosing, CLOSINGS } from '../../job/events/index.ts';
import { type JobState } from '../../job/state/index.ts';
import type { Budget } from '../../planner/order/index.ts';
import type { Consumable } from '../../planner/plan/index.ts';
import { waterWords } from '../../planner/words/index.ts';
import { planAhead } from './ahead.ts';

/** One way to close a bond that is open, with what the rest of the repair takes then, in seconds. */
export interface ClosingChoice {
  readonly way: BondClosing;
  readonly hands_s: number;
  readonly wait_s: number;
  /** what it is closed with; none where the old one stays */
  readonly uses: readonly Consumable[];
  /** what is said of water resistance; null for a bond that keeps no water out */
  readonly water: string | null;
}

/**
 * What it costs to keep, renew or glue a bond, decided on sight: each from a plan of its own.
 * @throws PlanError where there is no plan from here
 */
export function closingChoices(
  mechanism: Mechanism,
  state: JobState,
  bond: BondJoint,
  budget: Budget,
): ClosingChoice[] {
  return CLOSINGS.map((way) => {
    const closings = new Map([...state.deviations.closings, [bond.id, way]]);
    const { ops, plan } = planAhead(mechanism, { ...state, deviations: { ...state.deviations, closings } }, budget);
    return {
      way,
      hands_s: ops.reduce((sum, { seconds }) => sum + seconds, 0),
      wait_s: ops.reduce((sum, { wait_s = 0 }) => sum + wait_s, 0),
      uses: plan.consumables.filter((each) => each.joint === bond.id && !each.maybe),
      water: keepsWaterOut(mechanism.map, bond) ? waterWords(way) : null,
    };
  });
}

/** The bond that is about to be closed, on which it can still be decided how; null at any other step. */
export function bondToClose(map: DeviceMap, op: Op | undefined): BondJoint | null {
  if (op?.name !== 'clean' && op?.name !== 'tack' && op?.name !== 'lay') return null;
  const joint = jointById(map, op.joint);
  return joint?.type === 'bond' ? joint : null;
}

function keepsWaterOut(map: DeviceMap, bond: BondJoint): boolean {
  return (
    bond.style === 'perimeter' &&
    map.parts.some((part) => bond.holds.includes(part.id) && (isOuter(part) || part.kind === 'lens'))
  );
}
