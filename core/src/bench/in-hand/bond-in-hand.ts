import type { BondCut } from '../../planner/cut/index.ts';
import { type BondJoint, type DeviceMap, jointById } from '../../model/device-map/index.ts';
import type { Op } from '../../planner/drafts/index.ts';
import { type JobState, lastWarmed, type Zone, zoneToWarm } from '../../job/state/index.ts';

/** What an opening asks of the hand: a source on or off, an edge cut, drops put on; null where one press does. */
export type BondWork = 'heating' | 'to-heat' | 'cut' | 'soak' | null;

export function bondInHand(map: DeviceMap, op: Op | undefined): BondJoint | null {
  const joint = jointById(map, op?.joint);
  return joint?.type === 'bond' ? joint : null;
}

/** The zone of a bond that is being warmed, or that is warmed next. */
export function zoneInHand(map: DeviceMap, { opening, policy }: JobState, bond: BondJoint): Zone | undefined {
  return opening.heating?.joint === bond.id ? opening.heating.zone : zoneToWarm(map, opening, bond, policy.warm);
}

/** @param cut of the bond, null where it is not cut edge by edge */
export function bondWork(map: DeviceMap, state: JobState, op: Op | undefined, cut: BondCut | null): BondWork {
  const bond = bondInHand(map, op);
  if (!op || !bond) return null;
  if (state.opening.heating?.joint === bond.id) return 'heating';
  if (op.name === 'heat') return 'to-heat';
  if (op.kind === 'release' && cut) return isZoneCold(map, state, bond) ? 'to-heat' : 'cut';
  const isTimed = state.timers.some((each) => each.step === op.id);
  return op.name === 'soak' && !isTimed ? 'soak' : null;
}

/** Has the cut come to a zone that was not warmed yet? */
function isZoneCold(map: DeviceMap, state: JobState, bond: BondJoint): boolean {
  const zone = zoneInHand(map, state, bond);
  return bond.heat === true && zone !== undefined && lastWarmed(state.opening, bond.id, zone) === undefined;
}

interface Place {
  readonly bond: BondJoint | null;
  readonly zone: Zone | undefined;
}

/** The bond whose temperature matters now: the one in hand; for solvent whatever was warmed last nearby. */
export function warmPlace(map: DeviceMap, state: JobState, op: Op | undefined): Place {
  const bond = bondInHand(map, op);
  if (!bond) return { bond, zone: undefined };
  if (op?.name !== 'soak') return { bond, zone: zoneInHand(map, state, bond) };
  const { warmed } = state.opening;
  const last = warmed.findLast(({ joint }) => joint === bond.id) ?? warmed.at(-1);
  const joint = jointById(map, last?.joint);
  return joint?.type === 'bond' ? { bond: joint, zone: last?.zone } : { bond, zone: undefined };
}
