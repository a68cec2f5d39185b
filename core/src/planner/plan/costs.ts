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

/** Seconds of changing the tool and turning the device over before each operation, as the cost of a plan counts them. */
export function setUpBefore(ops: readonly Pick<Op, 'tool' | 'face'>[]): number[] {
  let tool: Op['tool'] = null;
  let up: Op['face'] = null;
  return ops.map((op) => {
    const face = op.face === 'edge' ? null : op.face;
    const change = op.tool !== null && op.tool !== tool ? TOOL_CHANGE_S : 0;
    const flip = face !== null && up !== null && face !== up ? FLIP_S : 0;
    tool = op.tool ?? tool;
    up = face ?? up;
    return change + flip;
  });
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
