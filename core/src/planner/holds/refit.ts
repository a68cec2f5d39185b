import { isLive } from './live.ts';
import { inverse } from './inverse.ts';
import type { Mechanism } from './mechanism.ts';
import { applied, type RebuildOp } from './operation.ts';
import { type DeviceState, OFF, OPEN, sameState, SEATED } from './device-state.ts';
import { type Rules, unmetFor } from './unmet.ts';

const NONE: ReadonlySet<number> = new Set();

/**
 * May this be done on the way back? The rebuild is the exact reverse of the strip-down: an operation is legal where
 * undoing it from the state it leads to would be. A mechanical joint is made only when its parts are seated.
 * @param rules of a plan; without them the map's own. What may be worked on live is looked up either way.
 */
export function mayRebuild(mechanism: Mechanism, state: DeviceState, op: RebuildOp, rules?: Rules): boolean {
  const after = stateToUndo(mechanism, state, op);
  if (!after) return false;
  const unmet = unmetFor(mechanism, after, inverse(op), { ...rules, live: NONE });
  if (unmet.length === 0 || op.kind !== 'make') return unmet.length === 0;
  return unmet.every((each) => each.need === 'isolated') && isLive(mechanism, after, op.joint);
}

/** The state after the operation, or null where it can't be done for want of what it works on. */
function stateToUndo(mechanism: Mechanism, state: DeviceState, op: RebuildOp): DeviceState | null {
  switch (op.kind) {
    case 'make': {
      if (!state.released[op.joint] || !mechanism.releasable[op.joint]) return null;
      const place = state.group[mechanism.to[op.joint]!]!;
      const ready = mechanism.held[op.joint]!.every(
        (part) => state.group[part] === place && (mechanism.tether[op.joint] || standsReady(state, part)),
      );
      return ready ? applied(mechanism, state, op) : null;
    }
    case 'close':
      return state.status[op.part] === OPEN ? applied(mechanism, state, op) : null;
    case 'fit': {
      if (state.status[op.part] !== OFF || op.part === mechanism.base) return null;
      if (state.group[op.onto] === op.part) return null;
      const place = state.group[op.onto]!;
      const hosts = mechanism.holding[op.part]!.map((joint) => mechanism.to[joint]!);
      const isHosted = hosts.some((host) => state.group[host] === place);
      if (!isHosted && !(place === mechanism.base && isLaidByItself(mechanism, op.part))) return null;
      const next = applied(mechanism, state, op);
      // lifting it again must take along just what comes with it now
      return sameState(applied(mechanism, next, inverse(op)), state) ? next : null;
    }
  }
}

/** On the mat a lifted part is the host of its group and counts as standing. */
function standsReady(state: DeviceState, part: number): boolean {
  return state.status[part] === SEATED || (state.status[part] === OFF && state.group[part] === part);
}

/**
 * A lead that is plugged in at both ends, or a pad between two parts, leaves with neither, and is laid where it belongs
 * before either is back.
 */
function isLaidByItself({ map, holding, selfParting, to }: Mechanism, part: number): boolean {
  const isLoose = holding[part]!.every((joint) => selfParting[joint] || map.joints[joint]!.type === 'connector');
  return isLoose && new Set(holding[part]!.map((joint) => to[joint])).size > 1;
}
