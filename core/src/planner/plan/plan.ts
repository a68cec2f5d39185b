import type { DeviceMap } from '../../model/device-map/index.ts';
import { type Mechanism, mechanismOf, OPEN } from '../holds/index.ts';
import { type Budget } from '../order/index.ts';
import { checkTargets, inWords, type Target } from '../search/index.ts';
import { type Op, withoutIdleCounts, withVents } from '../drafts/index.ts';
import { type Policy, settled } from '../../model/policy/index.ts';
import { type DoneOp, openTargets, type Present, presentState } from './present.ts';
import {
  explained,
  replacementWarnings,
  transplantWarnings,
  untriedWarnings,
  type Warning,
  workWarnings,
} from '../words/index.ts';
import { type Consumable, consumablesOf, leftOver, type ScrewLine, screwLines, toolsOf } from './plan-supplies.ts';
import { costAsPlanned, FLEX_RISK_S, standingFlexes } from './costs.ts';
import { withPlaces } from './moving-over.ts';
import { inOrderOfIds } from './order-of-ids.ts';
import { takeUpOp, withComparisons } from './comparisons.ts';
import { withFlexesAside } from './flexes-aside.ts';
import { withInspections } from './inspections.ts';
import { withLeads } from './leads.ts';
import { withPlasticOnly } from './plastic-only.ts';
import { withPostures } from './postures.ts';
import { withStages } from './stages.ts';
import { rebuild } from './rebuild.ts';
import { marking } from './marked.ts';
import { stripDown } from './strip-down.ts';
import { type OwnTime, timed } from './times.ts';

export interface PlanRequest {
  readonly map: DeviceMap;
  readonly targets: readonly Target[];
  readonly policy?: Partial<Policy>;
  readonly done?: readonly DoneOp[];
  /** a workshop's own times, in place of the guesses */
  readonly times?: readonly OwnTime[];
}

/** A plan as in docs/http.md, compute/plan. */
export interface Plan {
  readonly strip: readonly Op[];
  readonly rebuild: readonly Op[];
  readonly moveOver: readonly string[];
  readonly seconds: { readonly strip: number; readonly rebuild: number; readonly waiting: number };
  readonly optimal: boolean;
  /** nothing better is being looked for */
  readonly final: boolean;
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
 * Plans a repair from any state: the least set that reaches the targets, in the order of a careful technician, and the
 * way back. The order of parts and joints in the map means nothing.
 * @throws PlanError naming the field, where a target or a done operation can't be understood or never be reached
 */
export function planRepair(request: PlanRequest, budget: Budget): Plan {
  const { policy, unknown } = settled(request.map, request.policy);
  const mechanism = mechanismOf(inOrderOfIds(request.map));
  const present = presentState(mechanism, request.done ?? []);
  const asides = unknown.map((key): Warning => ({
    code: 'policy',
    text: `The school given for “${key}” is not known here; the plan goes by the default.`,
  }));
  checkTargets(mechanism, request.targets);
  const targets = openTargets(request.targets, present.renewed);
  // what a new part has no place for stays so once it is in
  const lacking = lackingOf(mechanism, request.targets);

  const asked = { ...present, warnings: [...present.warnings, ...asides] };
  const share = policy.display === 'auto' ? { ...budget, limitMs: budget.limitMs / 2 } : budget;
  const times = request.times ?? [];
  const kept = (display: 'taken-off' | 'on-flexes') =>
    planWith(mechanism, asked, targets, lacking, policy, display, share, times);
  if (policy.display !== 'auto') return kept(policy.display).plan;
  const standing = kept('on-flexes');
  // where no display stands either way, there is nothing to choose
  if (!standing.stands) return { ...standing.plan, display: 'taken-off' };
  const off = kept('taken-off');
  return standing.charge < off.charge ? standing.plan : off.plan;
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
  times: readonly OwnTime[],
): { plan: Plan; charge: number; stands: boolean } {
  const { map } = mechanism;
  const purpose = targets.map((target) => inWords(mechanism, target)).join(', ') || 'close it up';
  const replaced = new Set(
    targets.flatMap((target) => ('replace' in target ? [mechanism.part.get(target.replace)!] : [])),
  );
  const strip = stripDown(mechanism, present, targets, replaced, policy, display, budget);
  const back = rebuild(mechanism, present, strip, { targets, replaced, lacking, policy, display }, budget);

  const stripOps = explained(map, strip.drafts, strip.order, strip.ruledBy, purpose);
  const told = explained(map, back.drafts, back.order, back.ruledBy, rebuildPurpose(targets));
  const marked = marking(mechanism, present.state, replaced);
  const physicalOf = new Map(back.drafts.map(({ op, task }) => [op.id as string, task.physical]));
  const fresh = replaced.has(mechanism.base) ? [takeUpOp(map.parts[mechanism.base]!.id), ...told] : told;
  const rebuildOps = withoutIdleCounts(mechanism, withPlaces(mechanism, strip.state, fresh, physicalOf, back.onto));
  const staged = withStages(map, [...stripOps, ...rebuildOps]);
  const vented = withVents(
    withLeads(mechanism, present.state, withPostures(mechanism, withPlasticOnly(mechanism, policy, marked(staged)))),
  );
  const guessed = withComparisons(withFlexesAside(map, withInspections(map, vented)));
  const aired = timed(map, guessed, times);
  // hands-on time is the same in every order: what is another changes the bound as much
  const otherwise = totalOf(aired) - totalOf(vented);
  const at = aired.findIndex((op) => op.id === rebuildOps[0]?.id || isBefore(op, rebuildOps[0]));
  const [out, up] = at < 0 ? [aired, []] : [aired.slice(0, at), aired.slice(at)];
  const stripCost = costAsPlanned(out);
  const rebuildCost = costAsPlanned(up);
  const least = strip.leastSeconds + back.leastSeconds + otherwise;
  const seconds = stripCost.seconds + rebuildCost.seconds;
  const optimal = least >= seconds - 1e-9;
  const flexes = standingFlexes(mechanism, strip.state);
  return {
    charge: seconds + FLEX_RISK_S * flexes,
    stands: mechanism.map.parts.some((part, at) => part.kind === 'display' && strip.state.status[at] === OPEN),
    plan: {
      strip: out,
      rebuild: up,
      moveOver: [...new Set(back.moves.flatMap((move) => move.parts))].map((part) => map.parts[part]!.id),
      seconds: {
        strip: stripCost.seconds,
        rebuild: rebuildCost.seconds,
        waiting: aired.reduce((sum, op) => sum + (op.wait_s ?? 0), 0),
      },
      optimal,
      final: policy.order === 'part-by-part' || optimal,
      lowerBoundSeconds: Math.min(least, seconds),
      tools: toolsOf(aired),
      screws: screwLines(map, out, up),
      consumables: consumablesOf(map, out, up, policy.closing),
      leftOver: leftOver(
        map,
        [...lacking].map((joint) => map.joints[joint]!.id),
      ),
      warnings: [
        ...present.warnings,
        ...strip.warnings,
        ...workWarnings(mechanism, aired),
        ...untriedWarnings(mechanism, up),
        ...replacementWarnings(mechanism, replaced, back.moves),
        ...transplantWarnings(mechanism, replaced, policy),
      ],
      display,
      toolChanges: stripCost.toolChanges + rebuildCost.toolChanges,
      flips: stripCost.flips + rebuildCost.flips,
    },
  };
}

/** Is it the look at a part that is about to be fitted? */
function isBefore({ name, part }: Op, next: Op | undefined): boolean {
  return name === 'inspect' && next?.kind === 'fit' && next.part === part;
}

function totalOf(ops: readonly Op[]): number {
  return ops.reduce((sum, { seconds }) => sum + seconds, 0);
}

function rebuildPurpose(targets: readonly Target[]): string {
  return targets.length > 0 ? 'close it up again' : 'close it up';
}
