import { type DeviceState, type Mechanism, OPEN } from '../holds/index.ts';
import { costOf, type OrderResult } from '../order/index.ts';
import { FLIP_S, TOOL_CHANGE_S } from './arrange.ts';
import type { Op } from '../drafts/index.ts';

/** A risk charge for each flex that stays under strain while a display stands (docs/device-map.md, *What a plan is*). */
export const FLEX_RISK_S = 60;

/** Cost of the operations as they stand, by the rules of the order. */
export function costAsPlanned(ops: readonly Op[]): Pick<OrderResult, 'seconds' | 'toolChanges' | 'flips'> {
  return costOf(
    {
      ops: ops.map((op) => ({ ...op, face: op.face === 'edge' ? null : op.face, after: [] })),
      start: { tool: null, face: null },
      toolChangeSeconds: TOOL_CHANGE_S,
      flipSeconds: FLIP_S,
    },
    ops.map((op) => op.id),
  );
}

export function standingFlexes(mechanism: Mechanism, state: DeviceState): number {
  return mechanism.map.parts.reduce((count, part, number) => {
    if (part.kind !== 'display' || state.status[number] !== OPEN) return count;
    return (
      count +
      mechanism.touching[number]!.filter((joint) => {
        const { type } = mechanism.map.joints[joint]!;
        return !state.released[joint] && !mechanism.selfParting[joint] && (type === 'connector' || type === 'solder');
      }).length
    );
  }, 0);
}
