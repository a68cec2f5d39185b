import { type HeatBlock, heatBlocks, physicalOp, placesOnMat, withBlocks } from '../drafts/index.ts';
import {
  carried,
  type DeviceState,
  isStripOp,
  type Mechanism,
  OFF,
  type PhysicalOp,
  type Rules,
  type StripOp,
} from '../holds/index.ts';
import type { Policy } from '../../model/policy/index.ts';
import type { Precedence } from '../search/index.ts';
import { type Chosen, type Phases, phasesOf, type StripOrder, stripOrder } from '../sequence/index.ts';

/** A chosen set with the rules that its strip-down keeps. */
export interface Ruled {
  readonly precedence: Precedence;
  readonly chosen: Chosen;
  readonly phases: Phases;
  readonly blocks: readonly HeatBlock[];
  readonly tools: readonly (string | null)[];
  readonly faces: readonly ReturnType<typeof physicalOp>['face'][];
  readonly policy: Policy;
}

export function ruled(
  mechanism: Mechanism,
  start: DeviceState,
  given: Precedence,
  rules: Rules,
  policy: Policy,
): Ruled {
  const onMat = placesOnMat(mechanism, start, given.ops);
  const ops = given.ops.map((physical, index) =>
    physicalOp(mechanism, { physical, onMat: onMat[index]!, policy, stage: 'strip' }),
  );
  const seconds = ops.map((op) => op.seconds);
  const standing = policy.display === 'on-flexes';
  const first = { mechanism, start, rules, precedence: given, seconds };
  const phases = phasesOf(first, standing);
  const blocks = heatBlocks(mechanism, given, policy, (index) => phases.of[index]!);
  const precedence = withBlocks(given, blocks);
  const chosen = { ...first, precedence };
  return {
    precedence,
    chosen,
    phases: precedence === given ? phases : phasesOf(chosen, standing),
    blocks,
    tools: ops.map((op) => op.tool),
    faces: ops.map((op) => op.face),
    policy,
  };
}

export function inCarefulOrder(
  { chosen, phases, blocks, tools, faces, policy }: Ruled,
  live: ReadonlySet<number>,
  history: readonly PhysicalOp[],
  admits?: (state: DeviceState, op: StripOp) => boolean,
): StripOrder {
  const { mechanism } = chosen;
  const toolsTaken = history
    .filter(isStripOp)
    .map((physical) => physicalOp(mechanism, { physical, onMat: false, policy, stage: 'strip' }).tool);
  const toolInHand = toolsTaken.findLast((tool) => tool !== null) ?? null;
  const cuts = blocks.map((block) => block.cuts);
  return stripOrder({
    chosen,
    phases,
    blocks: cuts,
    tools,
    faces,
    live,
    history,
    toolInHand,
    liftsInOne: admits !== undefined,
    admits,
  });
}

/** On the way down from the whole device a lift takes along just what lies with its part in the end. */
export function keepingGroups(mechanism: Mechanism, end: DeviceState) {
  return (state: DeviceState, op: StripOp): boolean => {
    // what is back in its place has no such end
    if (op.kind !== 'lift' || end.status[op.part] !== OFF) return true;
    const along = carried(mechanism, state, op.part);
    return mechanism.map.parts.every((_, part) => {
      if (end.status[part] === OFF) return true;
      const home = end.group[part]!;
      return home === op.part ? along.has(part) : !along.has(part) || along.has(home);
    });
  };
}
