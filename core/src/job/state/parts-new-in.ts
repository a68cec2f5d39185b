import { opId } from '../../planner/drafts/index.ts';
import type { Mechanism } from '../../planner/holds/index.ts';
import type { JobState } from './job-state.ts';

/** Parts that went in as new ones, in their order; a base is never fitted: it was taken up. */
export function partsNewIn({ map, base }: Mechanism, { done, steps }: JobState): string[] {
  const fitted = done.flatMap((op) => (op.kind === 'fit' && op.new ? [op.part!] : []));
  const { id } = map.parts[base]!;
  return steps.has(opId('take-up', id)) ? [id, ...fitted] : fitted;
}
