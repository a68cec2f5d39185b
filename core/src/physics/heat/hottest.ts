import { sourceNamed } from '../../model/sources/index.ts';
import type { BondStack } from '../../model/device-map/index.ts';
import { type Past, phasesOf, probesOf, requestOf } from './foresee.ts';
import { isForeseeable } from './heat-of-bond.ts';
import { type HeatSetting, ROOM_C } from './setting.ts';
import { heatThrough } from './solve-heat.ts';
import { valueAt } from './series.ts';

/** A bond whose source is off again. */
export interface Warmed {
  readonly setting: HeatSetting;
  /** as it was set, where readings have taught it since; the hotter of both counts */
  readonly set?: HeatSetting;
  readonly seconds: number;
  readonly past: Past;
  /** the hottest that it was read or said to be while its source was on, °C */
  readonly reached_C?: number;
}

/** How far a cooling is computed; later a bond is as cold as the room (guess). */
export const COOLED_s = 2400;

/**
 * The most that a bond may have so many seconds after its source came off, °C: by the fast end of what the source gives,
 * never less than what is usual for its kind, since nobody has to believe the setting that was sent; scaled up to what
 * was read. Where nobody knows what it is made of it is as hot as its source was until it is surely cold.
 */
export function hottest_C(
  stack: BondStack,
  { setting: taught, set = taught, seconds, past, reached_C }: Warmed,
  since_s: number,
): number {
  if (since_s >= COOLED_s) return ROOM_C;
  const setting = hotter(set, taught);
  const source_C = Math.max(setting.temp_C, reached_C ?? ROOM_C);
  if (!isForeseeable(stack)) return source_C;
  const transfer = Math.max(setting.transfer.high, sourceNamed(setting.kind).transfer.high);
  const heat_s = Math.max(1, seconds);
  const warming = { stack, soften_C: 0, setting, heat_s, total_s: heat_s + Math.max(1, since_s), past };
  const { times_s, probes } = heatThrough(
    { ...requestOf(warming, transfer), probes: probesOf(stack).slice(0, 1) },
    phasesOf(past, 'high'),
  );
  const bond = probes['bond']!;
  const off_C = valueAt(times_s, bond, heat_s);
  const now_C = valueAt(times_s, bond, heat_s + since_s);
  // heat is linear: what was hotter than foreseen by a factor stays so while it cools
  const factor = reached_C === undefined ? 1 : Math.max(1, (reached_C - ROOM_C) / Math.max(1, off_C - ROOM_C));
  return Math.min(source_C, ROOM_C + factor * (now_C - ROOM_C));
}

/** Of two ways in which a source is thought to be set, the one that gives more. */
function hotter(a: HeatSetting, b: HeatSetting): HeatSetting {
  const high = Math.max(a.transfer.high, b.transfer.high);
  const capacity_J_m2K = Math.max(a.capacity_J_m2K ?? 0, b.capacity_J_m2K ?? 0);
  return {
    ...a,
    temp_C: Math.max(a.temp_C, b.temp_C),
    transfer: { ...a.transfer, high },
    ...(capacity_J_m2K > 0 ? { capacity_J_m2K } : {}),
  };
}
