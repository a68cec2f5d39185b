import type { DeviceMap } from '../device-map/index.ts';
import {
  applied,
  assembled,
  copyOf,
  type DeviceState,
  liveJoints,
  type Mechanism,
  mechanismOf,
  type PhysicalOp,
} from '../holds/index.ts';
import { type Budget } from '../order/index.ts';
import { arrange, arrangeBack } from './arrange.ts';
import {
  goalOf,
  leastSets,
  movesOf,
  moveWork,
  precedenceOf,
  schoolFor,
  checkTargets,
  inWords,
  PlanError,
  type Target,
  noWork,
} from '../search/index.ts';
import {
  type Draft,
  type Op,
  withProving,
  rebuildDrafts,
  wayBack,
  stripDrafts,
  withTransplant,
} from '../drafts/index.ts';
import { type Policy, settled } from '../policy/index.ts';
import { type DoneOp, openTargets, type Present, presentState } from './present.ts';
import { explained, replacementWarnings, transplantWarnings, type Warning, workWarnings } from '../words/index.ts';
import { type Consumable, consumablesOf, leftOver, type ScrewLine, screwLines, toolsOf } from './supplies.ts';
import { costAsPlanned, FLEX_RISK_S, standingFlexes } from './costs.ts';
import { isolatingIds, withIsolationAfterLive } from './isolating.ts';
import { afterMoves, takeOffDrafts, withPlaces } from './moving-over.ts';

export interface PlanRequest {
  readonly map: DeviceMap;
  readonly targets: readonly Target[];
  readonly policy?: Partial<Policy>;
  readonly done?: readonly DoneOp[];
}

/** A plan as in docs/http.md, compute/plan. */
export interface Plan {
  readonly strip: readonly Op[];
  readonly rebuild: readonly Op[];
  readonly moveOver: readonly string[];
  readonly seconds: { readonly strip: number; readonly rebuild: number; readonly waiting: number };
  readonly optimal: boolean;
  readonly lowerBoundSeconds: number;
  readonly tools: readonly string[];
  readonly screws: readonly ScrewLine[];
  readonly consumables: readonly Consumable[];
  readonly leftOver: readonly { readonly fastener: string; readonly count: number }[];
  readonly warnings: readonly Warning[];
  /** how the display is kept while working, where the policy left it open */
  readonly display: 'taken-off' | 'on-flexes';
  readonly toolChanges: number;
  readonly flips: number;
}

/**
 * Plans a repair from any state: the least set that reaches the targets, in an order of least cost, and the way back.
 * @throws PlanError naming the field, where a target or a done operation can't be understood or never be reached
 */
export function planRepair(request: PlanRequest, budget: Budget): Plan {
  const { policy, unknown } = settled(request.policy);
  const mechanism = mechanismOf(request.map);
  const present = presentState(mechanism, request.done ?? []);
  const asides = unknown.map((key): Warning => ({
    code: 'policy',
    text: `The school given for “${key}” is not known here; the plan goes by the default.`,
  }));
  checkTargets(mechanism, request.targets);
  const targets = openTargets(request.targets, present.renewed);
  // what a new part has no place for stays so once it is in
  const lacking = lackingOf(mechanism, request.targets);

  const schools = policy.display === 'auto' ? (['taken-off', 'on-flexes'] as const) : [policy.display];
  const share = { ...budget, limitMs: budget.limitMs / schools.length };
  const plans = schools.map((display) =>
    planWith(
      mechanism,
      { ...present, warnings: [...present.warnings, ...asides] },
      targets,
      lacking,
      policy,
      display,
      share,
    ),
  );
  return plans.reduce((best, each) => (each.charge < best.charge ? each : best)).plan;
}

function lackingOf(mechanism: Mechanism, targets: readonly Target[]): ReadonlySet<number> {
  const ids = targets.flatMap((target) => ('replace' in target ? (target.newLacks ?? []) : []));
  return new Set(ids.map((id) => mechanism.joint.get(id)!));
}

/** A plan for one way of keeping the display, with its cost and risk charge in seconds. */
function planWith(
  mechanism: Mechanism,
  present: Present,
  targets: readonly Target[],
  lacking: ReadonlySet<number>,
  policy: Policy,
  display: 'taken-off' | 'on-flexes',
  budget: Budget,
): { plan: Plan; charge: number } {
  const { map } = mechanism;
  const start = present.state;
  const live = liveJoints(mechanism, start);
  const goal = withIsolationAfterLive(mechanism, start, goalOf(mechanism, start, targets, { live }), live);
  const warnings: Warning[] = [...present.warnings];

  const least = leastSets(mechanism, start, goal, { live }, noWork(mechanism), present.refitted);
  if (least.length === 0) {
    const names = targets.map((target) => inWords(mechanism, target)).join(', ');
    throw new PlanError('targets', `No sequence of operations can ${names}. Check the map, or choose another target.`);
  }
  const purpose = targets.map((target) => inWords(mechanism, target)).join(', ') || 'close it up';

  const candidates = least.map((set) => {
    const school = schoolFor(mechanism, start, set, display, policy, live);
    const whole = leastSets(mechanism, start, goal, school.rules, school.seed, present.refitted)[0];
    return whole ? { set: whole, rules: school.rules, asWished: true } : { set, rules: { live }, asWished: false };
  });
  const share = { ...budget, limitMs: budget.limitMs / (2 * candidates.length) };
  const strips = candidates.map((candidate) => {
    const precedence = precedenceOf(mechanism, start, candidate.set, candidate.rules);
    const drafts = stripDrafts(mechanism, start, precedence, policy, live);
    const found = arrange(
      mechanism,
      start,
      drafts.map(({ task }) => task),
      isolatingIds(mechanism, candidate.set),
      candidate.rules,
      share,
    );
    return { ...candidate, drafts, found };
  });
  const strip = strips.reduce((best, each) => (each.found.seconds < best.found.seconds ? each : best));
  if (!strip.asWished) {
    const text = 'This device can not be taken apart with the policy as set; the plan leaves it where it must.';
    warnings.push({ code: 'policy', text });
  }

  const stripped = played(mechanism, start, strip.drafts, strip.found.order);
  const replaced = new Set(
    targets.flatMap((target) => ('replace' in target ? [mechanism.part.get(target.replace)!] : [])),
  );
  const allOps = [...present.history, ...stripped.ops];
  const moves = movesOf(mechanism, assembled(mechanism), allOps, targets);
  const moving = moveWork(mechanism, stripped.state, moves, { live }, present.refitted);
  const moved = moving.ops.reduce((state, op) => applied(mechanism, state, op), stripped.state);

  const back = wayBack(mechanism, moved, allOps, lacking, display);
  const reached = back.missing.reduce((state, op) => applied(mechanism, state, op), moved);
  const rebuilt = rebuildDrafts(mechanism, reached, back, { moves, replaced, policy });
  const body = withTransplant(mechanism, rebuilt, replaced, policy);
  const proving = withProving(mechanism, reached, body, back.touched, replaced, policy);
  const moveDrafts = takeOffDrafts(mechanism, stripped.state, moving, back.missing, moves, policy, live);
  const rebuildTasks = [...moveDrafts, ...afterMoves(proving, moveDrafts)];
  const rebuildFound = arrangeBack(
    mechanism,
    back.whole,
    stripped.state,
    rebuildTasks.map(({ task }) => task),
    { live: back.live, extra: back.extra },
    { ...budget, limitMs: budget.limitMs / 2 },
  );

  const stripOps = explained(map, strip.drafts, strip.found.order, purpose);
  const told = explained(map, rebuildTasks, rebuildFound.order, rebuildPurpose(targets));
  const rebuild = withPlaces(mechanism, stripped.state, told, rebuildTasks, rebuildFound);
  const stripCost = costAsPlanned(stripOps);
  const rebuildCost = costAsPlanned(rebuild);
  const ops = [...stripOps, ...rebuild];
  const optimal = strip.found.optimal && rebuildFound.optimal;
  const flexes = standingFlexes(mechanism, stripped.state);
  return {
    charge: stripCost.seconds + rebuildCost.seconds + FLEX_RISK_S * flexes,
    plan: {
      strip: stripOps,
      rebuild,
      moveOver: [...new Set(moves.flatMap((move) => move.parts))].map((part) => map.parts[part]!.id),
      seconds: {
        strip: stripCost.seconds,
        rebuild: rebuildCost.seconds,
        waiting: ops.reduce((sum, op) => sum + (op.wait_s ?? 0), 0),
      },
      optimal,
      lowerBoundSeconds: optimal
        ? stripCost.seconds + rebuildCost.seconds
        : Math.min(strip.found.lowerBoundSeconds, stripCost.seconds) +
          Math.min(rebuildFound.lowerBoundSeconds, rebuildCost.seconds),
      tools: toolsOf(ops),
      screws: screwLines(map, stripOps, rebuild),
      consumables: consumablesOf(map, stripOps, rebuild, policy.closing),
      leftOver: leftOver(
        map,
        [...lacking].map((joint) => map.joints[joint]!.id),
      ),
      warnings: [
        ...warnings,
        ...workWarnings(mechanism, ops),
        ...replacementWarnings(mechanism, replaced, moves),
        ...transplantWarnings(mechanism, replaced, policy),
      ],
      display,
      toolChanges: stripCost.toolChanges + rebuildCost.toolChanges,
      flips: stripCost.flips + rebuildCost.flips,
    },
  };
}

function played(
  mechanism: Mechanism,
  start: DeviceState,
  drafts: readonly Draft[],
  order: readonly string[],
): { state: DeviceState; ops: PhysicalOp[] } {
  const byId = new Map<string, PhysicalOp | undefined>(drafts.map(({ op, task }) => [op.id, task.physical]));
  const ops = order.flatMap((id) => byId.get(id) ?? []);
  return { state: ops.reduce((state, op) => applied(mechanism, state, op), copyOf(start)), ops };
}

function rebuildPurpose(targets: readonly Target[]): string {
  return targets.length > 0 ? 'close it up again' : 'close it up';
}
