import type { Face } from '../device-map/index.ts';
import type { Mechanism, PhysicalOp } from '../holds/index.ts';
import { secondsOf, toolOf } from './estimates.ts';
import type { Policy } from '../policy/index.ts';
import type { Task } from './task.ts';

export type Stage = 'prepare' | 'open' | 'strip' | 'move' | 'rebuild' | 'prove' | 'close';

/** The fixed procedures that stand between the physical operations. */
type ProcedureName =
  | 'power-off'
  | 'film'
  | 'film-off'
  | 'heat'
  | 'soak'
  | 'vent'
  | 'clean'
  | 'dry'
  | 'lay'
  | 'press'
  | 'cure'
  | 'count'
  | 'renew'
  | 'power-on'
  | 'test'
  | 'transplant'
  // what has to be settled before the device may be opened
  | 'agree'
  | 'run-down'
  | 'charge-up'
  | 'prepare'
  | 'tape'
  // what trouble asks for
  | 'look'
  // a wet device
  | 'wash'
  | 'air-dry'
  | 'try';

/** One operation of a plan (contract.md, compute/plan). Seconds are hands-on; `wait_s` is waiting that follows. */
export interface Op {
  readonly id: string;
  readonly kind: PhysicalOp['kind'] | 'procedure';
  readonly name?: ProcedureName;
  readonly joint?: string;
  readonly part?: string;
  readonly onto?: string;
  readonly tool: string | null;
  readonly face: Face | null;
  readonly seconds: number;
  readonly wait_s?: number;
  readonly count?: number;
  readonly live?: true;
  /** a new piece is fitted, not the old one again */
  readonly isNew?: true;
  /** fitted, but left open: it is closed later */
  readonly staysOpen?: true;
  /** done on the old part and on the new one, side by side */
  readonly onBoth?: true;
  /** ids of the functions that a test tries */
  readonly functions?: readonly string[];
  readonly stage: Stage;
  readonly why: string;
  readonly whyNotEarlier: string;
  readonly notBefore: readonly string[];
}

/** An operation before it has its place: what it is, and what it says to the order. */
export interface Draft {
  readonly op: Omit<Op, 'why' | 'whyNotEarlier' | 'notBefore'>;
  readonly task: Task;
}

export function idOf(mechanism: Mechanism, op: PhysicalOp): string {
  if (op.kind === 'release' || op.kind === 'make') return `${op.kind}:${mechanism.map.joints[op.joint]!.id}`;
  return `${op.kind}:${mechanism.map.parts[op.part]!.id}`;
}

interface PhysicalDraft {
  readonly physical: PhysicalOp;
  readonly after: Iterable<string>;
  readonly onMat: boolean;
  readonly policy: Policy;
  readonly stage: Stage;
  readonly live?: boolean;
  readonly more?: Partial<Op>;
  readonly block?: string;
}

export function physicalDraft(mechanism: Mechanism, given: PhysicalDraft): Draft {
  const { physical, policy } = given;
  const { map } = mechanism;
  const joint = physical.kind === 'release' || physical.kind === 'make' ? map.joints[physical.joint]! : null;
  const part = joint === null ? map.parts[(physical as { part: number }).part]! : null;
  const drive =
    joint?.type === 'screw'
      ? map.fasteners.find((each) => each.id === (joint.points[0]!.fastener ?? joint.fastener))!.drive
      : null;
  const tool = joint ? toolOf(physical.kind as 'release' | 'make', joint, drive, policy) : null;
  const face = given.onMat ? null : (joint?.face ?? part!.face);
  const seconds = secondsOf(physical, joint, policy);
  const count = joint && 'points' in joint ? joint.points?.length : undefined;
  const id = idOf(mechanism, physical);
  return {
    op: {
      id,
      kind: physical.kind,
      ...(joint ? { joint: joint.id } : { part: part!.id }),
      tool,
      face,
      seconds,
      ...(count === undefined ? {} : { count }),
      ...(given.live ? { live: true } : {}),
      stage: given.stage,
      ...given.more,
    },
    task: {
      id,
      seconds,
      tool,
      face: face === 'edge' ? null : face,
      after: new Set(given.after),
      physical,
      ...(given.block ? { block: given.block } : {}),
      ...(given.live ? { live: true } : {}),
    },
  };
}

interface ProcedureDraft {
  readonly id: string;
  readonly name: ProcedureName;
  readonly seconds: number;
  readonly wait_s?: number;
  readonly tool?: string | null;
  readonly face?: Face | null;
  readonly joint?: string;
  readonly part?: string;
  readonly functions?: readonly string[];
  readonly stage: Stage;
  readonly after: Iterable<string>;
  readonly starts?: string;
}

export function procedureDraft(given: ProcedureDraft): Draft {
  const { after, starts, tool = null, face = null, wait_s, ...rest } = given;
  return {
    op: { kind: 'procedure', tool, face, ...rest, ...(wait_s ? { wait_s } : {}) },
    task: {
      id: given.id,
      seconds: given.seconds,
      tool,
      face: face === 'edge' ? null : face,
      after: new Set(after),
      ...(starts ? { block: starts, starts: true } : {}),
    },
  };
}

/** The same draft with more that has to come before it. */
export function after(draft: Draft, more: Iterable<string>): Draft {
  return { ...draft, task: { ...draft.task, after: new Set([...draft.task.after, ...more]) } };
}
