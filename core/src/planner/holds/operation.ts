import type { Mechanism } from './mechanism.ts';
import { carried, copyOf, type DeviceState, OFF, OPEN, SEATED } from './device-state.ts';

/** A physical operation of the strip-down, by number. */
export type StripOp =
  | { readonly kind: 'release'; readonly joint: number }
  | { readonly kind: 'open'; readonly part: number }
  | { readonly kind: 'lift'; readonly part: number };

/**
 * A physical operation of the rebuild. `onto` is the group a part joins: the base, or a part on the mat. A fitted part
 * stays open where `staysOpen` says so, or, left out, where the map tethers it to anything: then it is closed later.
 */
export type RebuildOp =
  | { readonly kind: 'make'; readonly joint: number }
  | { readonly kind: 'close'; readonly part: number }
  | { readonly kind: 'fit'; readonly part: number; readonly onto: number; readonly staysOpen?: boolean };

export type PhysicalOp = StripOp | RebuildOp;

/** The state after an operation, legal or not; an operation that changes nothing leaves an equal state. */
export function applied(mechanism: Mechanism, state: DeviceState, op: PhysicalOp): DeviceState {
  const next = copyOf(state);
  switch (op.kind) {
    case 'release':
      next.released[op.joint] = 1;
      return next;
    case 'make':
      next.released[op.joint] = 0;
      return next;
    case 'open':
      if (next.status[op.part] === SEATED) next.status[op.part] = OPEN;
      return next;
    case 'close':
      if (next.status[op.part] === OPEN) next.status[op.part] = SEATED;
      return next;
    case 'lift':
      if (next.status[op.part] === OFF) return next;
      for (const each of carried(mechanism, state, op.part)) next.group[each] = op.part;
      next.status[op.part] = OFF;
      return next;
    case 'fit': {
      if (next.status[op.part] !== OFF) return next;
      const joined = state.group[op.onto]!;
      next.group.forEach((place, each) => {
        if (place === op.part) next.group[each] = joined;
      });
      const staysOpen = op.staysOpen ?? isTethered(mechanism, membersOf(state, op.part));
      next.status[op.part] = staysOpen ? OPEN : SEATED;
      return next;
    }
  }
}

/** Does the map tether any of these parts to one that is not among them? */
export function isTethered(mechanism: Mechanism, parts: ReadonlySet<number>): boolean {
  return [...parts].some((part) =>
    mechanism.touching[part]!.some(
      (joint) =>
        mechanism.tether[joint] &&
        !mechanism.selfParting[joint] &&
        mechanism.ends[joint]!.some((end) => !parts.has(end)),
    ),
  );
}

/** What lies on the mat with a lifted part, itself among them. */
function membersOf(state: DeviceState, part: number): Set<number> {
  return new Set([...state.group.keys()].filter((each) => state.group[each] === part));
}
