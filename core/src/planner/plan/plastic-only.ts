import type { Op } from '../drafts/index.ts';
import type { Mechanism } from '../holds/index.ts';
import type { Policy } from '../../model/policy/index.ts';

/** The first plug that is worked in each stage says which tools may come near it, where the school is plastic for ever. */
export function withPlasticOnly({ map, joint }: Mechanism, policy: Policy, ops: readonly Op[]): Op[] {
  if (policy.tools !== 'plastic') return [...ops];
  const said = new Set<Op['stage']>();
  return ops.map((op) => {
    const worked = op.kind === 'procedure' || op.joint === undefined ? undefined : map.joints[joint.get(op.joint)!];
    if (worked?.type !== 'connector' || said.has(op.stage)) return op;
    said.add(op.stage);
    return { ...op, isPlasticOnly: true };
  });
}
