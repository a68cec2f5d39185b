import { cutOfBond } from '../cut/index.ts';
import type { BondJoint, BondSegment, DeviceMap } from '../device-map/index.ts';
import type { Policy } from '../policy/index.ts';
import { lastWarmed, type Opening, type Zone } from './opening-state.ts';

type Warm = NonNullable<Policy['warm']>;

/** The zones of a bond, which are heated one after another. */
export function zonesOf(bond: BondJoint): Zone[] {
  return [...new Set((bond.segments ?? []).flatMap(({ zone }) => (zone === undefined ? [] : [zone])))];
}

/**
 * The zone that is to be warmed next. A zone grows stiff while another is warmed, so each is warmed when the cut comes to
 * it; where nothing is cut, all of them are, the one that was left alone longest first.
 */
export function zoneToWarm(
  map: DeviceMap,
  opening: Opening,
  bond: BondJoint,
  warm: Warm = 'as-mapped',
): Zone | undefined {
  if (warm !== 'as-mapped') return undefined;
  const next = nextEdge(map, opening, bond);
  if (next) return next.zone;
  const order = opening.warmed.flatMap(({ joint, zone }) => (joint === bond.id && zone !== undefined ? [zone] : []));
  return zonesOf(bond).toSorted((a, b) => order.indexOf(a) - order.indexOf(b))[0];
}

/** Is the plan's warming of a bond over: warm where the cut is, or all of it where nothing is cut? */
export function isWarmedThrough(map: DeviceMap, opening: Opening, bond: BondJoint, warm: Warm = 'as-mapped'): boolean {
  // all round or only the starting edge: one warming is the whole of it
  if (warm !== 'as-mapped') return lastWarmed(opening, bond.id, undefined) !== undefined;
  const next = nextEdge(map, opening, bond);
  const zones = next ? [next.zone] : zonesOf(bond);
  return zones.every((zone) => lastWarmed(opening, bond.id, zone) !== undefined);
}

function nextEdge(map: DeviceMap, { cut }: Opening, bond: BondJoint): BondSegment | undefined {
  const done = cut.get(bond.id);
  // the order of the edges is the same at any speed
  const next = cutOfBond(map, bond, { speed_mm_s: 1 })?.edges.find((each) => !done?.has(each.segment));
  return bond.segments?.find((each) => each.id === next?.segment);
}
