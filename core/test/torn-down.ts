import { type DeviceMap, type Joint, type Part, type Point } from '../src/model/device-map/index.ts';
import {
  applied,
  assembled,
  changesNothing,
  type DeviceState,
  everyOp,
  liveJoints,
  type Mechanism,
  mechanismOf,
  OFF,
  play,
  SEATED,
  type StripOp,
  unmetFor,
  type Wait,
} from '../src/planner/holds/index.ts';
import type { Entry, Line, SeenPart, Teardown, Thing } from '../src/teardown/record/index.ts';

/** Small numbers that look random, the same each time. */
export function dice(seed: number): () => number {
  let state = seed * 2654435761 + 1;
  return () => {
    state = (Math.imul(state ^ (state >>> 15), 2246822519) + 3266489917) | 0;
    return ((state >>> 0) % 100_000) / 100_000;
  };
}

/** A device whose map is known, taken apart as somebody would tell it who has none; photographed after each open and lift. */
export function tornDown(map: DeviceMap, seed: number, { photographed = true } = {}): Teardown {
  const mechanism = mechanismOf(map);
  const roll = dice(seed);
  const rules = { live: liveJoints(mechanism, assembled(mechanism)) };
  const record: Line[] = [];
  const photos: { id: string; after: number }[] = [{ id: 'f0', after: 0 }];
  const seen = new Map<string, { photo: string } & Thing>();
  let state = assembled(mechanism);
  look(mechanism, state, 'f0', seen);
  for (;;) {
    const ops = everyOp(mechanism).filter(
      (op) => !changesNothing(state, op) && unmetFor(mechanism, state, op, rules).length === 0,
    );
    // what is opened is mostly lifted next, and nothing is opened that can be lifted
    const lifts = ops.filter(({ kind }) => kind === 'lift');
    const others = ops.filter(
      (op) =>
        op.kind === 'release' || (op.kind === 'open' && !lifts.some((lift) => 'part' in lift && lift.part === op.part)),
    );
    const choice = lifts.length > 0 && roll() < 0.8 ? lifts : others.length > 0 ? others : lifts;
    const op = choice[Math.floor(roll() * choice.length)];
    if (!op) break;
    record.push(told(mechanism, op, state));
    state = applied(mechanism, state, op);
    if (photographed && op.kind !== 'release') {
      const id = `f${record.length}`;
      photos.push({ id, after: record.length });
      look(mechanism, state, id, seen);
    }
  }
  const { format: _, version: __, parts, joints, fasteners, ...device } = map;
  return {
    device,
    fasteners,
    hinges: joints.filter((joint) => joint.type === 'hinge'),
    parts: parts.map((part) => seenPart(map, part)),
    record,
    photos: photographed ? photos : [],
    seen: photographed ? [...seen.values()] : [],
    answers: [],
    repairs: [],
  };
}

function told({ map, base }: Mechanism, op: StripOp, state: DeviceState): Line {
  if (op.kind !== 'release') {
    const part = map.parts[op.part]!;
    const place = state.group[op.part]!;
    return { kind: op.kind, part: part.id, ...(place === base ? {} : { on: map.parts[place]!.id }) };
  }
  const { id, under: _, ...joint } = map.joints[op.joint]! as Joint & { points?: Point[] };
  return { kind: 'release', joint: id, ...joint } as Line;
}

function seenPart({ parts }: DeviceMap, mapped: Part): SeenPart {
  const { z, under: _, ...part } = mapped;
  const nearer = (each: Part) => (part.face === 'back' ? each.z.bottom > z.bottom : each.z.top < z.top);
  const layers = new Set(
    parts
      .filter((each) => each.face === part.face && nearer(each))
      .map((each) => (part.face === 'back' ? each.z.bottom : each.z.top)),
  );
  return { ...part, layer: layers.size };
}

/** What can be seen: nothing of the device lies over it any more. */
function look(mechanism: Mechanism, state: DeviceState, photo: string, seen: Map<string, { photo: string } & Thing>) {
  const { map } = mechanism;
  const isFree = (waits: readonly Wait[]) =>
    waits.every((wait) => wait.part === undefined || state.status[wait.part] !== SEATED);
  map.joints.forEach(({ id }, joint) => {
    const key = `joint ${id}`;
    if (!seen.has(key) && mechanism.releasable[joint] && isFree(mechanism.jointUnder[joint]!))
      seen.set(key, { joint: id, photo });
  });
  map.parts.forEach(({ id }, part) => {
    const key = `part ${id}`;
    if (!seen.has(key) && state.status[part] !== OFF && isFree(mechanism.partUnder[part]!))
      seen.set(key, { part: id, photo });
  });
}

/** Is it so on this device: can the thing not be done while the entry does not hold? */
export function isTrue(mechanism: Mechanism, thing: Thing, entry: Entry): boolean {
  const isKept = (op: StripOp) => {
    if (entry.joint !== undefined)
      return !(op.kind === 'release' && mechanism.map.joints[op.joint]!.id === entry.joint);
    const { part, until } = entry;
    if (op.kind === 'release' || mechanism.map.parts[op.part]!.id !== part) return true;
    return until === 'off' && op.kind === 'open';
  };
  const start = assembled(mechanism);
  const { state } = play(mechanism, start, everyOp(mechanism).filter(isKept), { live: liveJoints(mechanism, start) });
  return thing.joint === undefined
    ? state.status[mechanism.part.get(thing.part)!] === SEATED
    : state.released[mechanism.joint.get(thing.joint)!] === 0;
}
