import { type JobState, lastWarmed, type Zone } from '@nibrel/core/job';
import type { BondJoint, DeviceMap } from '@nibrel/core/device-map';
import { fitted } from '@nibrel/core/heat';
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
} from '@nibrel/core/in-hand';
import type { ShopNow } from '@nibrel/core/api';
import { useField, useFit, useForesight } from '../../heat/use-heat.ts';

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

  const guess = heating && basis ? whileOn(basis, heating, heating.setting) : null;
  const fit = useFit(guess, heating?.readings ?? []);
  const setting = heating && (fit?.isSound ? fitted(heating.setting, fit) : heating.setting);
  const isOn = heating && basis && setting;
  const long = useForesight(isOn ? whileOn(basis, heating, setting) : null);
  const offNow = useForesight(isOn ? ifOffNow(basis, heating, setting, elapsed_s(heating, now)) : null);
  const after = useForesight(basis && warmed ? afterwards(basis, warmed) : null);
  const isCut = bond?.segments?.some((each) => each.depth !== undefined) ?? false;
  const isCooling = bond && isCut && basis && warmed && !heating;
  const device = isCooling ? deviceAfterwards(map, bond, basis, warmed) : null;
  const { field } = useField(device, basis?.soften_C ?? 0);
  if (!bond) return null;
  const soften_C = basis?.soften_C ?? 0;
  if (heating) return heatingBond(heating, soften_C, setting!, fit, long, offNow.foresight, now);
  return coolingBond(warmed, soften_C, after, field?.softFor_s ?? null, state.limits.solventBelow_C, now);
}
