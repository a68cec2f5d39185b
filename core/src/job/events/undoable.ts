import { type Problem, wrong } from '../../model/refusal/index.ts';
import { type BenchEvent, rowOf } from './events.ts';

/** The last event that an undo does not pass over as said beside the work. */
function lastOfWork(inForce: readonly BenchEvent[]): BenchEvent | undefined {
  return inForce.findLast(({ type }) => rowOf(type) && rowOf(type)!.undo !== 'passes-over');
}

/** The event that an undo would take back: the last that counts, where that can be taken back at all. */
export function lastToUndo(inForce: readonly BenchEvent[]): BenchEvent | null {
  const last = lastOfWork(inForce);
  return last && rowOf(last.type)!.undo === 'takes-back' ? last : null;
}

/** Why nothing can be undone where something was done last. */
export function undoProblem(inForce: readonly BenchEvent[], id: string): Problem | null {
  const last = lastOfWork(inForce);
  if (!last) return wrong('', 'There is nothing to undo.');
  if (rowOf(last.type)!.undo === 'stops-at')
    return wrong('', 'Heat and solvent are not undone: what they did to the device stays.', 'Tell what came after.');
  return last.id === id ? null : wrong('', 'Only the last thing done can be undone; something else came after it.');
}
