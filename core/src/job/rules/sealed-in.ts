import { type Problem, wrong } from '../../model/refusal/index.ts';
import { opId } from '../../planner/drafts/index.ts';
import { isSelfParting, jointById } from '../../model/device-map/index.ts';
import { type Mechanism, OFF } from '../../planner/holds/index.ts';
import type { BenchEvent, DoneStep } from '../events/index.ts';
import { type JobState, type PutOn, putOn } from '../state/index.ts';

/**
 * Why a step is refused that would seal in what was put on for the work: a film under what closes over it, the liner of a
 * seal, picks in a seam. What happened anyway is taken, and stays in the ledger.
 */
export function sealsIn(mechanism: Mechanism, state: JobState, event: BenchEvent): Problem | null {
  if (event.type !== 'did' || event.data.anyway !== undefined) return null;
  const on = putOn(mechanism.map, state);
  const takenOff = new Set<string>();
  for (const step of event.data.steps) {
    const left = on.find((each) => !takenOff.has(offOf(each)) && isSealedBy(mechanism, state, each, step));
    if (left) return wrong('', `${left.text} would be sealed in.`, 'Take it off first, or say how it happened anyway.');
    takenOff.add(step.id);
  }
  return null;
}

/** The step that takes it off. */
function offOf({ id }: PutOn): string {
  return id.replace(/^film:/, 'film-off:').replace(/^lay:/, 'liner-off:');
}

function isSealedBy({ map, part }: Mechanism, { device }: JobState, { id, kind }: PutOn, step: DoneStep): boolean {
  const thing = id.slice(id.indexOf(':') + 1);
  const isDown = step.kind === 'close' || (step.kind === 'fit' && !step.staysOpen);
  switch (kind) {
    case 'film': {
      const covered = map.parts.find((each) => opId('film', each.id) === id);
      if (!covered || !isDown || device.status[part.get(covered.id)!] === OFF) return false;
      return covered.under?.some((each) => 'part' in each && each.part === step.part) ?? false;
    }
    case 'liner':
    case 'pick': {
      const bond = jointById(map, thing)!;
      if (step.kind === 'make') return step.joint === thing;
      return isDown && isSelfParting(bond) && bond.holds.includes(step.part!);
    }
    default:
      return false;
  }
}
