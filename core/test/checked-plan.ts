import type { DeviceMap } from '../src/model/device-map/index.ts';
import {
  assembled,
  changesNothing,
  type DeviceState,
  liveJoints,
  type Mechanism,
  mechanismOf,
  numberedOp,
  type PhysicalOp,
  play,
  type StripOp,
} from '../src/planner/holds/index.ts';

/** What the check reads of an operation of a plan. */
export interface CheckedOp {
  readonly id: string;
  readonly kind: string;
  readonly name?: string;
  readonly joint?: string;
  readonly part?: string;
  readonly onto?: string;
  readonly staysOpen?: boolean;
  readonly isNew?: boolean;
}

export interface CheckedPlan {
  readonly strip: readonly CheckedOp[];
  readonly rebuild: readonly CheckedOp[];
}

export interface CheckedPolicy {
  readonly display?: string;
  readonly sealLaid?: string;
  readonly closing?: string | null;
}

/** A plan from the whole device, with what both of its halves are asked about. */
export class CheckedWay {
  protected readonly mechanism: Mechanism;
  protected readonly plan: CheckedPlan;
  protected readonly policy: CheckedPolicy;
  protected readonly start: DeviceState;
  protected readonly live: ReadonlySet<number>;
  protected readonly ops: readonly StripOp[];
  protected readonly faults: string[] = [];

  constructor(map: DeviceMap, plan: CheckedPlan, policy: CheckedPolicy) {
    this.mechanism = mechanismOf(map);
    this.plan = plan;
    this.policy = policy;
    this.start = assembled(this.mechanism);
    this.live = liveJoints(this.mechanism, this.start);
    this.ops = physical(plan.strip).map((op) => this.numbered(op) as StripOp);
  }

  protected numbered(op: CheckedOp): PhysicalOp {
    return numberedOp(this.mechanism, op as Parameters<typeof numberedOp>[1]);
  }

  /** Could `goal` be done with just these operations, from the whole device? */
  protected reaches(ops: readonly StripOp[], goal: StripOp, start = this.start): boolean {
    return changesNothing(play(this.mechanism, start, ops, { live: this.live }).state, goal);
  }

  protected hasWorkBeneath(display: number): boolean {
    const { map, partUnder, jointUnder } = this.mechanism;
    if (map.parts[display]!.kind !== 'display') return false;
    const parts = new Set<number>();
    const joints = new Set<number>();
    const waits = (entries: (typeof partUnder)[number]) =>
      entries.some((wait) =>
        wait.part === undefined
          ? joints.has(wait.joint)
          : parts.has(wait.part) || (wait.part === display && wait.until === 'open'),
      );
    for (let size = -1; size !== parts.size + joints.size;) {
      size = parts.size + joints.size;
      partUnder.forEach((entries, part) => waits(entries) && parts.add(part));
      jointUnder.forEach((entries, joint) => waits(entries) && joints.add(joint));
    }
    parts.delete(display);
    return this.ops.some((op) => (op.kind === 'release' ? joints.has(op.joint) : parts.has(op.part)));
  }
}

export function isPhysical(op: CheckedOp): boolean {
  return op.kind !== 'procedure';
}

function physical(ops: readonly CheckedOp[]): CheckedOp[] {
  return ops.filter(isPhysical);
}

/** The same list in a few orders: where there are alternatives, what is dropped first decides which of them is left. */
export function someOrders<T>(list: readonly T[]): T[][] {
  const odd = list.filter((_, at) => at % 2 === 1);
  const even = list.filter((_, at) => at % 2 === 0);
  return [[...list], list.toReversed(), [...odd, ...even], [...even, ...odd].toReversed()];
}
