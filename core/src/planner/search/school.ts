import {
  carried,
  type DeviceState,
  type Mechanism,
  OFF,
  type Rules,
  type StripOp,
  type Wait,
  planRules,
} from '../holds/index.ts';
import { type Goal, leastSets } from './least-set.ts';
import type { Policy } from '../../model/policy/index.ts';
import { hasOp, noWork, opsOf, withOps, type WorkSet } from './work-set.ts';

/** What a policy adds to the map for one plan: waits, and operations that come on top of the least set. */
export interface School {
  readonly rules: Rules;
  readonly seed: WorkSet;
}

/**
 * Turns the policy into waits (docs/device-map.md, *What a plan is*): parts that come out first, the display taken off
 * before what is not needed for its own lift, cells out before a bond that endangers them is cut.
 */
export function schoolFor(
  mechanism: Mechanism,
  start: DeviceState,
  set: WorkSet,
  display: 'taken-off' | 'on-flexes',
  policy: Policy,
  live: ReadonlySet<number>,
): School {
  const waits = new Waits();
  let seed = set;
  const ownLift = (part: number) => ownRemoval(mechanism, start, part, live);
  // what leaves with what carries it is not parted from it
  const leavesAlong = (part: number) =>
    set.parts[part] !== OFF &&
    mechanism.map.parts.some((_, other) => set.parts[other] === OFF && carried(mechanism, start, other).has(part));
  if (display === 'taken-off') displaysOffFirst(mechanism, waits, ownLift, leavesAlong);
  if (policy.batteryWhilePrying === 'out') seed = cellsOutFirst(mechanism, start, waits, seed, ownLift);
  seed = firstThingsFirst(mechanism, start, waits, seed, ownLift);
  return { rules: planRules(live, waits), seed };
}

/** The same for the way back, on which only the display's place binds. */
export function rebuildWaits(mechanism: Mechanism, start: DeviceState, display: 'taken-off' | 'on-flexes'): Waits {
  const waits = new Waits();
  if (display === 'taken-off') {
    displaysOffFirst(
      mechanism,
      waits,
      (part) => ownRemoval(mechanism, start, part, new Set()),
      () => false,
    );
  }
  return waits;
}

class Waits {
  readonly joint = new Map<number, Wait[]>();
  readonly part = new Map<number, Wait[]>();

  add(op: StripOp, wait: Wait): void {
    const [list, at] = op.kind === 'release' ? [this.joint, op.joint] : [this.part, op.part];
    list.set(at, [...(list.get(at) ?? []), wait]);
  }
}

type OwnLift = (part: number) => WorkSet | null;

/** The least set that takes a part off by itself; null where nothing does. */
export function ownRemoval(
  mechanism: Mechanism,
  start: DeviceState,
  part: number,
  live: ReadonlySet<number>,
): WorkSet | null {
  const goal: Goal = (state) => (state.status[part] === 2 ? [] : [{ options: [{ kind: 'lift', part }] }]);
  return leastSets(mechanism, start, goal, planRules(live), noWork(mechanism))[0] ?? null;
}

function displaysOffFirst(
  mechanism: Mechanism,
  waits: Waits,
  ownLift: OwnLift,
  leavesAlong: (part: number) => boolean,
): void {
  mechanism.map.parts.forEach((each, display) => {
    if (each.kind !== 'display' || display === mechanism.base || leavesAlong(display)) return;
    const beneath = lyingBeneath(mechanism, display);
    const own = beneath.length > 0 ? ownLift(display) : null;
    if (!own) return;
    for (const op of beneath) if (!touches(own, op)) waits.add(op, { part: display, until: 'off' });
  });
}

/** What has an `under` entry, direct or through others, on the display's being open. */
export function lyingBeneath(mechanism: Mechanism, display: number): StripOp[] {
  const parts = new Set<number>();
  const joints = new Set<number>();
  const waitsForIt = (wait: Wait) =>
    wait.part === undefined
      ? joints.has(wait.joint)
      : parts.has(wait.part) || (wait.part === display && wait.until === 'open');
  for (let before = -1; before !== parts.size + joints.size;) {
    before = parts.size + joints.size;
    mechanism.partUnder.forEach((waits, part) => waits.some(waitsForIt) && parts.add(part));
    mechanism.jointUnder.forEach((waits, joint) => waits.some(waitsForIt) && joints.add(joint));
  }
  parts.delete(display);
  return [
    ...[...joints].map((joint): StripOp => ({ kind: 'release', joint })),
    ...[...parts].map((part): StripOp => ({ kind: 'lift', part })),
  ];
}

function cellsOutFirst(
  mechanism: Mechanism,
  start: DeviceState,
  waits: Waits,
  set: WorkSet,
  ownLift: OwnLift,
): WorkSet {
  let seed = set;
  mechanism.map.joints.forEach((each, joint) => {
    if (each.type !== 'bond' || !set.joints[joint]) return;
    for (const id of each.endangers ?? []) {
      const cell = mechanism.part.get(id)!;
      if (!mechanism.isolation.cells.includes(cell) || start.status[cell] === 2) continue;
      const own = ownLift(cell);
      if (!own || own.joints[joint]) continue;
      waits.add({ kind: 'release', joint }, { part: cell, until: 'off' });
      seed = withOps(seed, start, [{ kind: 'lift', part: cell }]);
    }
  });
  return seed;
}

/** Trays, cards and styluses are off before anything is heated, cut or opened, save what their own removal needs. */
function firstThingsFirst(
  mechanism: Mechanism,
  start: DeviceState,
  waits: Waits,
  set: WorkSet,
  ownLift: OwnLift,
): WorkSet {
  const first = mechanism.map.parts.flatMap((each, part) =>
    each.removeFirst && part !== mechanism.base && start.status[part] !== 2 && start.group[part] === mechanism.base
      ? [part]
      : [],
  );
  const own = first.map(ownLift).filter((each) => each !== null);
  const exempt = (op: StripOp) => own.some((each) => touches(each, op));
  if (!opsOf(set).some((op) => opensSomething(mechanism, op) && !exempt(op))) return set;
  for (const part of first) {
    const wait = { part, until: 'off' } as const;
    mechanism.map.joints.forEach((each, joint) => {
      const op = { kind: 'release', joint } as const;
      if (each.type === 'bond' && !exempt(op)) waits.add(op, wait);
    });
    mechanism.map.parts.forEach((_, other) => {
      const op = { kind: 'lift', part: other } as const;
      if (!exempt(op) && !first.includes(other)) waits.add(op, wait);
    });
  }
  return withOps(
    set,
    start,
    first.map((part) => ({ kind: 'lift', part })),
  );
}

/** Does the set release this joint, or move this part at all? */
function touches(set: WorkSet, op: StripOp): boolean {
  return op.kind === 'release' ? hasOp(set, op) : set.parts[op.part]! > 0;
}

function opensSomething(mechanism: Mechanism, op: StripOp): boolean {
  return op.kind !== 'release' || mechanism.map.joints[op.joint]!.type === 'bond';
}
