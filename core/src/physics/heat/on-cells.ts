import type { BondJoint, BondStack, DeviceMap } from '../../model/device-map/index.ts';
import { stackOfBond } from './bond-stack.ts';
import { cellLimit_C, cellsAt, isWatchOfCell } from './cells.ts';
import { type Past, phasesOf, probesOf, requestOf } from './foresee.ts';
import { isForeseeable } from './heat-of-bond.ts';
import { type HeatSetting, settingFor } from './setting.ts';
import { heatThrough } from './solve-heat.ts';

interface Warming {
  readonly setting: HeatSetting;
  readonly heat_s: number;
  readonly past: Past;
}

interface Heated {
  /** the cell */
  readonly what: string;
  readonly peak_C: number;
  readonly max_C: number;
}

/** A cell goes on warming for a while after the source is gone. */
const AFTER_s = 300;

/**
 * The cell that a source brings past its limit, with the source on or after it, as is likely; null where none is. What a
 * source gives is taken to be no less than is usual for it on this bond, since nobody has to believe what was sent.
 */
export function cellHeatedBy(map: DeviceMap, bond: BondJoint, { setting, heat_s, past }: Warming): Heated | null {
  const stack = stackOfBond(map, bond);
  const cells = cellWatches(map, bond, stack);
  if (cells.length === 0 || !isForeseeable(stack)) return null;
  const usual = settingFor(bond, setting.kind);
  const transfer = Math.max(setting.transfer.likely, usual.transfer.likely);
  const capacity_J_m2K = Math.max(setting.capacity_J_m2K ?? 0, usual.capacity_J_m2K ?? 0);
  const source = { ...setting, ...(capacity_J_m2K > 0 ? { capacity_J_m2K } : {}) };
  const warming = { stack, soften_C: 0, setting: source, heat_s, total_s: heat_s + AFTER_s };
  const { probes } = heatThrough(
    { ...requestOf(warming, transfer), probes: probesOf(stack) },
    phasesOf(past, 'likely'),
  );
  const peaks = cells.map(({ index, what, max_C }): Heated => {
    const peak_C = probes[`watch-${index}`]!.reduce((most, each) => Math.max(most, each), -Infinity);
    return { what, peak_C, max_C };
  });
  return peaks.find(({ peak_C, max_C }) => peak_C > max_C + ROUNDING_C) ?? null;
}

/** The solver is good to so much. */
const ROUNDING_C = 0.2;

/** The longest that a source may stay on so that no cell passes its limit, in steps of ten seconds; 0 where none may. */
export function longestForCells_s(map: DeviceMap, bond: BondJoint, warming: Warming): number {
  const isGood = (heat_s: number) => cellHeatedBy(map, bond, { ...warming, heat_s }) === null;
  if (isGood(warming.heat_s)) return warming.heat_s;
  let [good, bad] = [0, Math.ceil(warming.heat_s / 10)];
  while (bad - good > 1) {
    const middle = Math.floor((good + bad) / 2);
    if (isGood(middle * 10)) good = middle;
    else bad = middle;
  }
  return good * 10;
}

function cellWatches(map: DeviceMap, bond: BondJoint, { layers, watch }: BondStack) {
  const cells = cellsAt(map, bond);
  const limit_C = cellLimit_C(map);
  return watch.flatMap((each, index) =>
    isWatchOfCell({ layers, watch }, each, cells)
      ? [{ index, what: each.what, max_C: Math.min(each.max_C, limit_C) }]
      : [],
  );
}
