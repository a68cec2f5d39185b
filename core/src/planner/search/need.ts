import {
  changesNothing,
  type DeviceState,
  isFirm,
  isWired,
  type Mechanism,
  type Rules,
  SEATED,
  type StripOp,
  type Unmet,
} from '../holds/index.ts';
import { opKey } from './op-key.ts';
import { Snapshot } from './snapshot.ts';

/** Something that has to be: at least one of these operations is part of every way to it. */
export interface Need {
  readonly options: readonly StripOp[];
  /** asked for since the device has to be dead */
  readonly isolates?: true;
}

/**
 * What an operation needs before it is possible in this state. Every way of meeting a condition is among its options.
 * @param isAtHand ways around a condition that are not at hand are left out
 */
export function needsOf(snapshot: Snapshot, op: StripOp, isAtHand?: (op: StripOp) => boolean): Need[] {
  const host = op.kind === 'release' ? snapshot.mechanism.to[op.joint]! : op.part;
  return needsIn(snapshot, snapshot.unmet(op), host, op, isAtHand);
}

/** The same for conditions of something that lies on `host`; `op` is what waits for them, if it is an operation. */
export function needsFor(
  mechanism: Mechanism,
  state: DeviceState,
  unmet: readonly Unmet[],
  host: number,
  op: StripOp | null,
  rules: Rules,
): Need[] {
  return needsIn(new Snapshot(mechanism, state, rules), unmet, host, op);
}

function needsIn(
  snapshot: Snapshot,
  unmet: readonly Unmet[],
  host: number,
  op: StripOp | null,
  isAtHand: (op: StripOp) => boolean = () => true,
): Need[] {
  const { mechanism, state } = snapshot;
  const isolation = unmet.some((each) => each.need === 'isolated');
  const needs = unmet
    .filter((each) => each.need !== 'isolated')
    .map((each) => [
      direct(each),
      ...detours(snapshot, each, host, op),
      ...(each.via === undefined || op?.kind === 'release'
        ? []
        : partings(mechanism, state, each.via, snapshot.carried(host))),
    ]);
  const dead = isolation ? isolationNeeds(mechanism, state, host, op) : [];
  const canBe = (each: StripOp) => each.kind !== 'release' || mechanism.releasable[each.joint]!;
  const need = ([first, ...others]: readonly StripOp[]): Need => {
    const around = others.filter((other) => isAtHand(other) && !asksFor(snapshot, other, first!));
    return { options: unique([first!, ...around].filter(canBe)) };
  };
  return [...needs.map(need), ...dead.map((each): Need => ({ ...need(each), isolates: true }))];
}

function direct(unmet: Unmet): StripOp {
  if (unmet.joint !== undefined) return { kind: 'release', joint: unmet.joint };
  return { kind: unmet.need === 'open' ? 'open' : 'lift', part: unmet.part };
}

/** Ways around a condition: lifting one of the two away from the other, with whatever carries it. */
function detours(snapshot: Snapshot, unmet: Unmet, host: number, op: StripOp | null): StripOp[] {
  const { mechanism, state } = snapshot;
  if (unmet.joint !== undefined && op && op.kind !== 'release') {
    const inside = snapshot.carried(op.part);
    const ties = mechanism.ends[unmet.joint]!.some((end) => inside.has(end));
    // a made joint goes wherever its two sides go: only by taking the other side along does it stop holding
    if (ties) return takingAlong(mechanism, state, unmet.joint, inside);
  }
  const blocker = unmet.joint === undefined ? unmet.part : mechanism.to[unmet.joint]!;
  const own = op?.kind === 'open' || op?.kind === 'lift' ? op.part : -1;
  const over = couldCarry(mechanism, blocker);
  const under = couldCarry(mechanism, host);
  const along = (part: number, other: number) => snapshot.carried(part).has(other);
  const away = [...over].filter((part) => !under.has(part) || !along(part, host));
  const aside = [...under].filter((part) => part !== own && (!over.has(part) || !along(part, blocker)));
  const lift = (part: number): StripOp => ({ kind: 'lift', part });
  if (unmet.need !== 'open') return [...away, ...aside].map(lift);
  const opens = away.map((part): StripOp => ({ kind: 'open', part }));
  // a carrier that is still seated has to be opened first, and that is an option of its own
  const carriers = (host: number) => host !== mechanism.base && state.status[host] !== SEATED;
  return [...opens, ...aside.map(lift), ...leavingIt(mechanism, state, unmet.part!, carriers)];
}

/** A part that is held to what is leaving may come along instead, once nothing holds it to what stays. */
function takingAlong(mechanism: Mechanism, state: DeviceState, joint: number, inside: ReadonlySet<number>): StripOp[] {
  if (!inside.has(mechanism.to[joint]!)) return [];
  const along = (host: number) => inside.has(host);
  return mechanism.held[joint]!.flatMap((part) => (inside.has(part) ? [] : leavingIt(mechanism, state, part, along)));
}

/**
 * Releases after which a part would be carried by hosts of the given kind: its firm joints to others, where one to such
 * a host decides. A part without any stays where it lies.
 */
function leavingIt(
  mechanism: Mechanism,
  state: DeviceState,
  part: number,
  toward: (host: number) => boolean,
): StripOp[] {
  const made = mechanism.holding[part]!.filter((joint) => !state.released[joint]);
  const decides = (joint: number) => toward(mechanism.to[joint]!);
  const firm = made.filter((joint) => isFirm(mechanism, joint));
  const wired = made.filter((joint) => isWired(mechanism, joint));
  if (!firm.some(decides) && !wired.some(decides)) return [];
  const others = [...firm, ...(firm.some(decides) ? [] : wired)].filter((joint) => !decides(joint));
  return others.filter((joint) => mechanism.releasable[joint]).map((joint): StripOp => ({ kind: 'release', joint }));
}

/** What takes a carried part from its carrier: its own lift, or releases that leave it to another. */
function partings(mechanism: Mechanism, state: DeviceState, part: number, inside: ReadonlySet<number>): StripOp[] {
  const lift: StripOp = { kind: 'lift', part };
  const staysBehind = mechanism.holding[part]!.some((joint) => !inside.has(mechanism.to[joint]!));
  if (!staysBehind) return [lift];
  const releases = mechanism.holding[part]!.filter(
    (joint) =>
      !state.released[joint] &&
      mechanism.releasable[joint] &&
      (isFirm(mechanism, joint) || isWired(mechanism, joint)) &&
      inside.has(mechanism.to[joint]!),
  );
  return [lift, ...releases.map((joint): StripOp => ({ kind: 'release', joint }))];
}

/** Dead by what isolates alone, or by all that isolates together, or without the battery; or lifted away from it. */
function isolationNeeds(mechanism: Mechanism, state: DeviceState, host: number, op: StripOp | null): StripOp[][] {
  const { alone, jointly, cells, battery } = mechanism.isolation;
  const own = op?.kind === 'open' || op?.kind === 'lift' ? op.part : -1;
  const aside = [...couldCarry(mechanism, host)]
    .filter((part) => part !== own && !cells.includes(part))
    .map((part): StripOp => ({ kind: 'lift', part }));
  const byAlone = alone.map((joint): StripOp => ({ kind: 'release', joint }));
  const left = jointly.filter((joint) => !state.released[joint]);
  if (left.length > 0) return left.map((joint) => [{ kind: 'release', joint }, ...byAlone, ...aside]);
  if (byAlone.length > 0) return [[...byAlone, ...aside]];
  return [[...couldCarry(mechanism, battery)].map((part): StripOp => ({ kind: 'lift', part })).concat(aside)];
}

/** How many operations deep a detour is followed to see whether it comes back to what it is to avoid. */
const DETOUR_DEPTH = 4;

/** Would this detour ask for the very operation that it is to replace? */
function asksFor(snapshot: Snapshot, detour: StripOp, avoided: StripOp): boolean {
  const { mechanism, state } = snapshot;
  const goal = opKey(avoided);
  const seen = new Set<string>();
  let level = [detour];
  for (let depth = 0; depth < DETOUR_DEPTH && level.length > 0; depth++) {
    const next: StripOp[] = [];
    for (const op of level) {
      if (changesNothing(state, op)) continue;
      for (const unmet of snapshot.unmet(op)) {
        if (unmet.need === 'isolated' && mechanism.isolation.alone.length > 0) continue;
        const asked = direct(unmet);
        const key = opKey(asked);
        if (key === goal) return true;
        // what is only open may be so by its carrier, and what a carried part asks for goes away with that part
        if (unmet.need === 'open' || unmet.via !== undefined || seen.has(key)) continue;
        seen.add(key);
        next.push(asked);
      }
    }
    level = next;
  }
  return false;
}

/** The part and all that could carry it, the base left out. */
export function couldCarry(mechanism: Mechanism, part: number): ReadonlySet<number> {
  const known = carriers.get(mechanism) ?? new Map<number, ReadonlySet<number>>();
  carriers.set(mechanism, known);
  const found = known.get(part) ?? carriersOf(mechanism, part);
  known.set(part, found);
  return found;
}

const carriers = new WeakMap<Mechanism, Map<number, ReadonlySet<number>>>();

function carriersOf(mechanism: Mechanism, part: number): Set<number> {
  const found = new Set(part === mechanism.base ? [] : [part]);
  for (const each of found) {
    for (const joint of couldDecide(mechanism, each)) {
      const host = mechanism.to[joint]!;
      if (host !== mechanism.base) found.add(host);
    }
  }
  return found;
}

/** Joints that can come to decide what a part is carried by: plugs only where nothing else holds it. */
function couldDecide(mechanism: Mechanism, part: number): readonly number[] {
  const all = mechanism.holding[part]!;
  if (all.every((joint) => mechanism.tether[joint])) return all;
  return all.filter((joint) => !mechanism.tether[joint] || isWired(mechanism, joint));
}

function unique(ops: readonly StripOp[]): StripOp[] {
  return [...new Map(ops.map((op) => [opKey(op), op])).values()];
}
