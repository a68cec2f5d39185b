import { type DoneOp, partName } from '../plan/index.ts';
import type { Mechanism } from '../holds/index.ts';
import type { BenchEvent, DoneStep } from './events.ts';
import type { JobState } from './state.ts';

/**
 * Nothing of a closed device is opened before the bench is prepared; trays and cards, which come out first anyway, may.
 * What happened all the same is recorded with `anyway`, and then the gate is behind.
 */
export function notPrepared(mechanism: Mechanism, state: JobState, event: BenchEvent): string | null {
  if (!OPENS.has(event.type)) return null;
  const given = event as BenchEvent & { type: 'did' | 'screw' | 'heat-on' | 'edge' | 'solvent' };
  if (given.type === 'did' && given.data.anyway !== undefined) return null;
  let prepared = isPrepared(mechanism, state);
  const steps = given.type === 'did' ? given.data.steps : [releaseOf(given.data.joint)];
  for (const step of steps) {
    if (step.id === 'prepare') prepared = true;
    if (prepared || step.kind === 'procedure') continue;
    const id = step.part ?? mechanism.map.joints.find((each) => each.id === step.joint)?.holds[0];
    if (!comesOutFirst(mechanism, id)) {
      return `Not yet: ${id ? partName(mechanism.map, id) : step.id}. First prepare the bench, a few presses.`;
    }
  }
  return null;
}

/** What begins to open a device. */
const OPENS: ReadonlySet<string> = new Set(['did', 'screw', 'heat-on', 'edge', 'solvent']);

/** A screw that is laid, a bond that is warmed, an edge that is cut is the beginning of its joint's release. */
function releaseOf(joint: string): DoneStep {
  return { id: `release:${joint}`, kind: 'release', joint };
}

/** Is the gate behind: passed, or the device open already? */
export function isPrepared(mechanism: Mechanism, state: JobState): boolean {
  return state.steps.has('prepare') || state.done.some((op) => !comesOutFirst(mechanism, thingOf(mechanism, op)));
}

function thingOf(mechanism: Mechanism, op: DoneOp): string | undefined {
  return op.part ?? mechanism.map.joints.find((each) => each.id === op.joint)?.holds[0];
}

function comesOutFirst(mechanism: Mechanism, part: string | undefined): boolean {
  return mechanism.map.parts.find((each) => each.id === part)?.removeFirst === true;
}
