import type { WarmSource } from '../sources/index.ts';
import type { BondJoint, DeviceMap } from '../device-map/index.ts';
import type { Op } from '../drafts/index.ts';
import { type HeatSetting, longestForCells_s, type Past, type Warming, warmingTime_s } from '../heat/index.ts';
import { hasCellNear, type JobState, lastWarmed, pastOf } from '../job/index.ts';
import { zoneInHand } from './bond-in-hand.ts';
import { type BondBasis, COOLING_S, type WarmBond } from './warm-bond.ts';

/** What was done to a bond until now, for one more warming of it; asked in steps of ten seconds. */
export function pastUntilNow(map: DeviceMap, state: JobState, bond: BondJoint, warm: WarmBond | null): Past {
  const warmed = lastWarmed(state.opening, bond.id, zoneInHand(map, state, bond));
  return pastOf(warmed, Math.round((warm?.off?.since_s ?? 0) / 10) * 10);
}

/** What is warmed again, in its turn or after a refusal, starts warm: half its time, at least this (guess). */
const LEAST_AGAIN_S = 60;

/** For how long a bond is planned to be warmed; what its foresight says of it is when it is soft. */
function plannedTime_s(map: DeviceMap, bond: BondJoint, source: WarmSource, past: Past): number {
  const usual = warmingTime_s(map, bond, source);
  return past.length > 0 ? Math.max(LEAST_AGAIN_S, Math.round(usual / 2)) : usual;
}

/** Less than this warms nothing: then it is for a lead to say whether it is warmed at all (guess). */
const LEAST_FOR_CELLS_S = 10;

/** For how long a source is put on: as planned, or as long as no cell beside it passes its limit, as is likely. */
export function putOnFor_s(map: DeviceMap, state: JobState, bond: BondJoint, setting: HeatSetting, past: Past): number {
  const heat_s = plannedTime_s(map, bond, setting.kind, past);
  if (!hasCellNear(map, state, bond)) return heat_s;
  const known = forCells.get(bond) ?? new Map<string, number>();
  forCells.set(bond, known);
  const key = JSON.stringify([setting, heat_s, past]);
  const seconds =
    known.get(key) ?? Math.max(LEAST_FOR_CELLS_S, longestForCells_s(map, bond, { setting, heat_s, past }));
  if (known.size > MOST_KEPT) known.clear();
  known.set(key, seconds);
  return seconds;
}

const forCells = new WeakMap<BondJoint, Map<string, number>>();
const MOST_KEPT = 100;

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
  const heat_s = plannedTime_s(map, bond, setting.kind, past);
  return { ...basis, setting, past, heat_s, total_s: heat_s + COOLING_S };
}
