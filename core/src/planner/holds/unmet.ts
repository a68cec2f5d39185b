import type { Mechanism, Wait } from './mechanism.ts';
import type { StripOp } from './operation.ts';
import {
  carried,
  type DeviceState,
  groupOfJoint,
  isDead,
  liesApartFromBattery,
  madeBetween,
  OFF,
  OPEN,
  SEATED,
} from './device-state.ts';

/**
 * A condition that is directly in force: what still has to be released, open, off, or dead. `via` is the carried part
 * that brings the condition, where it is not the operation's own.
 */
export type Unmet =
  | { readonly joint: number; readonly need: 'released' | 'isolated'; readonly part?: undefined; readonly via?: number }
  | {
      readonly part: number;
      readonly need: 'open' | 'off' | 'isolated';
      readonly joint?: undefined;
      readonly via?: number;
    };

/** Conditions that a plan adds to the map's own: by policy, by parts that come out first. */
export interface ExtraWaits {
  readonly joint: ReadonlyMap<number, readonly Wait[]>;
  readonly part: ReadonlyMap<number, readonly Wait[]>;
}

export interface Rules {
  /** joints that may be released while the device is live, since nothing can make it dead before */
  readonly live: ReadonlySet<number>;
  readonly extra?: ExtraWaits;
  /** false: isolation is asked of no joint (used to find out what is live) */
  readonly isolation?: boolean;
  /**
   * What came to ride on an open part has to be free of what lies over it before it counts as open, or leaves with it. The
   * map's rules ask that only where it rides already when its carrier is opened; a plan asks it always.
   */
  readonly freeRiders?: boolean;
}

/** The rules by which a plan is made: the map's, and that nothing leaves from beneath what still lies over it. */
export function planRules(live: ReadonlySet<number>, extra?: ExtraWaits): Rules {
  return { live, extra, freeRiders: true };
}

const NOTHING: readonly Wait[] = [];

/** Everything that forbids this operation now; empty means it is possible. Assumes it would change something. */
export function unmetFor(mechanism: Mechanism, state: DeviceState, op: StripOp, rules: Rules): Unmet[] {
  switch (op.kind) {
    case 'release':
      return unmetForRelease(mechanism, state, op.joint, rules);
    case 'open':
      return unmetForOpen(mechanism, state, op.part, rules);
    case 'lift':
      return unmetForLift(mechanism, state, op.part, rules);
  }
}

function unmetForRelease(mechanism: Mechanism, state: DeviceState, joint: number, rules: Rules): Unmet[] {
  const host = mechanism.to[joint]!;
  const place = groupOfJoint(mechanism, state, joint);
  const waits = (wait: Wait) => unmetWait(mechanism, state, wait, place, host, rules);
  const unmet = [...mechanism.jointUnder[joint]!, ...(rules.extra?.joint.get(joint) ?? NOTHING)].flatMap(waits);
  // a hinge and what parts by itself are never released: that is what holds in the end
  if (!mechanism.releasable[joint]) return [...unmet, { joint, need: 'released' }];
  if (rules.isolation !== false && isolationMissing(mechanism, state, joint) && !rules.live.has(joint)) {
    unmet.push(...isolators(mechanism, state));
  }
  return unmet;
}

function unmetForOpen(mechanism: Mechanism, state: DeviceState, part: number, rules: Rules): Unmet[] {
  const leaving = carried(mechanism, state, part);
  return [
    ...madeBetween(mechanism, state, leaving)
      .filter((joint) => !mechanism.tether[joint])
      .map((joint) => stillMade(mechanism, joint, part, leaving)),
    ...unmetUnders(mechanism, state, part, leaving, rules),
  ];
}

function unmetForLift(mechanism: Mechanism, state: DeviceState, part: number, rules: Rules): Unmet[] {
  const leaving = carried(mechanism, state, part);
  const made = madeBetween(mechanism, state, leaving).map((joint) => stillMade(mechanism, joint, part, leaving));
  if (state.status[part] === SEATED || rules.freeRiders)
    return [...made, ...unmetUnders(mechanism, state, part, leaving, rules)];
  const extra = rules.extra?.part.get(part) ?? NOTHING;
  return [...made, ...extra.flatMap((wait) => unmetWait(mechanism, state, wait, state.group[part]!, part, rules))];
}

function stillMade(mechanism: Mechanism, joint: number, part: number, leaving: ReadonlySet<number>): Unmet {
  const ends = mechanism.ends[joint]!;
  if (ends.includes(part)) return { joint, need: 'released' };
  return { joint, need: 'released', via: ends.find((end) => leaving.has(end)) };
}

/** What still lies over a part that is to be opened, and over what it carries, seen from outside. */
function unmetUnders(
  mechanism: Mechanism,
  state: DeviceState,
  part: number,
  leaving: ReadonlySet<number>,
  rules: Rules,
): Unmet[] {
  const place = state.group[part]!;
  const own = [...mechanism.partUnder[part]!, ...(rules.extra?.part.get(part) ?? NOTHING)];
  const unmet = own.flatMap((wait) => unmetWait(mechanism, state, wait, place, part, rules));
  return unique([...unmet, ...overRiders(mechanism, state, part, leaving, rules)]);
}

/** What still lies over the parts that a part carries, seen from outside. */
function overRiders(
  mechanism: Mechanism,
  state: DeviceState,
  part: number,
  leaving: ReadonlySet<number>,
  rules: Rules,
): Unmet[] {
  return [...leaving].flatMap((via) => (via === part ? [] : overRider(mechanism, state, part, via, leaving, rules)));
}

function overRider(
  mechanism: Mechanism,
  state: DeviceState,
  carrier: number,
  via: number,
  leaving: ReadonlySet<number>,
  rules: Rules,
): Unmet[] {
  return mechanism.partUnder[via]!.filter((wait) => speaksOfOutside(mechanism, wait, leaving))
    .flatMap((wait) => unmetWait(mechanism, state, wait, state.group[carrier]!, carrier, rules))
    .map((each) => ({ ...each, via }));
}

function speaksOfOutside(mechanism: Mechanism, wait: Wait, inside: ReadonlySet<number>): boolean {
  if (wait.part !== undefined) return !inside.has(wait.part);
  return mechanism.ends[wait.joint]!.every((end) => !inside.has(end));
}

/** Does an `under` entry of what this operation is about hold, by the map's own rules? */
export function isMet(mechanism: Mechanism, state: DeviceState, op: StripOp, wait: Wait): boolean {
  const host = op.kind === 'release' ? mechanism.to[op.joint]! : op.part;
  return unmetWait(mechanism, state, wait, state.group[host]!, host, MAP_RULES).length === 0;
}

const MAP_RULES: Rules = { live: new Set() };

/** @param host the part on which the waiting thing lies: it is carried where this part is carried. */
function unmetWait(
  mechanism: Mechanism,
  state: DeviceState,
  wait: Wait,
  place: number,
  host: number,
  rules: Rules,
): readonly Unmet[] {
  if (wait.part === undefined) {
    const met = state.released[wait.joint] || groupOfJoint(mechanism, state, wait.joint) !== place;
    return met ? [] : [{ joint: wait.joint, need: 'released' }];
  }
  const status = state.status[wait.part]!;
  if (status === OFF || state.group[wait.part] !== place) return [];
  if (wait.until === 'off') return [{ part: wait.part, need: 'off' }];
  if (status === OPEN) return [];
  return overItsCarrier(mechanism, state, wait.part, place, host, rules) ?? [{ part: wait.part, need: 'open' }];
}

/** What keeps a part from being open with an open carrier that does not carry the host; null where there is none. */
function overItsCarrier(
  mechanism: Mechanism,
  state: DeviceState,
  part: number,
  place: number,
  host: number,
  rules: Rules,
): readonly Unmet[] | null {
  let over: readonly Unmet[] | null = null;
  for (let carrier = 0; carrier < state.status.length; carrier++) {
    if (state.status[carrier] === SEATED || state.group[carrier] !== place || carrier === part) continue;
    const leaving = carried(mechanism, state, carrier);
    if (!leaving.has(part) || leaving.has(host)) continue;
    over = rules.freeRiders ? keepsRider(mechanism, state, carrier, part, leaving, rules) : [];
    if (over.length === 0) return over;
  }
  return over;
}

/**
 * What lies over a part that came to ride on an open carrier, and what still holds it to what stays. Whatever lies over it
 * is open by the map's own rules: two that lie over each other would ask for each other without end.
 */
function keepsRider(
  mechanism: Mechanism,
  state: DeviceState,
  carrier: number,
  part: number,
  leaving: ReadonlySet<number>,
  rules: Rules,
): Unmet[] {
  const holding = madeBetween(mechanism, state, leaving).filter(
    (joint) => !mechanism.tether[joint] && mechanism.ends[joint]!.includes(part),
  );
  return [
    ...holding.map((joint) => stillMade(mechanism, joint, carrier, leaving)),
    ...overRider(mechanism, state, carrier, part, leaving, { ...rules, freeRiders: false }),
  ];
}

/** Would releasing this joint now be work on a live device? */
export function isolationMissing(mechanism: Mechanism, state: DeviceState, joint: number): boolean {
  return (
    mechanism.isolation.asked[joint]! && !isDead(mechanism, state) && !liesApartFromBattery(mechanism, state, joint)
  );
}

/** What would bring the missing isolation: the joints that isolate, or the battery. */
function isolators(mechanism: Mechanism, state: DeviceState): Unmet[] {
  const { alone, jointly, battery } = mechanism.isolation;
  const joints = [...alone, ...jointly].filter((joint) => !state.released[joint]);
  if (joints.length > 0) return joints.map((joint) => ({ joint, need: 'isolated' }));
  return [{ part: battery, need: 'isolated' }];
}

function unique(unmet: readonly Unmet[]): Unmet[] {
  const seen = new Set<string>();
  return unmet.filter((each) => {
    const key = `${each.joint}/${each.part}/${each.need}`;
    return !seen.has(key) && seen.add(key);
  });
}
