import { cutOfBond, warmedAs } from '../../planner/cut/index.ts';
import type { BondJoint, DeviceMap } from '../../model/device-map/index.ts';
import type { Policy } from '../../model/policy/index.ts';
import { lastWarmed, type Opening, type Zone } from './opening-state.ts';

type Warm = Policy['warm'] | undefined;

/** The zones of a bond, which are heated one after another. */
export function zonesOf(map: DeviceMap, bond: BondJoint, warm: Warm): Zone[] {
  const { segments = [] } = warmedAs(map, bond, warm);
  return [...new Set(segments.flatMap(({ zone }) => (zone === undefined ? [] : [zone])))];
}

/**
 * The zone that is to be warmed next. A zone grows stiff while another is warmed, so each is warmed when the cut comes to
 * it; where nothing is cut, all of them are, the one that was left alone longest first.
 */
export function zoneToWarm(map: DeviceMap, opening: Opening, bond: BondJoint, warm: Warm): Zone | undefined {
  const next = nextEdge(map, opening, bond, warm);
  if (next) return next.zone;
  const order = opening.warmed.flatMap(({ joint, zone }) => (joint === bond.id && zone !== undefined ? [zone] : []));
  return zonesOf(map, bond, warm).toSorted((a, b) => order.indexOf(a) - order.indexOf(b))[0];
}

/** Is the plan's warming of a bond over: warm where the cut is, or all of it where nothing is cut? */
export function isWarmedThrough(map: DeviceMap, opening: Opening, bond: BondJoint, warm: Warm): boolean {
  const next = nextEdge(map, opening, bond, warm);
  const zones = next ? [next.zone] : zonesOf(map, bond, warm);
  return zones.every((zone) => lastWarmed(opening, bond.id, zone) !== undefined);
}

function nextEdge(map: DeviceMap, { cut }: Opening, bond: BondJoint, warm: Warm) {
  const done = cut.get(bond.id);
  // the order of the edges is the same at any speed
  const planned = cutOfBond(map, bond, { speed_mm_s: 1, ...(warm ? { warm } : {}) });
  return planned?.edges.find((each) => !done?.has(each.segment));
}
