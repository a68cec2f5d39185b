import type { BenchEvent } from '@nibrel/core/job/events';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import type { Op } from '@nibrel/core/planner/drafts';
import { setUpBefore } from '@nibrel/core/planner/plan';
import { opLine } from '@nibrel/core/planner/words';
import type { Stretch } from '../ui/time-band.tsx';

/** A longer gap between two events is no work: the repair was left lying. */
const LONGEST_STEP_S = 1800;

/** What was done, as long as it took: from one event to the next, work and waiting each run together. */
export function pastStretches(events: readonly BenchEvent[]): Stretch[] {
  const runs: Stretch[] = [];
  events.forEach((event, index) => {
    const previous = events[index - 1];
    if (!previous) return;
    const seconds = (Date.parse(event.at) - Date.parse(previous.at)) / 1000;
    if (!(seconds > 0) || seconds > LONGEST_STEP_S) return;
    const kind = previous.type === 'timer' ? 'wait' : 'work';
    const last = runs.at(-1);
    if (last?.kind === kind) runs[runs.length - 1] = { ...last, seconds: last.seconds + seconds };
    else runs.push({ id: event.id, seconds, kind, when: 'done', title: kind === 'wait' ? 'waited' : 'done' });
  });
  return runs;
}

/** How much of the time that was worked and waited was over at a moment. */
export function secondsUntil(events: readonly BenchEvent[], at: string): number {
  const until = events.filter((event) => Date.parse(event.at) <= Date.parse(at));
  return secondsOf(pastStretches(until));
}

/** What is to come, by the plan: each operation with its change of tool or face, and the wait that follows it. The first is now. */
export function comingStretches(map: DeviceMap, ops: readonly Op[]): Stretch[] {
  const setUp = setUpBefore(ops);
  return ops.flatMap((op, index): Stretch[] => {
    const when = index === 0 ? 'now' : 'to-come';
    const title = opLine(map, op);
    const work: Stretch = { id: op.id, seconds: op.seconds + setUp[index]!, kind: 'work', when, title };
    return op.wait_s
      ? [work, { id: `${op.id} wait`, seconds: op.wait_s, kind: 'wait', when, title: `${title}: wait` }]
      : [work];
  });
}

export function secondsOf(stretches: readonly Stretch[], kind?: Stretch['kind']): number {
  return stretches.reduce((sum, each) => sum + (kind && each.kind !== kind ? 0 : each.seconds), 0);
}
