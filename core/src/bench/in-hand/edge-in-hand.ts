import type { BondCut } from '../../planner/cut/index.ts';
import type { BondJoint } from '../../model/device-map/index.ts';
import type { JobState } from '../../job/state/index.ts';
import type { WarmBond } from './warm-bond.ts';

/** The edge that is cut next, and how long it can be cut yet. */
export interface EdgeInHand {
  readonly edge: BondCut['edges'][number];
  /** nothing is open yet: softening is needed; an open seam is cut on until it drags */
  readonly isFirstGap: boolean;
  /** until it is no longer soft, or drags; null where nothing is foreseen, or later than is looked at */
  readonly left_s: number | null;
  /** it has grown too stiff for this edge: heat again, never more force. Advice: the hand on the pick decides */
  readonly isStiff: boolean;
}

/** A long edge is begun with this much left, and goes on as far as it goes (guess). */
const ENOUGH_S = 15;

/** Null where every edge is cut. */
export function edgeInHand(state: JobState, bond: BondJoint, cut: BondCut, warm: WarmBond | null): EdgeInHand | null {
  const done = state.opening.cut.get(bond.id);
  const edge = cut.edges.find((each) => !done?.has(each.segment));
  if (!edge) return null;
  const isFirstGap = !done || done.size === 0;
  const left_s = isFirstGap ? softFor_s(edge.segment, warm) : dragsIn_s(edge.segment, warm);
  const least_s = isFirstGap ? Math.min(edge.seconds, ENOUGH_S) : 1;
  return { edge, isFirstGap, left_s, isStiff: bond.heat === true && left_s !== null && left_s < least_s };
}

/** By the layers, and by the whole device where that is known. */
function softFor_s(segment: string, warm: WarmBond | null): number | null {
  if (!warm?.off || warm.off.working_s === null) return null;
  const { since_s, working_s, byEdge } = warm.off;
  return Math.max(0, Math.min(working_s, byEdge?.softFor_s[segment] ?? Infinity) - since_s);
}

/** An edge that lies away from the heat is cut on as long as the rest: nothing says that it must be warm. */
function dragsIn_s(segment: string, warm: WarmBond | null): number | null {
  if (!warm?.off) return null;
  // cooler than is looked at
  if (!warm.bond_C) return 0;
  const { since_s, drags_s, byEdge } = warm.off;
  const lasts_s = Math.min(drags_s ?? Infinity, byEdge?.dragFor_s[segment] || Infinity);
  return lasts_s === Infinity ? null : Math.max(0, lasts_s - since_s);
}
