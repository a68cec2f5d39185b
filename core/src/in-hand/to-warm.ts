import { WARM_SOURCES, type WarmSource, isWarmSource, sourceNamed } from '../sources/index.ts';
import type { BondJoint, DeviceMap } from '../device-map/index.ts';
import type { Op } from '../drafts/index.ts';
import { type HeatSetting, kindFor, type Past, settingFor, type Warming, warmingTime_s } from '../heat/index.ts';
import { type JobState, lastWarmed, pastOf, softensAt } from '../job/index.ts';
import { zoneInHand } from './bond-in-hand.ts';
import type { BondBasis, WarmBond } from './warm-bond.ts';

/**
 * The source to warm a bond with: the school's, what the plan's operation says, else the map's. One that does not get as
 * hot as the bond softens is never chosen for anybody; then the first that does.
 */
export function sourceFor(state: JobState, bond: BondJoint, op: Op | undefined): WarmSource {
  const school = state.policy.heat ?? null;
  const planned = WARM_SOURCES.find((each) => sourceNamed(each).name === op?.tool);
  const wanted = isWarmSource(school) ? school : (planned ?? kindFor(bond, null));
  const softens = (each: WarmSource) => settingFor(bond, each).temp_C > softensAt(state, bond);
  return [wanted, ...WARM_SOURCES].find(softens) ?? wanted;
}

/** What was done to a bond until now, for one more warming of it; asked in steps of ten seconds. */
export function pastUntilNow(map: DeviceMap, state: JobState, bond: BondJoint, warm: WarmBond | null): Past {
  const warmed = lastWarmed(state.opening, bond.id, zoneInHand(map, state, bond));
  return pastOf(warmed, Math.round((warm?.off?.since_s ?? 0) / 10) * 10);
}

/** What is warmed again, in its turn or after a refusal, starts warm: half its time, at least this (guess). */
const LEAST_AGAIN_S = 60;

/** For how long a bond is planned to be warmed; what its foresight says of it is when it is soft. */
export function plannedTime_s(map: DeviceMap, bond: BondJoint, source: WarmSource, past: Past): number {
  const usual = warmingTime_s(map, bond, source);
  return past.length > 0 ? Math.max(LEAST_AGAIN_S, Math.round(usual / 2)) : usual;
}

/**
 * One more warming of a bond from now, to be foreseen; the time to heat again is when that says it is soft. Null while
 * its source is on, and for a bond that is closed, not opened.
 */
export function nextWarming(
  map: DeviceMap,
  state: JobState,
  op: Op | undefined,
  bond: BondJoint,
  basis: BondBasis,
  setting: HeatSetting,
  warm: WarmBond | null,
): Warming | null {
  const isForCut = op?.name === 'heat' || (bond.heat === true && op?.kind === 'release');
  if (!isForCut || !warm || warm.on) return null;
  const past = pastUntilNow(map, state, bond, warm);
  return { ...basis, setting, past, heat_s: plannedTime_s(map, bond, setting.kind, past) };
}
