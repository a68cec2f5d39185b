import { jointById } from '../../model/device-map/index.ts';
import { asItIs, failedTests, type JobState, type Suspect, suspectsOf } from '../../job/state/index.ts';
import { explain, nameOf, searchOrder } from '../explain/index.ts';
import type { Mechanism } from '../../planner/holds/index.ts';
import type { Budget } from '../../planner/order/index.ts';
import { planRepair } from '../../planner/plan/index.ts';
import { PlanError, type Target } from '../../planner/search/index.ts';

/** What it costs to go at a suspect once more, from where the device stands and from the closed device, in seconds. */
export interface SuspectCost extends Suspect {
  readonly now_s: number | null;
  readonly afterSealing_s: number | null;
  /** seals that have to be renewed for it after sealing */
  readonly seals: number;
  /** how likely it is at fault, by all that was tried and done */
  readonly p: number;
}

/** A function that failed, with what may be the cause, the likeliest first. */
export interface FailedTest {
  readonly function: string;
  readonly suspects: readonly SuspectCost[];
  /** the function whose trying tells most, where one tells anything */
  readonly tryNext: { readonly function: string; readonly bits: number } | null;
}

/** Less than this is not worth a test (guess). */
const TELLING_BITS = 0.05;

/** Every suspect takes two plans: so many are worked out. */
const MOST_SUSPECTS = 4;

/** Suspects of what failed, the one first whose look again costs least for its chance. */
export function failedWithCosts(mechanism: Mechanism, state: JobState, budget: Budget): FailedTest[] {
  const failed = failedTests(mechanism.map, state);
  if (failed.length === 0) return [];
  const { marginals, nextTests } = explain(mechanism, state);
  const chance = (suspect: Suspect) => marginals[nameOf(suspect)] ?? 0;
  const [next] = nextTests.filter(({ bits }) => bits >= TELLING_BITS);
  return failed.map((id) => {
    const suspects = suspectsOf(mechanism, state, id)
      .toSorted((a, b) => chance(b) - chance(a))
      .slice(0, MOST_SUSPECTS)
      .map((suspect) => withCost(mechanism, state, suspect, chance(suspect), budget));
    const looks = suspects.map((suspect) => ({ suspect, p: suspect.p, cost_s: (suspect.now_s ?? NEVER_S) + RETRY_S }));
    return { function: id, suspects: searchOrder(looks).map(({ suspect }) => suspect), tryNext: next ?? null };
  });
}

/** Trying it once more (guess), and what can't be reached from here. */
const RETRY_S = 20;
const NEVER_S = 100_000;

function withCost(mechanism: Mechanism, state: JobState, suspect: Suspect, p: number, budget: Budget): SuspectCost {
  const { map } = mechanism;
  const found = asItIs(mechanism, state);
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
    p,
    now_s: here && anyhow ? Math.max(0, Math.round(here.seconds - anyhow.seconds)) : null,
    afterSealing_s: closed ? Math.round(closed.seconds) : null,
    seals: closed?.cut ?? 0,
  };
}

function isSeal(map: Mechanism['map'], id: string): boolean {
  const joint = jointById(map, id);
  return joint?.type === 'bond' && joint.style === 'perimeter';
}
