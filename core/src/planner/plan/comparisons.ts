import { type Op, procedureOp, TIMES } from '../drafts/index.ts';

/**
 * Once everything has moved over, old and new part are compared again, side by side, before any adhesive of the new one lies bare:
 * what stayed behind would be found when it is closed.
 */
export function withComparisons(ops: readonly Op[]): Op[] {
  const hosts = new Set(ops.flatMap((op) => (op.stage === 'move' && op.kind === 'fit' ? [op.onto] : [])));
  const after = new Map<number, Op[]>();
  ops.forEach((op, at) => {
    if (op.kind !== 'fit' || op.isNew !== true || op.stage === 'move' || !hosts.has(op.part)) return;
    let last = ops.slice(0, at).findLastIndex(({ stage }) => stage === 'move');
    // a piece that was glued is pressed first
    while (ops[last + 1]?.name === 'press' || ops[last + 1]?.name === 'cure') last++;
    after.set(last, [...(after.get(last) ?? []), compareOp(op.part!, op)]);
  });
  return ops.flatMap((op, at) => [op, ...(after.get(at) ?? [])]);
}

/** A base that is replaced is never fitted: the new one is taken up before the first piece goes onto it. */
export function takeUpOp(base: string): Op {
  return procedureOp({
    name: 'take-up',
    part: base,
    seconds: TIMES.takeUp,
    stage: 'rebuild',
    why: 'All that came off goes onto the new one.',
    whyNotEarlier: 'Once the old one is bare.',
  });
}

/** Old and new compared, before the new one goes in. */
export function compareOp(part: string, { stage }: Op): Op {
  return procedureOp({
    name: 'compare',
    part,
    seconds: TIMES.compare,
    stage,
    why: 'What stayed on the old part is missed when it is closed.',
    whyNotEarlier: 'After everything has moved over.',
  });
}
