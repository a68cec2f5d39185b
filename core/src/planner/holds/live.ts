import { cellSolderedAt } from '../../model/device-map/index.ts';
import type { Mechanism } from './mechanism.ts';
import { everyOp, play } from './play.ts';
import { type DeviceState, isDead } from './device-state.ts';
import { isolationMissing } from './unmet.ts';

const ASKING_NO_ISOLATION = { live: new Set<number>(), isolation: false } as const;

/**
 * The joints that can only be released while the device is live: with such a joint left alone, and isolation asked of
 * nothing, no sequence from this state reaches a dead device.
 */
export function liveJoints(mechanism: Mechanism, state: DeviceState): ReadonlySet<number> {
  const candidates = mechanism.map.joints.flatMap((_, joint) =>
    !state.released[joint] && isolationMissing(mechanism, state, joint) ? [joint] : [],
  );
  if (candidates.length === 0 || reachesDeadWithout(mechanism, state, candidates)) return new Set();
  return new Set(candidates.filter((joint) => isLive(mechanism, state, joint)));
}

/** Is this joint, whose isolation is missing now, one that nothing could make dead before? */
export function isLive(mechanism: Mechanism, state: DeviceState, joint: number): boolean {
  const found = known.get(state) ?? new Map<number, boolean>();
  known.set(state, found);
  const before = found.get(joint);
  if (before !== undefined) return before;
  const isIt = !reachesDeadWithout(mechanism, state, [joint]);
  found.set(joint, isIt);
  return isIt;
}

/** Finding out takes a walk through the whole device, and a state never changes: the answer is kept beside it. */
const known = new WeakMap<DeviceState, Map<number, boolean>>();

function reachesDeadWithout(mechanism: Mechanism, state: DeviceState, forbidden: readonly number[]): boolean {
  const left = new Set(forbidden);
  const ops = everyOp(mechanism).filter((op) => op.kind !== 'release' || !left.has(op.joint));
  return isDead(mechanism, play(mechanism, state, ops, ASKING_NO_ISOLATION).state);
}

/** Solder on a lithium part is marked live always, though it waits for isolation where that can be had. */
export function isMarkedLive(mechanism: Mechanism, live: ReadonlySet<number>, joint: number): boolean {
  if (live.has(joint)) return true;
  return cellSolderedAt(mechanism.map, mechanism.map.joints[joint]!) !== undefined;
}
