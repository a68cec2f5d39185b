import { afterBy, type Draft, physicalId } from '../drafts/index.ts';
import { isLater, STRIP_PHASES } from '../sequence/index.ts';
import type { Ruled } from './careful.ts';

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
    return STRIP_PHASES.reduce(
      (each, phase) =>
        isLater(phases.of[index]!, phase)
          ? afterBy(
              each,
              phase,
              ids.filter((_, other) => phases.of[other] === phase && !precedence.before[other]!.has(index)),
            )
          : each,
      draft,
    );
  });
}
