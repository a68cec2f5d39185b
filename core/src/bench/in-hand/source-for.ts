import type { BondJoint, DeviceMap } from '../../model/device-map/index.ts';
import type { Op } from '../../planner/drafts/index.ts';
import {
  foresee,
  type HeatSetting,
  isForeseeable,
  kindFor,
  settingFor,
  stackOfBond,
} from '../../physics/heat/index.ts';
import { asItLies, type JobState } from '../../job/state/index.ts';
import { softensAt } from '../../job/rules/index.ts';
import { isWarmSource, sourceNamed, WARM_SOURCES, type WarmSource } from '../../model/sources/index.ts';

/** What a heat source does to a bond: softens it, never does, or brings something to its limit before. */
export type SourceVerdict =
  | { readonly kind: 'works' }
  | { readonly kind: 'never' }
  | { readonly kind: 'limit'; readonly what: string; readonly max_C: number };

/** Nobody warms longer than this before trying something else (guess). */
const LONGEST_S = 900;

/**
 * The source to warm a bond with: the school's, what the plan's operation says, else the map's. One that never softens
 * the bond, or brings a cell to its limit first, is never chosen for anybody; then the first that works.
 */
export function sourceFor(map: DeviceMap, state: JobState, bond: BondJoint, op: Op | undefined): WarmSource {
  const school = state.policy.heat ?? null;
  const planned = WARM_SOURCES.find((each) => sourceNamed(each).name === op?.tool);
  const wanted = isWarmSource(school) ? school : (planned ?? kindFor(bond, null));
  const all = [wanted, ...WARM_SOURCES];
  const soften_C = softensAt(state, bond);
  const lying = asItLies(map, state.device, bond);
  const verdict = (each: WarmSource) => verdictOn(lying.map, lying.bond, soften_C, settingFor(bond, each)).kind;
  // where none works for certain, one that is hot enough and safe may do with time
  const mayDo = (each: WarmSource) => settingFor(bond, each).temp_C > soften_C && verdict(each) !== 'limit';
  return all.find((each) => verdict(each) === 'works') ?? all.find(mayDo) ?? wanted;
}

/** By what is likely of the source; what nobody knows the materials of is left to the hand. */
export function verdictOn(map: DeviceMap, bond: BondJoint, soften_C: number, setting: HeatSetting): SourceVerdict {
  if (setting.temp_C <= soften_C) return { kind: 'never' };
  const stack = stackOfBond(map, bond);
  if (!isForeseeable(stack)) return { kind: 'works' };
  const known = verdicts.get(bond) ?? new Map<string, SourceVerdict>();
  verdicts.set(bond, known);
  const key = JSON.stringify([soften_C, setting.kind, setting.temp_C, setting.transfer]);
  const verdict = known.get(key) ?? foreseen();
  known.set(key, verdict);
  return verdict;

  function foreseen(): SourceVerdict {
    const { ready, limit } = foresee({ stack, soften_C, setting, heat_s: LONGEST_S, total_s: LONGEST_S });
    if (ready.likely === null) return { kind: 'never' };
    const isFirst = limit !== null && limit.seconds <= ready.likely;
    return isFirst ? { kind: 'limit', what: limit.what, max_C: limit.max_C } : { kind: 'works' };
  }
}

const verdicts = new WeakMap<BondJoint, Map<string, SourceVerdict>>();
