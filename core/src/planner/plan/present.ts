import {
  assembled,
  type DeviceState,
  type Mechanism,
  type NamedOp,
  namedOp,
  numberedOp,
  type PhysicalOp,
  replay,
} from '../holds/index.ts';
import { Refusal, wrong } from '../../model/refusal/index.ts';
import { PlanError, type Target } from '../search/index.ts';
import type { Warning } from '../words/index.ts';

/** What was done already, in order; `new` marks a fitted part as the replacement. */
export type DoneOp = NamedOp & { readonly new?: boolean };

/** Where the device stands, how it came there, and what has to be said about that. */
export interface Present {
  readonly state: DeviceState;
  readonly history: readonly PhysicalOp[];
  readonly warnings: readonly Warning[];
  /** parts fitted as new: these targets count as replaced */
  readonly renewed: ReadonlySet<string>;
  /** parts fitted again and not lifted since */
  readonly refitted: ReadonlySet<number>;
}

/** @throws PlanError where a done operation names what is not in the map. */
export function presentState(mechanism: Mechanism, done: readonly DoneOp[]): Present {
  const history = done.map((op, index) => {
    try {
      return numberedOp(mechanism, op);
    } catch (error) {
      if (error instanceof Refusal) throw new PlanError(wrong(`done[${index}]`, error.message, error.cure));
      throw error;
    }
  });
  const { state, illegal } = replay(mechanism, assembled(mechanism), history);
  const warnings = illegal.map(({ op }): Warning => {
    const named = namedOp(mechanism, op);
    const text = `${named.kind} "${named.joint ?? named.part}" went against the rules; the plan goes on from the state it left.`;
    return { code: 'out-of-order', ...(named.joint ? { joint: named.joint } : { part: named.part }), text };
  });
  const renewed = new Set(done.flatMap((op) => (op.kind === 'fit' && op.new ? [op.part!] : [])));
  const refitted = new Set<number>();
  for (const op of history) {
    if (op.kind === 'fit') refitted.add(op.part);
    if (op.kind === 'lift') refitted.delete(op.part);
  }
  return { state, history, warnings, renewed, refitted };
}

/** Targets that are still to be reached: a part that was fitted as new counts as replaced. */
export function openTargets(targets: readonly Target[], renewed: ReadonlySet<string>): Target[] {
  return targets.filter((target) => !('replace' in target && renewed.has(target.replace)));
}
