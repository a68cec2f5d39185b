import type { Mechanism } from './mechanism.ts';
import { applied, type StripOp } from './operation.ts';
import { carried, type DeviceState, OFF, SEATED } from './device-state.ts';
import { type Rules, type Unmet, unmetFor } from './unmet.ts';

export interface Played {
  readonly state: DeviceState;
  readonly done: readonly StripOp[];
  readonly waiting: readonly { readonly op: StripOp; readonly unmet: readonly Unmet[] }[];
}

/**
 * Does every operation that becomes possible, in the order given where there is a choice, until no more can be done.
 * What can be done once stays possible, and the outcome does not depend on that order, save where a release hands a part
 * over to another carrier: done too soon, it makes that carrier wait for what lies over the part. An operation that would
 * change nothing counts as done and is left out. A part whose opening stands before its lift is opened first.
 */
export function play(mechanism: Mechanism, start: DeviceState, ops: readonly StripOp[], rules: Rules): Played {
  const done: StripOp[] = [];
  let state = start;
  /** what a waiting operation waits for first → the operations to look at again when that changes */
  const watchers = new Map<string, number[]>();
  const open = new Set(ops.keys());
  const openings = new Map(ops.flatMap((op, index) => (op.kind === 'open' ? [[op.part, index] as const] : [])));
  let look = [...open];
  while (look.length > 0) {
    const woken: number[] = [];
    for (const index of look) {
      if (!open.has(index)) continue;
      const op = ops[index]!;
      if (changesNothing(state, op)) {
        open.delete(index);
        continue;
      }
      const unmet = unmetFor(mechanism, state, op, rules)[0];
      if (unmet) {
        const key = keyOf(unmet);
        watchers.set(key, [...(watchers.get(key) ?? []), index]);
        continue;
      }
      const opening = op.kind === 'lift' && state.status[op.part] === SEATED ? openings.get(op.part) : undefined;
      const before = state;
      if (opening !== undefined && opening < index && open.delete(opening)) done.push(ops[opening]!);
      state = applied(mechanism, state, op);
      done.push(op);
      open.delete(index);
      for (const key of touchedBy(mechanism, before, op)) {
        woken.push(...(watchers.get(key) ?? []));
        watchers.delete(key);
      }
    }
    look = woken.length > 0 ? woken : stillPossible(mechanism, state, ops, open, rules);
  }
  const waiting = [...open].map((index) => ({
    op: ops[index]!,
    unmet: unmetFor(mechanism, state, ops[index]!, rules),
  }));
  return { state, done, waiting };
}

function stillPossible(
  mechanism: Mechanism,
  state: DeviceState,
  ops: readonly StripOp[],
  open: ReadonlySet<number>,
  rules: Rules,
): number[] {
  return [...open].filter((index) => unmetFor(mechanism, state, ops[index]!, rules).length === 0);
}

export function changesNothing(state: DeviceState, op: StripOp): boolean {
  switch (op.kind) {
    case 'release':
      return state.released[op.joint] === 1;
    case 'open':
      return state.status[op.part] !== SEATED;
    case 'lift':
      return state.status[op.part] === OFF;
  }
}

function keyOf(unmet: Unmet): string {
  return unmet.joint === undefined ? `part ${unmet.part}` : `joint ${unmet.joint}`;
}

function touchedBy(mechanism: Mechanism, before: DeviceState, op: StripOp): string[] {
  if (op.kind === 'release') return [`joint ${op.joint}`];
  return [...carried(mechanism, before, op.part)].flatMap((part) => [
    `part ${part}`,
    ...mechanism.touching[part]!.map((joint) => `joint ${joint}`),
  ]);
}

/** Every release, open and lift that the map knows. */
export function everyOp(mechanism: Mechanism): StripOp[] {
  const releases = mechanism.map.joints.flatMap((_, joint): StripOp[] =>
    mechanism.releasable[joint] ? [{ kind: 'release', joint }] : [],
  );
  const parts = mechanism.map.parts.flatMap((_, part): StripOp[] =>
    part === mechanism.base
      ? []
      : [
          { kind: 'lift', part },
          { kind: 'open', part },
        ],
  );
  return [...releases, ...parts];
}
