import { type BondJoint, type DeviceMap, jointById } from '../../model/device-map/index.ts';
import { type DeviceState, isDead, type Mechanism } from '../../planner/holds/index.ts';
import type { Op } from '../../planner/drafts/index.ts';
import { cautionFor } from '../../planner/words/index.ts';

/** A clock runs for waits of so many seconds and more; a shorter one is held by hand and counted under the breath. */
export const CLOCK_S = 20;

/** One press stands for what one hand does in one place: more places than these are not held in mind (guess). */
const MOST_PLACES = 5;

/**
 * The operations at the head of what is ahead that one press does: taking one part off, putting one part on, or working
 * one bond, as a hand does them without looking up. What has a caution, a count or a test of its own, what is live, and
 * what a clock runs for begins a step of its own.
 * @param isOver is the first one waited for already?
 */
export function together(mechanism: Mechanism, device: DeviceState, ops: readonly Op[], isOver = false): readonly Op[] {
  const [first] = ops;
  if (!first) return [];
  const dead = isDead(mechanism, device);
  const caution = cautionFor(mechanism.map, first, dead);
  const group = [first];
  const places = new Set(placesOf(mechanism.map, first));
  for (const op of ops.slice(1)) {
    const last = group.at(-1)!;
    placesOf(mechanism.map, op).forEach((place) => places.add(place));
    if (places.size > MOST_PLACES || (op.face !== null && first.face !== null && op.face !== first.face)) break;
    const isWaited = (last.wait_s ?? 0) >= CLOCK_S && !(isOver && last === first);
    if (isWaited || !isJoined(mechanism, last, op) || !isQuiet(mechanism.map, op, caution, dead)) break;
    group.push(op);
  }
  return group;
}

/** The places of the device that a hand goes to for an operation: each screw is one, and a part is one whatever is done to it. */
function placesOf(map: DeviceMap, { id, joint: jointId, part, kind }: Op): readonly string[] {
  const joint = jointById(map, jointId);
  if (kind !== 'procedure' && joint?.type === 'screw') return joint.points.map((point) => `${joint.id}/${point.id}`);
  return [part ?? jointId ?? id];
}

/** What is in hand by its name: after its wait is over that is what comes straight after it. */
export function leadOf(group: readonly Op[], isOver: boolean): Op {
  return isOver && group.length > 1 ? group[1]! : group[0]!;
}

/** Does an operation bring nothing that has to be read or decided first? */
function isQuiet(map: DeviceMap, op: Op, caution: string | null, dead: boolean): boolean {
  const own = cautionFor(map, op, dead);
  return !op.live && (own === null || own === caution);
}

/** What one hand movement leads over to the next, on the same part. */
function isJoined(mechanism: Mechanism, last: Op, next: Op): boolean {
  const { map } = mechanism;
  // what was unplugged is bent aside in the same move
  if (next.name === 'bend-aside') return next.joint === last.joint;
  // what is cut edge by edge, or isolates, is a step of its own
  if (isCutBond(map, last) || isCutBond(map, next)) return false;
  if (isIsolating(mechanism, last) || isIsolating(mechanism, next)) return false;
  const follows = FOLLOWS[doing(map, last)];
  if (!follows?.includes(doing(map, next))) return false;
  // the seal that closes a face is worked by itself, before its part stands over it and after
  const seal = [last, next].some(({ joint: id }) => isSeal(jointById(map, id)));
  if (seal && !SEAL.some(([a, b]) => doing(map, last) === a && doing(map, next) === b)) return false;
  // lenses that lie bare together, with one cloth
  if (isLensWiped(last) && isLensWiped(next)) return true;
  // plugs side by side, whatever hangs on each
  if (isPlugging(map, last) && isPlugging(map, next)) return true;
  const parts = partsOf(map, last);
  return partsOf(map, next).some((each) => parts.includes(each));
}

function isLensWiped({ name, part }: Op): boolean {
  return name === 'wipe' && part !== undefined;
}

function isCutBond(map: DeviceMap, { joint: id, kind }: Op): boolean {
  const joint = jointById(map, id);
  return (
    kind === 'release' && joint?.type === 'bond' && (joint.segments ?? []).some(({ depth }) => depth !== undefined)
  );
}

type Doing = 'plug' | 'unplug' | Op['kind'] | NonNullable<Op['name']>;

/** A plug is not a fastener: which of its clicks was heard is known only where plugs stand together. */
function doing(map: DeviceMap, op: Op): Doing {
  if (op.kind === 'procedure') return op.name!;
  const joint = jointById(map, op.joint);
  if (joint?.type !== 'connector') return op.kind;
  return op.kind === 'make' ? 'plug' : 'unplug';
}

function isPlugging(map: DeviceMap, op: Op): boolean {
  return ['plug', 'unplug'].includes(doing(map, op));
}

/** What may come straight after what in one step. */
const FOLLOWS: Readonly<Partial<Record<Doing, readonly Doing[]>>> = {
  release: ['release', 'unplug', 'open', 'lift'],
  unplug: ['unplug', 'release', 'lift'],
  clean: ['clean', 'wipe'],
  wipe: ['wipe', 'dry'],
  dry: ['lay', 'liner-off'],
  lay: ['lay', 'liner-off', 'fit', 'close', 'make'],
  tack: ['tack', 'liner-off', 'fit', 'close', 'make'],
  'liner-off': ['liner-off', 'fit', 'close', 'make'],
  fit: ['close', 'make', 'press'],
  close: ['make', 'press'],
  make: ['make', 'press', 'close'],
  plug: ['plug'],
  press: ['press', 'make'],
};

/** Of what may, that which may at the seal of a face: its liner comes off by itself. */
const SEAL: readonly (readonly [Doing, Doing])[] = [
  ['clean', 'clean'],
  ['clean', 'wipe'],
  ['wipe', 'wipe'],
  ['wipe', 'dry'],
  ['dry', 'lay'],
  ['lay', 'lay'],
  ['close', 'make'],
  ['fit', 'make'],
  ['make', 'make'],
  ['make', 'press'],
  ['press', 'make'],
  ['release', 'release'],
];

function isSeal(joint: DeviceMap['joints'][number] | undefined): joint is BondJoint {
  return joint?.type === 'bond' && joint.style === 'perimeter';
}

function isIsolating({ joint, isolation }: Mechanism, { joint: id }: Op): boolean {
  const number = id === undefined ? -1 : joint.get(id)!;
  return isolation.alone.includes(number) || isolation.jointly.includes(number);
}

function partsOf(map: DeviceMap, op: Op): readonly string[] {
  if (op.part !== undefined) return [op.part];
  return jointById(map, op.joint)?.holds ?? [];
}
