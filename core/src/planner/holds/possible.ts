import { notInMap, Refusal } from '../../model/refusal/index.ts';
import { isMarkedLive, liveJoints } from './live.ts';
import type { Mechanism } from './mechanism.ts';
import type { RebuildOp, StripOp } from './operation.ts';
import { changesNothing } from './play.ts';
import { mayRebuild } from './refit.ts';
import { type DeviceState, OFF, OPEN } from './device-state.ts';
import { type Unmet, unmetFor } from './unmet.ts';

/** An operation by the map's ids. */
export interface NamedOp {
  readonly kind: 'release' | 'open' | 'lift' | 'make' | 'close' | 'fit';
  readonly joint?: string;
  readonly part?: string;
  readonly onto?: string;
  readonly staysOpen?: boolean;
  readonly live?: boolean;
}

export type NamedNeed =
  | { readonly joint: string; readonly need: 'released' | 'isolated' }
  | { readonly part: string; readonly need: 'open' | 'off' | 'isolated' };

export interface Possible {
  readonly possible: readonly NamedOp[];
  readonly blocked: readonly (NamedOp & { readonly by: readonly NamedNeed[] })[];
}

/** What may be done now, and for what may not, the conditions directly in force (contract, compute/possible). */
export function possibleNow(mechanism: Mechanism, state: DeviceState): Possible {
  const live = liveJoints(mechanism, state);
  const possible: NamedOp[] = [];
  const blocked: (NamedOp & { by: readonly NamedNeed[] })[] = [];
  for (const op of stripOps(mechanism, state)) {
    const unmet = unmetFor(mechanism, state, op, { live });
    const named = namedOp(mechanism, op, live);
    if (unmet.length === 0) possible.push(named);
    else blocked.push({ ...named, by: unmet.map((each) => namedNeed(mechanism, each)) });
  }
  const still = partsOnBase(mechanism, state);
  if (still.length > 0) {
    const base = mechanism.map.parts[mechanism.base]!.id;
    blocked.push({ kind: 'lift', part: base, by: still.map((part) => ({ part, need: 'off' })) });
  }
  for (const op of rebuildOps(mechanism, state)) {
    if (mayRebuild(mechanism, state, op)) possible.push(namedOp(mechanism, op));
  }
  return { possible, blocked };
}

function stripOps(mechanism: Mechanism, state: DeviceState): StripOp[] {
  const releases = mechanism.map.joints.flatMap((_, joint): StripOp[] =>
    mechanism.releasable[joint] ? [{ kind: 'release', joint }] : [],
  );
  const parts = mechanism.map.parts.flatMap((_, part): StripOp[] =>
    part === mechanism.base
      ? []
      : [
          { kind: 'open', part },
          { kind: 'lift', part },
        ],
  );
  return [...releases, ...parts].filter((op) => !changesNothing(state, op));
}

/** Everything of the rebuild that could be tried from here; a part may join the base or its hosts on the mat. */
function rebuildOps(mechanism: Mechanism, state: DeviceState): RebuildOp[] {
  const makes = mechanism.map.joints.flatMap((_, joint): RebuildOp[] =>
    mechanism.releasable[joint] && state.released[joint] ? [{ kind: 'make', joint }] : [],
  );
  const parts = mechanism.map.parts.flatMap((_, part): RebuildOp[] => {
    if (state.status[part] === OPEN) return [{ kind: 'close', part }];
    if (state.status[part] !== OFF) return [];
    return hostsOf(mechanism, state, part).map((onto) => ({ kind: 'fit', part, onto }));
  });
  return [...makes, ...parts];
}

/**
 * The groups that a lifted part can join, by their parts: first where its mechanical joints lead, then where its
 * tethers do; of each the base before the mat.
 */
export function hostsOf(mechanism: Mechanism, state: DeviceState, part: number): number[] {
  const groupsOf = (joints: readonly number[]) =>
    joints
      .map((joint) => state.group[mechanism.to[joint]!]!)
      .filter((group) => group !== part)
      .sort((a, b) => Number(b === mechanism.base) - Number(a === mechanism.base));
  const joints = mechanism.holding[part]!;
  const fixed = joints.filter((joint) => !mechanism.tether[joint]);
  const tethers = joints.filter((joint) => mechanism.tether[joint]);
  return [...new Set([...groupsOf(fixed), ...groupsOf(tethers)])];
}

function partsOnBase(mechanism: Mechanism, state: DeviceState): string[] {
  return mechanism.map.parts.flatMap((each, part) =>
    part !== mechanism.base && state.group[part] === mechanism.base ? [each.id] : [],
  );
}

export function namedOp(mechanism: Mechanism, op: StripOp | RebuildOp, live: ReadonlySet<number> = new Set()): NamedOp {
  if (op.kind === 'release' || op.kind === 'make') {
    const marked = op.kind === 'release' && isMarkedLive(mechanism, live, op.joint);
    return { kind: op.kind, joint: mechanism.map.joints[op.joint]!.id, ...(marked ? { live: true } : {}) };
  }
  const part = mechanism.map.parts[op.part]!.id;
  if (op.kind === 'fit' && op.onto !== mechanism.base) {
    return { kind: 'fit', part, onto: mechanism.map.parts[op.onto]!.id };
  }
  return { kind: op.kind, part };
}

export function namedNeed(mechanism: Mechanism, unmet: Unmet): NamedNeed {
  if (unmet.joint !== undefined) return { joint: mechanism.map.joints[unmet.joint]!.id, need: unmet.need };
  return { part: mechanism.map.parts[unmet.part]!.id, need: unmet.need };
}

/** A named operation by number; unknown ids throw a Refusal that names them. */
export function numberedOp(mechanism: Mechanism, op: NamedOp): StripOp | RebuildOp {
  if (op.kind === 'release' || op.kind === 'make') {
    const joint = mechanism.joint.get(op.joint ?? '');
    if (joint === undefined) throw new Refusal(notInMap('joint', 'joint', op.joint!));
    return { kind: op.kind, joint };
  }
  const part = mechanism.part.get(op.part ?? '');
  if (part === undefined) throw new Refusal(notInMap('part', 'part', op.part!));
  if (op.kind !== 'fit') return { kind: op.kind, part };
  const onto = op.onto === undefined ? mechanism.base : mechanism.part.get(op.onto);
  if (onto === undefined) throw new Refusal(notInMap('onto', 'part', op.onto!));
  return { kind: 'fit', part, onto, ...(op.staysOpen === undefined ? {} : { staysOpen: op.staysOpen }) };
}
