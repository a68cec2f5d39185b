import { jointById } from '../../model/device-map/index.ts';
import { notThere } from '../../job/rules/index.ts';
import type { JobState } from '../../job/state/index.ts';
import type { Op } from '../../planner/drafts/index.ts';
import { type Mechanism, SEATED } from '../../planner/holds/index.ts';
import { inspectOp } from '../../planner/plan/index.ts';

/** Nobody takes off what is not there, though a new one goes in for it. */
export function takesOffWhatIsNot({ map }: Mechanism, state: JobState): (op: Op) => boolean {
  const missing = notThere(state);
  return (op) => {
    if (missing.size === 0 || !['release', 'open', 'lift'].includes(op.kind)) return false;
    const about = op.part === undefined ? jointById(map, op.joint)!.holds : [op.part];
    return about.every((id) => missing.has(id));
  };
}

/** What differs from its map and is not taken off is looked at where it is. */
export function withDifferent(
  { deviations, device }: JobState,
  ops: readonly Op[],
  { part }: Mechanism,
): readonly Op[] {
  const seen = new Set(
    ops.flatMap((op) => (op.name === 'inspect' || (op.kind === 'fit' && op.isNew) ? [op.part!] : [])),
  );
  const here = [...deviations.different].filter((id) => !seen.has(id) && device.status[part.get(id)!] === SEATED);
  return [...here.map((id) => inspectOp(id, { stage: 'strip' })), ...ops];
}
