import type { DeviceMap, Joint, Part, UnderEntry } from '../src/model/device-map/index.ts';
import { assembled, carried, type DeviceState } from '../src/planner/holds/device-state.ts';
import { mechanismOf } from '../src/planner/holds/mechanism.ts';
import { type NamedOp, numberedOp, possibleNow } from '../src/planner/holds/possible.ts';
import { replay } from '../src/planner/holds/legal.ts';
import { sample } from './maps.ts';

/** A device of few words: parts by id, joints by type. */
export function device(
  parts: readonly (Partial<Part> & { id: string })[],
  joints: readonly (Record<string, unknown> & { id: string; holds: string[]; to: string })[],
  battery: string | null = null,
): DeviceMap {
  const whole = (part: Partial<Part> & { id: string }): Part => ({
    name: part.id,
    kind: 'other',
    face: 'front',
    box: { x: 0, y: 0, w: 9, h: 9 },
    z: { top: 1, bottom: 2 },
    ...part,
  });
  return {
    ...sample(),
    battery: battery
      ? { part: battery, cells: [{ capacity_mAh: 1, nominal_V: 1 }], wiring: 'series', limit_C: 60 }
      : null,
    parts: [whole({ id: 'base', base: true }), ...parts.map(whole)],
    joints: joints.map((joint) => ({ face: 'front', ...joint }) as unknown as Joint),
    functions: [],
  };
}

export const clip = (id: string, holds: string, to: string, under?: UnderEntry[]) => ({
  id,
  type: 'clip',
  holds: [holds],
  to,
  ...(under ? { under } : {}),
});
export const plug = (id: string, holds: string, to: string, more: object = {}) => ({
  id,
  type: 'connector',
  style: 'press',
  holds: [holds],
  to,
  ...more,
});

export function after(map: DeviceMap, ops: readonly NamedOp[]) {
  const mechanism = mechanismOf(map);
  const { state, illegal } = replay(
    mechanism,
    assembled(mechanism),
    ops.map((op) => numberedOp(mechanism, op)),
  );
  return { mechanism, state, illegal, ...possibleNow(mechanism, state) };
}

export const release = (joint: string): NamedOp => ({ kind: 'release', joint });
export const open = (part: string): NamedOp => ({ kind: 'open', part });
export const lift = (part: string): NamedOp => ({ kind: 'lift', part });
export const names = (ops: readonly NamedOp[]) => ops.map((op) => `${op.kind} ${op.joint ?? op.part}`);
export const blockedBy = (found: ReturnType<typeof after>, name: string) =>
  found.blocked.find((each) => `${each.kind} ${each.joint ?? each.part}` === name)?.by;
export const carriedBy = (map: DeviceMap, part: string, state?: DeviceState) => {
  const mechanism = mechanismOf(map);
  return [...carried(mechanism, state ?? assembled(mechanism), mechanism.part.get(part)!)]
    .map((each) => map.parts[each]!.id)
    .sort();
};
