import { sourceNamed, type WarmSource } from '../../model/sources/index.ts';
import type { BondJoint, BondStack, DeviceMap } from '../../model/device-map/index.ts';
import { stackOfBond } from './bond-stack.ts';
import { foresee, type Foresight, type Warming } from './foresee.ts';
import { materialNamed } from './materials.ts';
import { settingFor } from './setting.ts';

/** Where the map does not say where a bond softens (docs/check-values.md, limits; common practice). */
export const SOFTENS_C = 60;
/** Nobody warms longer than this before trying something else (guess). */
const LONGEST_S = 900;
const known = new WeakMap<BondJoint, Map<WarmSource, number>>();

/** How long a bond is warmed: its recipe's time with its recipe's source, else until it is soft by the slow end. */
export function warmingTime_s(map: DeviceMap, bond: BondJoint, kind: WarmSource): number {
  if (bond.recipe?.source === kind) return bond.recipe.seconds;
  const times = known.get(bond) ?? new Map<WarmSource, number>();
  known.set(bond, times);
  const seconds = times.get(kind) ?? untilSoft_s(warmingOf(map, bond, kind, LONGEST_S)) ?? sourceNamed(kind).usual_s;
  times.set(kind, seconds);
  return seconds;
}

/** In steps of ten seconds; null where it never is soft, or where nobody knows what it is made of. */
function untilSoft_s(warming: Warming): number | null {
  if (!isForeseeable(warming.stack)) return null;
  const { late, likely } = foresee(warming).ready;
  const ready = late ?? likely;
  return ready === null ? null : Math.ceil(ready / 10) * 10;
}

/** A bond of a map, warmed as is usual for a source. */
export function warmingOf(map: DeviceMap, bond: BondJoint, kind: WarmSource, heat_s: number): Warming {
  const stack = stackOfBond(map, bond);
  return { stack, soften_C: bond.soften_C ?? SOFTENS_C, setting: settingFor(bond, kind), heat_s };
}

/** Are all its materials among those that everybody starts with? A workshop may know more. */
export function isForeseeable({ layers }: BondStack): boolean {
  return layers.every(({ material }) => materialNamed(material) !== undefined);
}

/** What a source does to a bond of a map in the time that it takes; null where nobody knows what it is made of. */
export function foreseeBond(map: DeviceMap, bond: BondJoint, kind: WarmSource): Foresight | null {
  if (!isForeseeable(stackOfBond(map, bond))) return null;
  return foresee(warmingOf(map, bond, kind, warmingTime_s(map, bond, kind)));
}

/** What comes nearest to its limit by the fast end, and how near: °C left, below 0 where it is passed. */
export function nearestLimit({ bands }: Foresight): { what: string; peak_C: number; max_C: number } | null {
  const watched = bands.flatMap(({ what, high, max_C }) =>
    max_C === undefined ? [] : [{ what, peak_C: Math.max(...high), max_C }],
  );
  if (watched.length === 0) return null;
  return watched.reduce((best, each) => (each.max_C - each.peak_C < best.max_C - best.peak_C ? each : best));
}
