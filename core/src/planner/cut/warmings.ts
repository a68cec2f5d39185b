import type { BondJoint, DeviceMap } from '../../model/device-map/index.ts';
import {
  dragsBelow,
  foresee,
  isForeseeable,
  likelyBelow_s,
  stackOfBond,
  warmingOf,
  warmingTime_s,
} from '../../physics/heat/index.ts';
import type { WarmSource } from '../../model/sources/index.ts';
import { cutOfBond } from './cut-of-bond.ts';
import type { CutRequest } from './cut-request.ts';

/** How far it is looked at whether an open seam drags. */
const COOLING_S = 600;

/**
 * How often a bond is warmed for one cut, with a source and a way of warming, as foreseen from its layers. Null for a bond
 * that is not cut by its edges, that the source never softens, or of which nobody knows what it is made of.
 */
export function warmingsOf(
  map: DeviceMap,
  bond: BondJoint,
  source: WarmSource,
  given: Pick<CutRequest, 'speed_mm_s' | 'warm'>,
): number | null {
  if (!isForeseeable(stackOfBond(map, bond))) return null;
  const warming = warmingOf(map, bond, source, warmingTime_s(map, bond, source));
  const foresight = foresee({ ...warming, total_s: warming.heat_s + COOLING_S });
  if (foresight.ready.likely === null) return null;
  const { likely } = dragsBelow(bond, warming.soften_C);
  const dragTime_s = likelyBelow_s(foresight, likely, warming.heat_s) ?? COOLING_S;
  const workingTime_s = foresight.working_s ?? dragTime_s;
  return cutOfBond(map, bond, { ...given, heat: { workingTime_s, dragTime_s } })?.warmings ?? null;
}
