import type { Op } from '../../planner/drafts/index.ts';
import { type Mechanism, SEATED } from '../../planner/holds/index.ts';
import { asFound, type JobState, targetsFound } from '../../job/state/index.ts';
import { isDrying, notThere, targetsForNow } from '../../job/rules/index.ts';
import type { Budget } from '../../planner/order/index.ts';
import { inspectOp, type OwnTime, type Plan, planRepair } from '../../planner/plan/index.ts';
import { WET_OPS, withFrameMended, withTape } from '../../workshop/prepare/index.ts';
import { withAdded } from './added.ts';
import { type BeforeOpening, beforeOpening } from './before-opening.ts';
import { withExtras } from './extras.ts';
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
  const found = asFound(mechanism, state);
  const targets = targetsFound(found, targetsForNow(mechanism, state));
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
  const owed = drying
    ? taped
    : withTests(
        mechanism,
        state,
        plan,
        withTapesOff(
          map,
          state,
          withGlassFilmOff(state, withFilmsOff(mechanism, state, withPressedHome(map, state, mended, firstBack))),
        ),
      );
  const failed = failedWithCosts(mechanism, state, budget);
  return {
    ...before,
    plan,
    failed,
    ops: [...before.ops, ...charged(map, aired(withAdded(map, owed, state), state), state)],
  };
}

/** Nobody takes off what is not there, though a new one goes in for it. */
function takesOffWhatIsNot({ map }: Mechanism, state: JobState): (op: Op) => boolean {
  const missing = notThere(state);
  return (op) => {
    if (missing.size === 0 || !['release', 'open', 'lift'].includes(op.kind)) return false;
    const about = op.part === undefined ? map.joints.find(({ id }) => id === op.joint)!.holds : [op.part];
    return about.every((id) => missing.has(id));
  };
}

/** What differs from its map and is not taken off is looked at where it is. */
function withDifferent({ found, device }: JobState, ops: readonly Op[], { part }: Mechanism): readonly Op[] {
  const seen = new Set(
    ops.flatMap((op) => (op.name === 'inspect' || (op.kind === 'fit' && op.isNew) ? [op.part!] : [])),
  );
  const here = [...found.different].filter((id) => !seen.has(id) && device.status[part.get(id)!] === SEATED);
  return [...here.map((id) => inspectOp(id, { stage: 'strip' })), ...ops];
}

/** Is a part off already, or will it be? */
function comesOff({ strip }: Plan, { done }: JobState, part: string): boolean {
  const isOff = (op: { readonly kind: string; readonly part?: string }) => op.kind === 'lift' && op.part === part;
  return done.some(isOff) || strip.some(isOff);
}
