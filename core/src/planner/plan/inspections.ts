import type { DeviceMap } from '../../model/device-map/index.ts';
import { type Op, opId, procedureOp, TIMES } from '../drafts/index.ts';

/**
 * Parts that are to be looked at before they go back: straight after they come off, so that what fails can be ordered
 * while the rest is done, else before they are fitted.
 */
export function withInspections(map: DeviceMap, ops: readonly Op[]): Op[] {
  const isInspected = new Set(map.parts.flatMap(({ id, reuse }) => (reuse === 'inspect' ? [id] : [])));
  if (isInspected.size === 0) return [...ops];
  const goesBack = new Set(ops.flatMap((op) => (op.kind === 'fit' && !op.isNew ? [op.part!] : [])));
  const lifted = new Set(ops.flatMap((op) => (op.kind === 'lift' ? [op.part!] : [])));
  return ops.flatMap((op) => {
    const { part = '' } = op;
    if (!isInspected.has(part) || !goesBack.has(part)) return [op];
    if (op.kind === 'lift') return [op, inspectOp(part, op)];
    return op.kind === 'fit' && !lifted.has(part) ? [inspectOp(part, op), op] : [op];
  });
}

export function inspectOp(part: string, { stage }: Pick<Op, 'stage'>): Op {
  return procedureOp({
    name: 'inspect',
    part,
    seconds: TIMES.inspect,
    stage,
    why: 'What fails here is renewed.',
    whyNotEarlier: `After ${opId('lift', part).replace(':', ' ')}.`,
  });
}
