import { type DeviceMap, isSelfParting, type Joint, type Part } from '../../model/device-map/index.ts';
import { renewalFor } from '../../planner/drafts/index.ts';
import { applied, assembled, judge, type Mechanism, mechanismOf, numberedOp } from '../../planner/holds/index.ts';
import type { DoneOp } from '../../planner/plan/index.ts';
import { type Policy, settled } from '../../model/policy/index.ts';
import type { Target } from '../../planner/search/index.ts';
import { AS_MAPPED, type Deviations } from './deviations.ts';
import { renewalDecided } from './renewal-now.ts';
import type { JobState } from './job-state.ts';

/** What a plan is made from: the device as it is, and what was done to it. */
export interface AsItIs {
  readonly map: DeviceMap;
  readonly done: readonly DoneOp[];
  readonly policy: Partial<Policy>;
}

/**
 * The device as it is: its map without the parts that are not there, with those that differ to be looked at, and
 * with its bonds closed as it was decided. A missing part that is to be replaced stays in the map, and counts as off.
 */
export function asItIs({ map }: Mechanism, state: JobState): AsItIs {
  const { deviations, done, policy, targets } = state;
  if (deviations === AS_MAPPED) return { map, done, policy };
  const replaced = new Set(targets.flatMap((each) => ('replace' in each ? [each.replace] : [])));
  const missing = [...deviations.missing];
  const gone = new Set(missing.filter((id) => !replaced.has(id)));
  const left = mapAsItIs(map, deviations, replaced, settled(map, policy).policy.closing);
  const parts = new Set(left.parts.map(({ id }) => id));
  const joints = new Set(left.joints.map(({ id }) => id));
  const isLeft = (op: DoneOp) => (op.joint === undefined ? parts.has(op.part!) : joints.has(op.joint));
  const absent = missing.filter((id) => !gone.has(id));
  const isDecided = deviations.closings.size > 0;
  return {
    map: left,
    done: withoutThem(left, done.filter(isLeft), absent),
    policy: isDecided ? { ...policy, closing: null } : policy,
  };
}

/** Made once for what deviates: every step of a job is judged on it. */
function mapAsItIs(
  map: DeviceMap,
  deviations: Deviations,
  replaced: ReadonlySet<string>,
  school: Policy['closing'],
): DeviceMap {
  const made = maps.get(deviations) ?? new Map<string, DeviceMap>();
  maps.set(deviations, made);
  const key = JSON.stringify([map.id, [...replaced], school]);
  const gone = new Set([...deviations.missing].filter((id) => !replaced.has(id)));
  const known = made.get(key) ?? closedAs(withoutParts(mapSeen(map, deviations, replaced), gone), deviations, school);
  made.set(key, known);
  return known;
}

const maps = new WeakMap<Deviations, Map<string, DeviceMap>>();

/** Targets that are still there to be reached. */
export function targetsAsItIs({ map }: AsItIs, targets: readonly Target[]): Target[] {
  const ids = new Set([...map.parts, ...map.joints].map(({ id }) => id));
  const isThere = (target: Target) =>
    'full' in target ||
    ids.has('replace' in target ? target.replace : 'remove' in target ? target.remove : target.reach);
  return targets.filter(isThere);
}

/** The mechanism of the device as it is. */
export function mechanismAsItIs(mechanism: Mechanism, state: JobState): Mechanism {
  const { map } = asItIs(mechanism, state);
  if (map === mechanism.map) return mechanism;
  const known = mechanisms.get(map) ?? mechanismOf(map);
  mechanisms.set(map, known);
  return known;
}

const mechanisms = new WeakMap<DeviceMap, Mechanism>();

function mapSeen(map: DeviceMap, { different }: Deviations, replaced: ReadonlySet<string>): DeviceMap {
  if (different.size === 0) return map;
  const seen = (part: Part): Part =>
    different.has(part.id) && !replaced.has(part.id) && part.reuse !== 'single-use'
      ? { ...part, reuse: 'inspect' }
      : part;
  return { ...map, parts: map.parts.map(seen) };
}

/** What a part is held by falls away with it; what else was held to it alone is held to the base. */
function withoutParts(map: DeviceMap, gone: ReadonlySet<string>): DeviceMap {
  if (gone.size === 0) return map;
  const base = map.parts.find((each) => each.base)!.id;
  const joints = map.joints.flatMap((joint): Joint[] => {
    const holds = joint.holds.filter((id) => !gone.has(id));
    if (holds.length === 0) return [];
    if (!gone.has(joint.to)) return [{ ...joint, holds }];
    const isHeldElse = holds.every((id) =>
      map.joints.some((each) => each !== joint && each.holds.includes(id) && !gone.has(each.to)),
    );
    return isHeldElse ? [] : [{ ...joint, holds, to: base }];
  });
  const left = new Set(joints.map(({ id }) => id));
  const isLeft = (entry: object) =>
    'part' in entry ? !gone.has(entry.part as string) : left.has((entry as { joint: string }).joint);
  const without = <T extends Part | Joint>(each: T): T =>
    each.under ? { ...each, under: each.under.filter(isLeft) } : each;
  const parts = map.parts
    .filter(({ id }) => !gone.has(id))
    .map((part): Part => {
      const { staysWith, ...rest } = without(part);
      return staysWith === undefined || gone.has(staysWith) ? rest : { ...rest, staysWith };
    });
  return { ...map, parts, joints: joints.map(without) };
}

/** The map with its bonds closed as it was decided on sight, and else as the workshop closes them. */
export function asClosed({ map }: Mechanism, { deviations, policy }: JobState): DeviceMap {
  return closedAs(map, deviations, settled(map, policy).policy.closing);
}

/** Every bond closed as it was decided on sight; the others as the workshop closes them. */
function closedAs(map: DeviceMap, { closings }: Deviations, school: Policy['closing']): DeviceMap {
  if (closings.size === 0) return map;
  const closed = (joint: Joint): Joint => {
    if (joint.type !== 'bond') return joint;
    const way = closings.get(joint.id);
    const renew = way
      ? renewalDecided(joint, way, school)
      : joint.style === 'perimeter'
        ? renewalFor(joint, school)
        : null;
    return renew === null ? joint : { ...joint, renew };
  };
  return { ...map, joints: map.joints.map(closed) };
}

/**
 * What was done, with the taking off of parts that were not there put in as soon as it could have been done: a plan then
 * goes on from a state that somebody could have come to.
 */
function withoutThem(map: DeviceMap, done: readonly DoneOp[], missing: readonly string[]): DoneOp[] {
  if (missing.length === 0) return [...done];
  const mechanism = mechanismOf(map);
  let pending = missing.flatMap((id) => offOps(map, id));
  let state = assembled(mechanism);
  const all: DoneOp[] = [];
  const take = (op: DoneOp) => {
    state = applied(mechanism, state, numberedOp(mechanism, op));
    all.push(op);
  };
  const takeAbsent = () => {
    for (;;) {
      const next = pending.find((op) => judge(mechanism, state, numberedOp(mechanism, op)).verdict === 'legal');
      if (!next) return;
      pending = pending.filter((op) => op !== next);
      take(next);
    }
  };
  for (const op of done) {
    takeAbsent();
    take(op);
  }
  takeAbsent();
  return all;
}

function offOps({ joints }: DeviceMap, part: string): DoneOp[] {
  const held = joints.filter((each) => each.type !== 'hinge' && !isSelfParting(each));
  const only = held.filter((each) => each.holds.every((id) => id === part));
  return [...only.map(({ id }): DoneOp => ({ kind: 'release', joint: id })), { kind: 'lift', part }];
}
