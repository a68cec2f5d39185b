import type { DeviceState, Mechanism, StripOp } from '../holds/index.ts';

/** A set of strip-down operations: joints to release, and how far each part has to go (0 stays, 1 open, 2 off). */
export interface WorkSet {
  readonly joints: Uint8Array;
  readonly parts: Uint8Array;
  /** a release 1, an open 1, a part off 2 (docs/device-map.md, *What a plan is*) */
  readonly weight: number;
}

export function noWork(mechanism: Mechanism): WorkSet {
  return {
    joints: new Uint8Array(mechanism.map.joints.length),
    parts: new Uint8Array(mechanism.map.parts.length),
    weight: 0,
  };
}

export function withOps(set: WorkSet, state: DeviceState, ops: Iterable<StripOp>): WorkSet {
  const joints = set.joints.slice();
  const parts = set.parts.slice();
  let { weight } = set;
  for (const op of ops) {
    if (op.kind === 'release') {
      if (!joints[op.joint] && !state.released[op.joint]) {
        joints[op.joint] = 1;
        weight++;
      }
      continue;
    }
    const level = op.kind === 'open' ? 1 : 2;
    const from = Math.max(parts[op.part]!, state.status[op.part]!);
    if (from >= level) continue;
    weight += level - from;
    parts[op.part] = level;
  }
  return { joints, parts, weight };
}

export function hasOp(set: WorkSet, op: StripOp): boolean {
  if (op.kind === 'release') return set.joints[op.joint] === 1;
  return set.parts[op.part]! >= (op.kind === 'open' ? 1 : 2);
}

/** The operations of the set; a part that goes off can be lifted at once or opened before. */
export function opsOf(set: WorkSet): StripOp[] {
  const ops: StripOp[] = [];
  set.joints.forEach((chosen, joint) => {
    if (chosen) ops.push({ kind: 'release', joint });
  });
  set.parts.forEach((level, part) => {
    if (level === 2) ops.push({ kind: 'lift', part });
    if (level >= 1) ops.push({ kind: 'open', part });
  });
  return ops;
}

export function setKey(set: WorkSet): string {
  return `${set.joints.join('')}/${set.parts.join('')}`;
}
