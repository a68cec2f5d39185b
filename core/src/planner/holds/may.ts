import type { DeviceState } from './device-state.ts';
import { hostsOf } from './possible.ts';
import { mayRebuild } from './refit.ts';
import type { Mechanism } from './mechanism.ts';
import type { PhysicalOp } from './operation.ts';
import { type Rules, unmetFor } from './unmet.ts';

/** A part is fitted to the group where what holds it lies by then, unless its place is given. */
export function withHost(mechanism: Mechanism, state: DeviceState, op: PhysicalOp): PhysicalOp {
  if (op.kind !== 'fit' || op.onto >= 0) return op;
  return { ...op, onto: hostsOf(mechanism, state, op.part)[0] ?? mechanism.base };
}

export function isLegalNow(mechanism: Mechanism, state: DeviceState, op: PhysicalOp, rules: Rules): boolean {
  switch (op.kind) {
    case 'release':
    case 'open':
    case 'lift':
      return unmetFor(mechanism, state, op, rules).length === 0;
    default:
      return mayRebuild(mechanism, state, op, rules);
  }
}
