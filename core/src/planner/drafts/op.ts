import type { Face, Joint } from '../../model/device-map/index.ts';
import type { Mechanism, PhysicalOp } from '../holds/index.ts';
import type { OrderRule } from '../sequence/index.ts';
import type { Policy } from '../../model/policy/index.ts';
import { secondsOf, toolOf } from './estimates.ts';
import { type OpId, opId, physicalId, type ProcedureName } from './op-id.ts';

export type Stage = 'prepare' | 'open' | 'strip' | 'move' | 'rebuild' | 'prove' | 'close';

/** One operation of a plan (docs/http.md, compute/plan). Seconds are hands-on; `wait_s` is waiting that follows. */
export interface Op {
  readonly id: OpId;
  readonly kind: PhysicalOp['kind'] | 'procedure';
  readonly name?: ProcedureName;
  readonly joint?: string;
  readonly part?: string;
  /** all joints that it is done to, where they are several */
  readonly joints?: readonly string[];
  readonly onto?: string;
  readonly tool: string | null;
  readonly face: Face | null;
  readonly seconds: number;
  /** what it takes at least and at most */
  readonly low?: number;
  readonly high?: number;
  /** from how many of the workshop's own that is; left out: a guess */
  readonly timesFrom?: number;
  readonly wait_s?: number;
  readonly count?: number;
  readonly live?: true;
  /** a new piece is fitted, not the old one again */
  readonly isNew?: true;
  /** the old one, where a new one goes in for it */
  readonly isOld?: true;
  /** parts that this is the first to move: what is to be known of their way out is said with it */
  readonly frees?: readonly string[];
  /** parts that are pried first with this: where to begin is said with it */
  readonly pries?: readonly string[];
  /** parts and plugs that are easily overlooked, and have to be off before this part is moved */
  readonly asks?: readonly string[];
  /** the first near plugs in its stage, where nothing but plastic comes near them */
  readonly isPlasticOnly?: true;
  /** an isolating lead: which of how many it is */
  readonly lead?: { readonly nth: number; readonly of: number };
  /** stands open on its block, or is laid in place and not pressed down yet */
  readonly posture?: 'stands' | 'waits';
  /** what it is about, where the map has no part for it */
  readonly named?: string;
  /** what it is done for: the operation that needs it, by its id */
  readonly serves?: string;
  /** fitted, but left open: it is closed later */
  readonly staysOpen?: true;
  /** done on the old part and on the new one, side by side */
  readonly onBoth?: true;
  /** ids of the functions that a test tries */
  readonly functions?: readonly string[];
  /** a test before the device is closed, where nothing is glued after it */
  readonly isUnsealed?: true;
  /** all else was tried before it was closed */
  readonly isRest?: true;
  /** parts that are glued shut before this test, since it can't come first */
  readonly untried?: readonly string[];
  readonly stage: Stage;
  readonly why: string;
  readonly whyNotEarlier: string;
  readonly notBefore: readonly string[];
  /** the rule of order that keeps it later than the map does */
  readonly ruledBy?: OrderRule;
}

/** What a procedure is: its name, what it is done to, how long it takes. All else has a default. */
export interface Procedure {
  readonly name: ProcedureName;
  /** tells it from others of its name where neither a joint nor a part does */
  readonly of?: string;
  readonly joint?: string;
  readonly part?: string;
  readonly joints?: readonly string[];
  readonly named?: string;
  readonly seconds: number;
  readonly wait_s?: number;
  readonly stage: Stage;
  readonly tool?: string | null;
  readonly face?: Face | null;
  readonly functions?: readonly string[];
  readonly untried?: readonly string[];
  readonly isRest?: true;
  readonly isUnsealed?: true;
  readonly why?: string;
  readonly whyNotEarlier?: string;
}

/** Why an operation stands where it does is told once its place is known. */
const UNTOLD = { why: '', whyNotEarlier: '', notBefore: [] };

/** Makes a procedure of a plan. */
export function procedureOp({ of, wait_s, tool = null, face = null, ...given }: Procedure): Op {
  return {
    ...UNTOLD,
    id: opId(given.name, of ?? given.joint ?? given.part),
    kind: 'procedure',
    tool,
    face,
    ...given,
    ...(wait_s ? { wait_s } : {}),
  };
}

/** A physical operation at its place: on the device or on the mat, live or not. */
export interface Physical {
  readonly physical: PhysicalOp;
  /** its part lies on the mat, so that no face of the device has to be up */
  readonly onMat: boolean;
  readonly policy: Policy;
  readonly stage: Stage;
  readonly live?: boolean;
  readonly isNew?: boolean;
  readonly staysOpen?: boolean;
}

/** Makes a physical operation of a plan, with the tool, the face and the seconds that its map and school give. */
export function physicalOp(mechanism: Mechanism, given: Physical): Op {
  const { physical, policy, stage } = given;
  const { map } = mechanism;
  const joint = 'joint' in physical ? map.joints[physical.joint]! : null;
  const part = 'part' in physical ? map.parts[physical.part]! : null;
  const count = joint && 'points' in joint ? joint.points?.length : undefined;
  return {
    ...UNTOLD,
    id: physicalId(mechanism, physical),
    kind: physical.kind,
    ...(joint ? { joint: joint.id } : { part: part!.id }),
    tool: joint ? toolOf(physical.kind as 'release' | 'make', joint, driveOf(mechanism, joint), policy) : null,
    face: given.onMat ? null : (joint ?? part!).face,
    seconds: secondsOf(physical, joint, policy),
    ...(count === undefined ? {} : { count }),
    ...(given.live ? { live: true } : {}),
    stage,
    ...(given.isNew ? { isNew: true } : {}),
    ...(given.staysOpen ? { staysOpen: true } : {}),
  };
}

function driveOf({ map }: Mechanism, joint: Joint): string | null {
  if (joint.type !== 'screw') return null;
  const fastener = joint.points[0]!.fastener ?? joint.fastener;
  return map.fasteners.find((each) => each.id === fastener)!.drive;
}
