import { asItLies, type JobState, lastWarmed, type Zone } from '@nibrel/core/job/state';
import type { BondJoint, DeviceMap } from '@nibrel/core/model/device-map';
import { warmedAs } from '@nibrel/core/planner/cut';
import { fitted } from '@nibrel/core/physics/heat';
import { feltAt } from '@nibrel/core/workshop/shop';
import {
  afterwards,
  bondBasis,
  coolingBond,
  deviceAfterwards,
  elapsed_s,
  heatingBond,
  ifOffNow,
  type WarmBond,
  whileOn,
  type Yields,
  yieldsOf,
} from '@nibrel/core/bench/in-hand';
import type { ShopNow } from '@nibrel/core/api';
import { placeOf, useField, useFit, useForesight } from '../../heat/use-heat.ts';

/** Until the workshop is known. */
const NOWHERE: Yields = { soften_C: 0, drag: { low: 0, likely: 0, high: 0, from: 0 } };

/** How warm a bond is now, or a zone of it: asks the workers for what has to be foreseen. */
export function useWarmBond(
  map: DeviceMap,
  bond: BondJoint | null,
  zone: Zone | undefined,
  state: JobState,
  shop: ShopNow | undefined,
  now: number,
): WarmBond | null {
  const heating = bond && state.opening.heating?.joint === bond.id ? state.opening.heating : null;
  const warmed = bond ? (lastWarmed(state.opening, bond.id, zone) ?? null) : null;
  const basis = bond && shop ? bondBasis(map, bond, state, shop.materials) : null;

  const place = placeOf(map, bond);
  const guess = heating && basis ? whileOn(basis, heating, heating.setting) : null;
  const fit = useFit(guess, heating?.readings ?? []);
  const setting = heating && (fit?.isSound ? fitted(heating.setting, fit) : heating.setting);
  const isOn = heating && basis && setting;
  const long = useForesight(isOn ? whileOn(basis, heating, setting) : null, place);
  const offNow = useForesight(isOn ? ifOffNow(basis, heating, setting, elapsed_s(heating, now)) : null, place);
  const after = useForesight(basis && warmed ? afterwards(basis, warmed) : null, place);
  const isCut = bond?.segments?.some((each) => each.depth !== undefined) ?? false;
  // what lies on the mat is not in the device
  const isInDevice = bond !== null && !asItLies(map, state.device, bond).isOnMat;
  const isCooling = isInDevice && isCut && basis && warmed && !heating;
  const as = bond && warmedAs(map, bond, state.policy.warm);
  const device = isCooling ? deviceAfterwards(map, as!, basis, warmed) : null;
  const yields = bond && shop ? yieldsOf(state, bond, feltAt(shop.drags, map.id, bond.id)) : NOWHERE;
  const { field } = useField(device, { soften_C: yields.soften_C, drag_C: yields.drag.likely });
  if (!bond) return null;
  if (heating) return heatingBond(heating, yields, setting!, fit, long, offNow.foresight, now);
  return coolingBond(warmed, yields, after, field, state.limits.solventBelow_C, now);
}
