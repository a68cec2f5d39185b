import {
  carried,
  type DeviceState,
  liveJoints,
  type Mechanism,
  OFF,
  type Rules,
  SEATED,
  type Unmet,
  unmetFor,
} from '../holds/index.ts';
import type { Goal } from './least-set.ts';
import { couldCarry, type Need, needsFor } from './need.ts';
import type { Target } from './target.ts';

/** The state that a target asks for, as the needs that are still open. */
export function goalOf(mechanism: Mechanism, start: DeviceState, targets: readonly Target[], rules: Rules): Goal {
  const goals = targets.map((target): Goal => {
    if ('full' in target) return bareBase(mechanism, start, keptWith(mechanism, start, target.keep ?? []));
    if ('reach' in target) return reached(mechanism, target.reach, rules);
    const part = mechanism.part.get('replace' in target ? target.replace : target.remove)!;
    return part === mechanism.base ? bareBase(mechanism, start, new Set()) : (state) => off(state, part);
  });
  return (state) => goals.flatMap((goal) => goal(state));
}

const NONE: ReadonlySet<number> = new Set();

/** Is this target reached in this state? */
export function isReached(mechanism: Mechanism, state: DeviceState, target: Target): boolean {
  const part = 'replace' in target ? target.replace : 'remove' in target ? target.remove : undefined;
  const number = mechanism.part.get(part ?? '') ?? mechanism.base;
  // that a part is off is seen at once; what else may be asked for needs to know what is live
  if (number !== mechanism.base) return state.status[number] === OFF;
  if (goalOf(mechanism, state, [target], { live: NONE })(state).length === 0) return true;
  // a bare base is bare whatever is live; only what may be released asks for it
  if (!('reach' in target) || !mechanism.joint.has(target.reach)) return false;
  const live = liveJoints(mechanism, state);
  return goalOf(mechanism, state, [target], { live })(state).length === 0;
}

function off(state: DeviceState, part: number): Need[] {
  return state.status[part] === OFF ? [] : [{ options: [{ kind: 'lift', part }] }];
}

function reached(mechanism: Mechanism, id: string, rules: Rules): Goal {
  const part = mechanism.part.get(id);
  if (part === undefined) {
    const joint = mechanism.joint.get(id)!;
    const op = { kind: 'release', joint } as const;
    return (state) => {
      if (state.released[joint]) return [];
      const unmet = unmetFor(mechanism, state, op, rules).filter((each) => each.joint !== joint);
      return needsFor(mechanism, state, unmet, mechanism.to[joint]!, op, rules);
    };
  }
  const op = { kind: 'open', part } as const;
  return (state) => {
    if (state.status[part] !== SEATED) return [];
    const over = unmetFor(mechanism, state, op, rules).filter(
      (each) => each.via === undefined && ownWait(mechanism, part, each),
    );
    return needsFor(mechanism, state, over, part, op, rules);
  };
}

/** Of what forbids opening a part, that which lies over it: its own `under`, not the joints that hold it. */
function ownWait(mechanism: Mechanism, part: number, unmet: Unmet): boolean {
  return mechanism.partUnder[part]!.some((wait) =>
    wait.part === undefined ? wait.joint === unmet.joint : wait.part === unmet.part,
  );
}

function keptWith(mechanism: Mechanism, start: DeviceState, keep: readonly string[]): ReadonlySet<number> {
  const kept = new Set(keep.map((id) => mechanism.part.get(id)!));
  for (const part of [...kept]) carried(mechanism, start, part).forEach((each) => kept.add(each));
  return kept;
}

/** The base bare: every part off and every joint released, save solder, hinges, what self-parts, and what is kept. */
function bareBase(mechanism: Mechanism, start: DeviceState, kept: ReadonlySet<number>): Goal {
  const stays = (part: number) => part === mechanism.base || kept.has(part);
  const riding = jointsOfRiders(mechanism, start, kept);
  const joints = mechanism.map.joints.flatMap((each, joint) =>
    mechanism.releasable[joint] && each.type !== 'solder' && !mechanism.ends[joint]!.every(stays) && !riding.has(joint)
      ? [joint]
      : [],
  );
  const parts = mechanism.map.parts.flatMap((_, part) => (stays(part) ? [] : [part]));
  return (state) => [
    ...joints
      .filter((joint) => !state.released[joint])
      .map((joint): Need => ({ options: [{ kind: 'release', joint }] })),
    ...parts.flatMap((part) => leaving(mechanism, state, part)),
  ];
}

/** What holds a kept part to that which carries it: it stays made, also where the carrier comes off. */
function jointsOfRiders(mechanism: Mechanism, start: DeviceState, kept: ReadonlySet<number>): ReadonlySet<number> {
  const found = new Set<number>();
  if (kept.size === 0) return found;
  mechanism.map.parts.forEach((_, carrier) => {
    if (carrier === mechanism.base || kept.has(carrier)) return;
    const along = carried(mechanism, start, carrier);
    mechanism.map.joints.forEach((_, joint) => {
      const ends = mechanism.ends[joint]!;
      if (ends.every((end) => along.has(end)) && mechanism.held[joint]!.some((part) => kept.has(part)))
        found.add(joint);
    });
  });
  return found;
}

function leaving(mechanism: Mechanism, state: DeviceState, part: number): Need[] {
  if (state.status[part] === OFF) return [];
  const bound = boundTo(mechanism, state, part);
  if (bound.size === 1) return off(state, part);
  if (!bound.has(mechanism.base)) {
    if (state.group[part] !== mechanism.base) return [];
    const carriers = new Set([...bound].flatMap((each) => [...couldCarry(mechanism, each)]));
    return [{ options: [...carriers].map((each) => ({ kind: 'lift', part: each })) }];
  }
  const ties = [...bound].flatMap((each) => madeTies(mechanism, state, each));
  const hinged = madeTies(mechanism, state, part).some(
    (joint) => mechanism.map.joints[joint]!.type === 'hinge' && mechanism.ends[joint]!.includes(mechanism.base),
  );
  const solder = ties.filter((joint) => mechanism.releasable[joint]);
  // what a hinge keeps has gone as far as it can when it is open
  if (hinged || solder.length === 0) {
    return state.status[part] === SEATED ? [{ options: [{ kind: 'open', part }] }] : [];
  }
  return [{ options: [...new Set(solder)].map((joint) => ({ kind: 'release', joint })) }];
}

/** The part and what it stays bound to by solder and hinges. */
function boundTo(mechanism: Mechanism, state: DeviceState, part: number): Set<number> {
  const bound = new Set([part]);
  for (const each of bound) {
    for (const joint of madeTies(mechanism, state, each)) {
      for (const end of mechanism.ends[joint]!) if (state.group[end] === state.group[part]) bound.add(end);
    }
  }
  return bound;
}

function madeTies(mechanism: Mechanism, state: DeviceState, part: number): number[] {
  return mechanism.touching[part]!.filter((joint) => {
    const { type } = mechanism.map.joints[joint]!;
    return !state.released[joint] && (type === 'solder' || type === 'hinge');
  });
}

/** None of these parts lies with `carrier` any more. */
export function partedFrom(mechanism: Mechanism, carrier: number, parts: readonly number[]): Goal {
  return (state) =>
    parts
      .filter((part) => state.group[part] === state.group[carrier])
      .map((part) => ({
        options: [...couldCarry(mechanism, part)]
          .filter((each) => each !== carrier)
          .map((each) => ({ kind: 'lift', part: each })),
      }));
}
