import type { DeviceMap } from '../../model/device-map/index.ts';
import { type Op, procedureOp, TIMES } from '../drafts/index.ts';

/**
 * A battery's flex that was unplugged is bent aside, so that it can't touch its socket again: a look of its own, since one that
 * springs back makes the device live. Nothing is bent where the battery itself comes off next.
 */
export function withFlexesAside(map: DeviceMap, ops: readonly Op[]): Op[] {
  const cell = map.battery?.part;
  if (cell === undefined) return [...ops];
  return ops.flatMap((op, at) => {
    const joint = map.joints.find(({ id }) => op.kind === 'release' && id === op.joint);
    const springs = joint?.type === 'connector' && joint.style === 'press' && joint.holds.includes(cell);
    if (!springs || joint.isolates === undefined) return [op];
    const next = ops.slice(at + 1).find(({ kind }) => kind !== 'procedure');
    return next?.kind === 'lift' && next.part === cell ? [op] : [op, asideOp(joint.id, op)];
  });
}

function asideOp(joint: string, { stage, serves }: Op): Op {
  return procedureOp({
    name: 'bend-aside',
    joint,
    seconds: TIMES.bendAside,
    stage,
    ...(serves === undefined ? {} : { serves }),
    why: 'A flex that springs back makes the device live again.',
    whyNotEarlier: 'Once it is unplugged.',
  });
}
