import { asFound, failedTests, type JobState, type Suspect, suspectsOf } from '../job/index.ts';
import type { Mechanism } from '../holds/index.ts';
import type { Budget } from '../order/index.ts';
import { planRepair } from '../plan/index.ts';
import { PlanError, type Target } from '../search/index.ts';

/** What it costs to go at a suspect once more, from where the device stands and from the closed device, in seconds. */
export interface SuspectCost extends Suspect {
  readonly now_s: number | null;
  readonly afterSealing_s: number | null;
  /** seals that have to be renewed for it after sealing */
  readonly seals: number;
}

/** A function that failed, with what may be the cause, the likeliest first. */
export interface FailedTest {
  readonly function: string;
  readonly suspects: readonly SuspectCost[];
}

/** Every suspect takes two plans: so many are worked out. */
const MOST_SUSPECTS = 4;

export function failedWithCosts(mechanism: Mechanism, state: JobState, budget: Budget): FailedTest[] {
  return failedTests(state).map((id) => ({
    function: id,
    suspects: suspectsOf(mechanism, state, id)
      .slice(0, MOST_SUSPECTS)
      .map((suspect) => withCost(mechanism, state, suspect, budget)),
  }));
}

function withCost(mechanism: Mechanism, state: JobState, suspect: Suspect, budget: Budget): SuspectCost {
  const { map } = mechanism;
  const found = asFound(mechanism, state);
  const target: Target = suspect.joint === undefined ? { remove: suspect.part! } : { reach: suspect.joint };
  const took = (targets: readonly Target[], done: JobState['done']) => {
    try {
      const { seconds, strip } = planRepair({ ...found, targets, done }, budget);
      const cut = strip.filter((op) => op.kind === 'release' && isSeal(map, op.joint!)).length;
      return { seconds: seconds.strip + seconds.rebuild + seconds.waiting, cut };
    } catch (error) {
      if (error instanceof PlanError) return null;
      throw error;
    }
  };
  const here = took([target], found.done);
  const anyhow = took([], found.done);
  const closed = took([target], []);
  return {
    ...suspect,
    now_s: here && anyhow ? Math.max(0, Math.round(here.seconds - anyhow.seconds)) : null,
    afterSealing_s: closed ? Math.round(closed.seconds) : null,
    seals: closed?.cut ?? 0,
  };
}

function isSeal(map: Mechanism['map'], id: string): boolean {
  const joint = map.joints.find((each) => each.id === id);
  return joint?.type === 'bond' && joint.style === 'perimeter';
}
