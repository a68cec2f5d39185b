import type { BondJoint, DeviceMap } from '../../model/device-map/index.ts';
import type { Op } from '../../planner/drafts/index.ts';
import {
  foresee,
  type HeatSetting,
  isForeseeable,
  longestForCells_s,
  type Past,
  type Warming,
  warmingTime_s,
} from '../../physics/heat/index.ts';
import { asItLies, hasCellNear, type JobState, type LyingBond, lastWarmed, pastOf } from '../../job/state/index.ts';
import { zoneInHand } from './bond-in-hand.ts';
import { bondBasis, type BondBasis, COOLING_S, type WarmBond } from './warm-bond.ts';

/** What was done to a bond until now, for one more warming of it; asked in steps of ten seconds. */
export function pastUntilNow(map: DeviceMap, state: JobState, bond: BondJoint, warm: WarmBond | null): Past {
  const warmed = lastWarmed(state.opening, bond.id, zoneInHand(map, state, bond));
  return pastOf(warmed, Math.round((warm?.off?.since_s ?? 0) / 10) * 10);
}

/** What is warmed again, in its turn or after a refusal, starts warm: half its time, at least this (guess). */
const LEAST_AGAIN_S = 60;

/**
 * For how long a bond is planned to be warmed: as its recipe or its source has it; where that does not soften it, as is
 * likely, until it is soft.
 */
function plannedTime_s({ map, bond }: LyingBond, basis: BondBasis, setting: HeatSetting, past: Past): number {
  const usual = warmingTime_s(map, bond, setting.kind);
  const planned = past.length > 0 ? Math.max(LEAST_AGAIN_S, Math.round(usual / 2)) : usual;
  const soft_s = softAfter_s(bond, basis, setting, past);
  return soft_s === null || soft_s <= planned ? planned : soft_s;
}

/** Nobody warms longer than this before trying something else (guess). */
const LONGEST_S = 900;
const softTimes = new WeakMap<BondJoint, Map<string, number | null>>();

/** By the slow end, else as is likely, in steps of ten seconds; null where it never is, or nobody knows its materials. */
function softAfter_s(bond: BondJoint, basis: BondBasis, setting: HeatSetting, past: Past): number | null {
  const known = softTimes.get(bond) ?? new Map<string, number | null>();
  softTimes.set(bond, known);
  const key = JSON.stringify([basis, setting, past]);
  const before = known.get(key);
  if (before !== undefined) return before;
  if (known.size > MOST_KEPT) known.clear();
  const found = untilSoft_s(basis, setting, past);
  known.set(key, found);
  return found;
}

function untilSoft_s(basis: BondBasis, setting: HeatSetting, past: Past): number | null {
  if (!isForeseeable(basis.stack)) return null;
  const { late, likely } = foresee({ ...basis, setting, past, heat_s: LONGEST_S, total_s: LONGEST_S }).ready;
  const soft_s = late ?? likely;
  return soft_s === null ? null : Math.ceil(soft_s / 10) * 10;
}

/** Less than this warms nothing: then it is for a lead to say whether it is warmed at all (guess). */
const LEAST_FOR_CELLS_S = 10;

/** For how long a source is put on: as planned, or as long as no cell beside it passes its limit, as is likely. */
export function putOnFor_s(map: DeviceMap, state: JobState, bond: BondJoint, setting: HeatSetting, past: Past): number {
  const lying = asItLies(map, state.device, bond);
  const heat_s = plannedTime_s(lying, bondBasis(map, bond, state, undefined), setting, past);
  if (!hasCellNear(map, state, bond)) return heat_s;
  const known = forCells.get(lying.bond) ?? new Map<string, number>();
  forCells.set(lying.bond, known);
  const key = JSON.stringify([setting, heat_s, past]);
  const seconds =
    known.get(key) ?? Math.max(LEAST_FOR_CELLS_S, longestForCells_s(lying.map, lying.bond, { setting, heat_s, past }));
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
  const heat_s = plannedTime_s(asItLies(map, state.device, bond), basis, setting, past);
  return { ...basis, setting, past, heat_s, total_s: heat_s + COOLING_S };
}
