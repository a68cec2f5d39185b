import type { BenchEvent, EventType } from './events.ts';

/** Events that are said beside the work, as notes: an undo skips them and takes back the last work. */
const ASIDE: ReadonlySet<EventType> = new Set<EventType>([
  'note',
  'undo',
  'pause',
  'resume',
  'stop',
  'clear',
  'end',
  'retract',
  'heat-reading',
]);

/** Heat and solvent can't be undone: the device is warm and the vapour is in the air whatever the record says. */
const PHYSICS: ReadonlySet<EventType> = new Set<EventType>(['heat-on', 'heat-off', 'solvent', 'aired']);

/** Can this be taken back by an undo? */
function isUndoable(event: BenchEvent): boolean {
  return !ASIDE.has(event.type) && !PHYSICS.has(event.type);
}

/** The event that an undo would take back: the last that counts, where that can be taken back at all. */
export function lastToUndo(standing: readonly BenchEvent[]): BenchEvent | null {
  const last = standing.findLast((each) => !ASIDE.has(each.type));
  return last && isUndoable(last) ? last : null;
}

/** Why nothing can be undone where something was done last. */
export function undoProblem(standing: readonly BenchEvent[], id: string): string | null {
  const last = standing.findLast((each) => !ASIDE.has(each.type));
  if (!last) return 'There is nothing to undo.';
  if (!isUndoable(last))
    return 'Heat and solvent are not undone: what they did to the device stays. Tell what came after.';
  return last.id === id ? null : 'Only the last thing done can be undone; something else came after it.';
}
