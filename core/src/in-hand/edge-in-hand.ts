import type { BondCut } from '../cut/index.ts';
import type { BondJoint } from '../device-map/index.ts';
import type { JobState } from '../job/index.ts';
import type { WarmBond } from './warm-bond.ts';

/** The edge that is cut next, and how long it can be cut yet. */
export interface EdgeInHand {
  readonly edge: BondCut['edges'][number];
  /** null where the bond was never soft for certain, or nothing is foreseen */
  readonly left_s: number | null;
  /** it has grown too stiff for this edge: heat again, never more force. Advice: the hand on the pick decides */
  readonly isStiff: boolean;
}

/** A long edge is begun with this much left, and goes on as far as it goes (guess). */
const ENOUGH_S = 15;

/** Softening is needed for the first gap; an open seam is cut on down to so much below it, where the map says nothing (guess). */
const DRAGS_BELOW_C = 20;

/** Null where every edge is cut. */
export function edgeInHand(state: JobState, bond: BondJoint, cut: BondCut, warm: WarmBond | null): EdgeInHand | null {
  const done = state.opening.cut.get(bond.id);
  const edge = cut.edges.find((each) => !done?.has(each.segment));
  if (!edge) return null;
  const left_s = softFor_s(edge.segment, warm);
  const isFirstGap = !done || done.size === 0;
  const isStiff =
    bond.heat === true &&
    left_s !== null &&
    (isFirstGap ? left_s < Math.min(edge.seconds, ENOUGH_S) : drags(bond, warm));
  return { edge, left_s, isStiff };
}

/** Does an open seam drag by now? */
function drags({ dragBelow_C }: BondJoint, warm: WarmBond | null): boolean {
  if (!warm?.off) return false;
  // cooler than is looked at
  if (!warm.bond_C) return true;
  return warm.bond_C.likely < (dragBelow_C ?? warm.soften_C - DRAGS_BELOW_C);
}

/** How long an edge can be cut yet: by the layers, and by the whole device where that is known. */
function softFor_s(segment: string, warm: WarmBond | null): number | null {
  if (!warm?.off || warm.off.working_s === null) return null;
  const { since_s, working_s, softFor_s: byEdge } = warm.off;
  return Math.max(0, Math.min(working_s, byEdge?.[segment] ?? Infinity) - since_s);
}
