import type { Op } from '../../planner/drafts/index.ts';
import type { Mechanism } from '../../planner/holds/index.ts';
import { asItIs, type JobState, targetsAsItIs } from '../../job/state/index.ts';
import { isDrying, targetsForNow } from '../../job/rules/index.ts';
import type { Budget } from '../../planner/order/index.ts';
import { type OwnTime, type Plan, planRepair } from '../../planner/plan/index.ts';
import { WET_OPS, withFrameMended, withTape } from '../../workshop/prepare/index.ts';
import { withAdded } from './added.ts';
import { type BeforeOpening, beforeOpening } from './before-opening.ts';
import { withExtras } from './extras.ts';
import { takesOffWhatIsNot, withDifferent } from './not-as-mapped.ts';
import { type FailedTest, failedWithCosts } from './failed.ts';
import {
  aired,
  charged,
  tapesFor,
  withBaseTakenUp,
  withComparison,
  withFilmsOff,
  withGlassFilmOff,
  withTapesOff,
  withTests,
} from './owed.ts';
import { withPressedHome } from './press-home.ts';

/** What is still to be done: the plan from the job's present state, less the procedures that were done already. */
export interface Ahead extends BeforeOpening {
  readonly plan: Plan;
  /** functions that failed, which keep it from being closed */
  readonly failed: readonly FailedTest[];
}

/** @throws PlanError where the targets can't be reached from here */
export function planAhead(
  mechanism: Mechanism,
  state: JobState,
  budget: Budget,
  times: readonly OwnTime[] = [],
): Ahead {
  const { map } = mechanism;
  const drying = isDrying(state);
  const found = asItIs(mechanism, state);
  const targets = targetsAsItIs(found, targetsForNow(mechanism, state));
  const plan = planRepair({ ...found, targets, times }, budget);
  const isGone = takesOffWhatIsNot(mechanism, state);
  const once = (op: Op) => (op.kind !== 'procedure' || !state.steps.has(op.id)) && !isGone(op);
  const back = withBaseTakenUp(mechanism, state, plan.rebuild);
  const planned = drying
    ? [...plan.strip, ...WET_OPS]
    : withExtras(state, withDifferent(state, withComparison(state, [...plan.strip, ...back]), mechanism));
  const before = beforeOpening(mechanism, state, plan, drying);
  const taped = withTape(map, planned.filter(once), tapesFor(map, state).filter(once));
  const mended = withFrameMended(map, taped, state.damage, (part) => comesOff(plan, state, part)).filter(once);
  const firstBack = mended.find(({ id }) => plan.rebuild.some((op) => op.id === id))?.id;
  const passes: readonly Pass[] = [
    (ops) => withPressedHome(map, state, ops, firstBack),
    (ops) => withFilmsOff(mechanism, state, ops),
    (ops) => withGlassFilmOff(state, ops),
    (ops) => withTapesOff(map, state, ops),
    (ops) => withTests(mechanism, state, plan, ops),
  ];
  const owed = drying ? taped : passes.reduce<readonly Op[]>((ops, pass) => pass(ops), mended);
  const failed = failedWithCosts(mechanism, state, budget);
  return {
    ...before,
    plan,
    failed,
    ops: [...before.ops, ...charged(map, aired(withAdded(map, owed, state), state), state)],
  };
}

/** One thing that is put in where it belongs. */
type Pass = (ops: readonly Op[]) => readonly Op[];

/** Is a part off already, or will it be? */
function comesOff({ strip }: Plan, { done }: JobState, part: string): boolean {
  const isOff = (op: { readonly kind: string; readonly part?: string }) => op.kind === 'lift' && op.part === part;
  return done.some(isOff) || strip.some(isOff);
}
