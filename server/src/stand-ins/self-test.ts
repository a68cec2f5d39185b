import type { Mechanism } from '@nibrel/core/planner/holds';
import { type JobState, suspectsOf } from '@nibrel/core/job/state';
import { lostFunctions } from '@nibrel/core/planner/words';

/** How a device under test answers for one of its functions. */
export interface SelfTestReading {
  readonly function: string;
  readonly result: 'works' | 'fails';
  readonly isLast: boolean;
  readonly simulated: true;
}

export const SELF_TEST_STEP_MS = 450;

/**
 * What a made-up device can't do, as it lies: what is served by a plug that is not home. Those are the ones of whose click nobody
 * was sure, and the faults that are put in by name until the plug is pressed again. An old fault stays as long as nothing that serves
 * it was touched; what this repair loses is lost.
 * @param faults ids of plugs that were pressed home badly
 */
export function brokenFunctions(mechanism: Mechanism, state: JobState, faults: ReadonlySet<string>): Set<string> {
  const { map } = mechanism;
  const lost = lostFunctions(map, state.targets);
  const isOld = (id: string) =>
    state.tests.some((each) => each.function === id && each.stage === 'intake' && each.result === 'fails');
  const broken = map.functions.filter(({ id }) => {
    const touched = suspectsOf(mechanism, state, id);
    const isBad = touched.some(
      ({ joint, unsure, touched: times }) =>
        unsure || (faults.has(joint ?? '') && times <= 2 && !state.steps.has(`press-home:${joint}`)),
    );
    return isBad || lost.has(id) || (isOld(id) && touched.length === 0);
  });
  return new Set(broken.map(({ id }) => id));
}

/** The answers of a self-test, one function after the other. */
export class SelfTestStandIn {
  readonly #functions: readonly string[];
  readonly #broken: ReadonlySet<string>;

  constructor(functions: readonly string[], broken: ReadonlySet<string>) {
    this.#functions = functions;
    this.#broken = broken;
  }

  reading(step: number): SelfTestReading | null {
    const tried = this.#functions[step];
    if (tried === undefined) return null;
    const isLast = step === this.#functions.length - 1;
    return { function: tried, result: this.#broken.has(tried) ? 'fails' : 'works', isLast, simulated: true };
  }
}
