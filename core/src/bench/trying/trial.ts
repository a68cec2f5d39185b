import { type Op, opId, showable, testedFunctions } from '../../planner/drafts/index.ts';
import { isDead, judge, type Mechanism } from '../../planner/holds/index.ts';
import type { DoneStep } from '../../job/events/index.ts';
import type { JobState } from '../../job/state/index.ts';

/** A device tried in the middle of the work: what makes it alive for that, and dead again after it. */
export interface TrialNow {
  /** functions that this repair may have touched and that can be shown as it lies */
  readonly functions: readonly string[];
  /** plugs that make it alive, and power on; null where it is alive */
  readonly on: readonly DoneStep[] | null;
  /** power off, and its plugs out again; null where it is dead, or closed over them */
  readonly off: readonly DoneStep[] | null;
}

/**
 * What can be tried as the device lies, any number of times; null where nothing can be shown: it is dead and can't be made alive
 * from here, or nothing that was touched is in its place.
 * @param ops what is ahead
 */
export function trialNow(mechanism: Mechanism, state: JobState, ops: readonly Op[]): TrialNow | null {
  const { map } = mechanism;
  const { device } = state;
  const isolating = map.joints.filter((each) => each.type === 'connector' && each.isolates !== undefined);
  const missing = isolating.filter(({ id }) => device.released[mechanism.joint.get(id)!]);
  const alone = isolating.filter((each) => each.type === 'connector' && each.isolates === 'alone');
  const dead = isDead(mechanism, device);
  // a cell that lies in by itself goes in by the plan
  if (dead && isolating.length === 0) return null;
  const makes = missing.map(({ id }) => mechanism.joint.get(id)!);
  if (dead && makes.some((joint) => judge(mechanism, device, { kind: 'make', joint }).verdict !== 'legal')) return null;
  const ids = new Set(missing.map(({ id }) => id));
  const later = ops.filter(({ kind, joint }) => !(kind === 'make' && ids.has(joint!)));
  const away = later.filter(({ kind }) => kind === 'fit' || kind === 'close' || kind === 'make');
  const functions = showable(mechanism, testedFunctions(mechanism, state.done), away);
  if (functions.length === 0) return null;
  const plugs = (alone.length > 0 ? alone : isolating).map(({ id }) => id);
  // what is closed over its plug is not opened for a trial
  const inReach = plugs.every((id) => {
    const joint = mechanism.joint.get(id)!;
    return judge(mechanism, device, { kind: 'release', joint }).verdict === 'legal';
  });
  return {
    functions,
    on: dead ? [...missing.map(({ id }) => step('make', id)), power('power-on')] : null,
    off: dead || !inReach ? null : [power('power-off'), ...plugs.map((id) => step('release', id))],
  };
}

function step(kind: 'make' | 'release', joint: string): DoneStep {
  return { id: opId(kind, joint), kind, joint };
}

/** A power-up of a trial is none of the plan's own. */
function power(name: 'power-on' | 'power-off'): DoneStep {
  return { id: opId(name, 'trial'), kind: 'procedure', name, again: true };
}
