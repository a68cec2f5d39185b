import { isLive } from './live.ts';
import type { Mechanism } from './mechanism.ts';
import { applied, type PhysicalOp } from './operation.ts';
import { changesNothing } from './play.ts';
import { mayRebuild } from './refit.ts';
import { type DeviceState, OFF, OPEN } from './device-state.ts';
import { type Unmet, unmetFor } from './unmet.ts';

/** How an operation stands to a state: it may be done, changes nothing, or goes against the rules. */
export type Judgement =
  | { readonly verdict: 'legal' }
  | { readonly verdict: 'nothing-to-do' }
  | { readonly verdict: 'illegal'; readonly unmet: readonly Unmet[] };

export function judge(mechanism: Mechanism, state: DeviceState, op: PhysicalOp): Judgement {
  switch (op.kind) {
    case 'release':
    case 'open':
    case 'lift': {
      if (changesNothing(state, op)) return { verdict: 'nothing-to-do' };
      if (op.kind === 'release' && !mechanism.releasable[op.joint]) return { verdict: 'illegal', unmet: [] };
      if (op.kind !== 'release' && op.part === mechanism.base) return { verdict: 'illegal', unmet: [] };
      const unmet = unmetFor(mechanism, state, op, { live: NONE });
      if (unmet.length === 0 || isOnlyLive(mechanism, state, op, unmet)) return { verdict: 'legal' };
      return { verdict: 'illegal', unmet };
    }
    case 'make':
      if (!state.released[op.joint]) return { verdict: 'nothing-to-do' };
      break;
    case 'close':
      if (state.status[op.part] !== OPEN) return { verdict: 'nothing-to-do' };
      break;
    case 'fit':
      if (state.status[op.part] !== OFF) return { verdict: 'nothing-to-do' };
  }
  return mayRebuild(mechanism, state, op) ? { verdict: 'legal' } : { verdict: 'illegal', unmet: [] };
}

const NONE: ReadonlySet<number> = new Set();

/** Is isolation all that is missing, and not to be had before this joint is released? */
function isOnlyLive(mechanism: Mechanism, state: DeviceState, op: PhysicalOp, unmet: readonly Unmet[]): boolean {
  return op.kind === 'release' && unmet.every((each) => each.need === 'isolated') && isLive(mechanism, state, op.joint);
}

/** Applies operations in order, legal or not; returns the state and those that went against the rules. */
export function replay(
  mechanism: Mechanism,
  start: DeviceState,
  ops: readonly PhysicalOp[],
): { state: DeviceState; illegal: { op: PhysicalOp; index: number; unmet: readonly Unmet[] }[] } {
  const illegal: { op: PhysicalOp; index: number; unmet: readonly Unmet[] }[] = [];
  let state = start;
  ops.forEach((op, index) => {
    const judged = judge(mechanism, state, op);
    if (judged.verdict === 'illegal') illegal.push({ op, index, unmet: judged.unmet });
    if (judged.verdict !== 'nothing-to-do') state = applied(mechanism, state, op);
  });
  return { state, illegal };
}
