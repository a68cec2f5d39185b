import type { Op } from '../../planner/drafts/index.ts';
import type { DoneStep } from '../../job/events/index.ts';

/** A plan's operation as the step that an event records. */
export function doneStep(op: Op): DoneStep {
  const { id, kind, joint, part, onto, staysOpen, name, isNew, isRest, isUnsealed } = op;
  return {
    id,
    kind,
    ...(joint === undefined ? {} : { joint }),
    ...(part === undefined ? {} : { part }),
    ...(onto === undefined ? {} : { onto }),
    ...(staysOpen ? { staysOpen } : {}),
    ...(name === undefined ? {} : { name }),
    ...(isNew ? { new: true } : {}),
    ...(isRest ? { isRest } : {}),
    ...(isUnsealed ? { isUnsealed } : {}),
  };
}
