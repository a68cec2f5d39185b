import type { Op } from '../../planner/drafts/index.ts';

/** The operation that a press on a part or joint means: the next that frees it, or that puts it back. */
export function opFor(thing: string, ops: readonly Op[]): Op | undefined {
  const isAbout = (op: Op) => op.part === thing || op.joint === thing;
  const frees = ops.find(
    (op) =>
      isAbout(op) &&
      (op.kind === 'lift' || (op.kind === 'open' && !ops.some((each) => each.kind === 'lift' && each.part === thing))),
  );
  return frees ?? ops.find((op) => isAbout(op) && op.kind !== 'procedure');
}

/**
 * All that must have been done for this operation to be done, in the order of the plan, itself last; as far as a soak,
 * whose drops have to be told before anything goes on.
 */
export function doneUntil(op: Op, ops: readonly Op[]): Op[] {
  const needed = new Set([...op.notBefore, op.id]);
  const all = ops.slice(0, ops.indexOf(op) + 1).filter((each) => needed.has(each.id));
  const soak = all.findIndex((each) => each.name === 'soak');
  return soak < 0 ? all : all.slice(0, soak);
}
