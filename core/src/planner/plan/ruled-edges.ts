import { afterBy, type Draft, physicalId } from '../drafts/index.ts';
import type { OrderRule } from '../sequence/index.ts';
import type { Ruled } from './careful.ts';

const PHASE_RULES: readonly OrderRule[] = ['removed-first', 'dead-first', 'display-off'];

/** The phases of the strip-down as what has to come before what, for orders that are searched. */
export function ruledEdges(drafts: readonly Draft[], { chosen, phases }: Ruled): Draft[] {
  const { mechanism, precedence } = chosen;
  const ids = precedence.ops.map((op) => physicalId(mechanism, op) as string);
  const number = new Map(ids.map((id, index) => [id, index]));
  const usesUp = (index: number) => {
    const op = precedence.ops[index]!;
    return op.kind === 'lift' && mechanism.map.parts[op.part]!.reuse === 'single-use';
  };
  return drafts.map((draft) => {
    const index = number.get(draft.op.id);
    if (index === undefined || usesUp(index)) return draft;
    return PHASE_RULES.reduce(
      (each, rule, phase) =>
        phases.of[index]! > phase
          ? afterBy(
              each,
              rule,
              ids.filter((_, other) => phases.of[other] === phase && !precedence.before[other]!.has(index)),
            )
          : each,
      draft,
    );
  });
}
