import type { Mechanism } from '../holds/index.ts';
import { TIMES } from './estimates.ts';
import { after, type Draft, procedureDraft } from './draft.ts';
import { opId } from './op-id.ts';
import type { Policy } from '../../model/policy/index.ts';

/**
 * The cell replaced and the pack's own management board kept: a school that is recorded, with its own gate and checks,
 * and always disclosed. How it is done is not told here.
 */
export function withTransplant(
  mechanism: Mechanism,
  drafts: readonly Draft[],
  replaced: ReadonlySet<number>,
  policy: Policy,
): Draft[] {
  const packs = policy.newBattery === 'cell-transplant' ? packsOf(mechanism, replaced) : [];
  return packs.reduce<Draft[]>(
    (all, part) => {
      const fitting = opId('fit', part);
      if (!all.some(({ op }) => op.id === fitting)) return all;
      const transplant = procedureDraft({
        name: 'transplant',
        part,
        seconds: TIMES.transplant,
        stage: 'move',
        after: [],
      });
      return [...all.map((draft) => (draft.op.id === fitting ? after(draft, [transplant.op.id]) : draft)), transplant];
    },
    [...drafts],
  );
}

/** Batteries that are replaced, by id. */
export function packsOf(mechanism: Mechanism, replaced: ReadonlySet<number>): string[] {
  return mechanism.isolation.cells.filter((cell) => replaced.has(cell)).map((cell) => mechanism.map.parts[cell]!.id);
}
