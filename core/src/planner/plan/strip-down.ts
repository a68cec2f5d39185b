import { wrong } from '../../model/refusal/index.ts';
import { type Draft, solventLast, stripDrafts, withRules } from '../drafts/index.ts';
import {
  applied,
  copyOf,
  type DeviceState,
  liveJoints,
  type Mechanism,
  OFF,
  type PhysicalOp,
  planRules,
  type Rules,
} from '../holds/index.ts';
import { type Budget } from '../order/index.ts';
import type { Policy } from '../../model/policy/index.ts';
import {
  type Goal,
  goalOf,
  inWords,
  leastSets,
  noWork,
  PlanError,
  isComplete,
  precedenceOf,
  schoolFor,
  type Target,
  withoutVain,
  type WorkSet,
} from '../search/index.ts';
import type { OrderRule } from '../sequence/index.ts';
import type { Warning } from '../words/index.ts';
import { arrange, leastSecondsOf } from './arrange.ts';
import { inCarefulOrder, ruled } from './careful.ts';
import { costAsPlanned } from './costs.ts';
import { brokenRules } from './broken-rules.ts';
import { isolatingIds, withIsolationAfterLive } from './isolating.ts';
import { placed } from './placed.ts';
import type { Present } from './present.ts';
import { ruledEdges } from './ruled-edges.ts';

/** The strip-down of a plan: what is done, in which order, and where that leads. */
export interface StripDown {
  readonly drafts: readonly Draft[];
  readonly order: readonly string[];
  readonly ruledBy: ReadonlyMap<string, OrderRule>;
  /** no legal order of these operations takes less */
  readonly leastSeconds: number;
  readonly state: DeviceState;
  readonly ops: readonly PhysicalOp[];
  readonly live: ReadonlySet<number>;
  readonly warnings: readonly Warning[];
}

/** @throws PlanError where no sequence of operations reaches the targets */
export function stripDown(
  mechanism: Mechanism,
  present: Present,
  targets: readonly Target[],
  replaced: ReadonlySet<number>,
  policy: Policy,
  display: 'taken-off' | 'on-flexes',
  budget: Budget,
): StripDown {
  const start = present.state;
  const live = liveJoints(mechanism, start);
  const goal = withIsolationAfterLive(mechanism, start, goalOf(mechanism, start, targets, planRules(live)), live);
  const isBare = targets.some((target) => 'full' in target);
  // nothing is in vain where all comes off
  const lessVain = (set: WorkSet, rules: Rules, reached: Goal = goal): WorkSet => {
    const less = isBare ? set : withoutVain(mechanism, start, reached, rules, set, present.refitted);
    return isComplete(mechanism, start, less, rules) ? less : set;
  };
  const asked = leastSets(mechanism, start, goal, planRules(live), noWork(mechanism), present);
  const least = lightest(asked.map((set) => lessVain(set, planRules(live))));
  if (least.length === 0) {
    const names = targets.map((target) => inWords(mechanism, target)).join(', ');
    throw new PlanError(
      wrong('targets', `No sequence of operations can ${names}.`, 'Check the map, or choose another target.'),
    );
  }
  const candidates = least.map((set) => {
    const school = schoolFor(mechanism, start, set, display, policy, live);
    const grown = leastSets(mechanism, start, goal, school.rules, school.seed, present).find((each) =>
      isComplete(mechanism, start, each, school.rules),
    );
    const whole =
      grown && grown.weight > set.weight ? lessVain(grown, school.rules, demanded(set, school.seed, goal)) : grown;
    return whole
      ? { set: whole, rules: school.rules, asWished: true }
      : { set, rules: planRules(live), asWished: false };
  });
  const share = { ...budget, limitMs: budget.limitMs / (2 * candidates.length) };
  const strips = distinct(candidates).map((candidate) => ({
    ...candidate,
    ...ordered(mechanism, present, candidate.set, candidate.rules, policy, live, replaced, share),
  }));
  const best = strips.reduce((a, b) => (b.seconds < a.seconds ? b : a));
  const ops = best.order.flatMap((id) => best.physical.get(id) ?? []);
  return {
    ...best,
    state: ops.reduce((state, op) => applied(mechanism, state, op), copyOf(start)),
    ops,
    live,
    warnings: [...(best.asWished ? [] : [NOT_AS_WISHED]), ...brokenRules(mechanism, start, best.ruled)],
  };
}

/** Reached only when the parts are off, too, that a school asks for on top of a set. */
function demanded(set: WorkSet, seed: WorkSet, goal: Goal): Goal {
  const parts = [...seed.parts.keys()].filter((part) => seed.parts[part] === OFF && set.parts[part] !== OFF);
  return (state) => {
    const left = parts.filter((part) => state.status[part] !== OFF);
    return [...goal(state), ...left.map((part) => ({ options: [{ kind: 'lift', part } as const] }))];
  };
}

const NOT_AS_WISHED: Warning = {
  code: 'policy',
  text: 'This device can not be taken apart with the policy as set; the plan leaves it where it must.',
};

function lightest(sets: readonly WorkSet[]): WorkSet[] {
  const least = Math.min(...sets.map(({ weight }) => weight));
  return sets.filter(({ weight }) => weight === least);
}

/** The schools add the same to several least sets. */
function distinct<T extends { readonly set: WorkSet }>(candidates: readonly T[]): T[] {
  const key = ({ set }: T) => `${set.joints.join()} ${set.parts.join()}`;
  return [...new Map(candidates.map((each) => [key(each), each])).values()];
}

function ordered(
  mechanism: Mechanism,
  present: Present,
  set: WorkSet,
  rules: Rules,
  policy: Policy,
  live: ReadonlySet<number>,
  replaced: ReadonlySet<number>,
  budget: Budget,
) {
  const start = present.state;
  const given = precedenceOf(mechanism, start, set, rules);
  const by = ruled(mechanism, start, given, rules, policy);
  const drafts = stripDrafts(mechanism, start, by.precedence, policy, live, by.blocks, replaced);
  const physical = new Map<string, PhysicalOp | undefined>(drafts.map(({ op, task }) => [op.id, task.physical]));
  const bound = leastSecondsOf(drafts);
  const common = { drafts, physical, ruled: by };
  if (policy.order === 'fewest-changes') {
    const bounded = solventLast(ruledEdges(drafts, by));
    const tasks = withRules(bounded.map(({ task }) => task));
    const found = arrange(mechanism, start, tasks, isolatingIds(mechanism, set), rules, budget);
    const ruledBy = new Map<string, OrderRule>();
    return { ...common, order: found.order, ruledBy, seconds: found.seconds, leastSeconds: found.lowerBoundSeconds };
  }
  const { order, ruledBy } = inCarefulOrder(by, live, present.history);
  const ids = drafts.flatMap(({ op, task }) => (task.physical ? [op.id as string] : []));
  const whole = placed(
    drafts,
    order.map((index) => ids[index]!),
  );
  const opOf = new Map(drafts.map(({ op }) => [op.id as string, op]));
  const { seconds } = costAsPlanned(whole.map((id) => opOf.get(id)!));
  const reasons = new Map(order.flatMap((index, at) => (ruledBy[at] ? [[ids[index]!, ruledBy[at]] as const] : [])));
  return { ...common, order: whole, ruledBy: reasons, seconds, leastSeconds: bound };
}
