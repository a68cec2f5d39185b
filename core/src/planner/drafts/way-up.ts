import { type DeviceMap, isOuter, type PartKind } from '../../model/device-map/index.ts';
import { inverse, type Mechanism, type StripOp } from '../holds/index.ts';
import type { Precedence } from '../search/index.ts';
import { type OpId, physicalId } from './op-id.ts';
import { touchedFunctions } from './touched.ts';

/**
 * What the operations of a way back are to the rules of order, by the ids of the rebuild's operations
 * (docs/device-map.md, *The order of a careful technician*).
 */
export interface WayUp {
  /** what closes the device from outside, and nothing but more of that comes after it */
  readonly outerClosings: ReadonlySet<string>;
  /** what ends the dead state: the leads, the jumper, a cell that lies in by itself */
  readonly endsOfDead: ReadonlySet<string>;
  /** parts that came out first, and their own joints */
  readonly removedFirst: ReadonlySet<string>;
  /** those of them that nothing asks for before the test */
  readonly late: ReadonlySet<string>;
  /** per operation all that comes after it in every order */
  readonly follows: ReadonlyMap<string, ReadonlySet<string>>;
}

/**
 * @param given how one would have come here from the whole device
 * @param needs per operation of it what it needs: on the way back, what comes after it
 */
export function wayUp(
  mechanism: Mechanism,
  given: Precedence,
  needs: (op: number) => ReadonlySet<number>,
  replaced: ReadonlySet<number>,
): WayUp {
  const before = given.ops.map((_, op) => new Set([...needs(op)].filter((each) => each !== op)));
  const path = { ...given, before };
  const ids = path.ops.map((op): OpId => physicalId(mechanism, inverse(op)));
  const named = (numbers: Iterable<number>) => new Set<string>([...numbers].map((each) => ids[each]!));
  const removed = removedFirst(mechanism, path);
  const ends = endsOfDead(mechanism, path);
  const outer = outerClosings(mechanism, path, removed);
  const asked = askedByTest(mechanism, path, removed, replaced);
  // what something else has to lie over, or is held to, goes in before that
  const covered = (op: number) =>
    path.ops.some(
      (other, later) =>
        !removed.has(later) &&
        !outer.has(later) &&
        (path.before[op]!.has(later) || isHeldTo(mechanism, other, path.ops[op]!)),
    );
  return {
    outerClosings: named(outer),
    endsOfDead: named(ends),
    removedFirst: named(removed),
    late: named([...removed].filter((op) => !ends.has(op) && !asked.has(op) && !covered(op))),
    follows: new Map(ids.map((id, index) => [id, named(path.before[index]!)])),
  };
}

function isHeldTo({ to, held }: Mechanism, op: StripOp, removed: StripOp): boolean {
  if (op.kind !== 'release') return false;
  const parts = removed.kind === 'release' ? held[removed.joint]! : [removed.part];
  return parts.includes(to[op.joint]!);
}

function removedFirst({ map, held }: Mechanism, { ops }: Precedence): Set<number> {
  const isFirst = (part: number) => map.parts[part]!.removeFirst === true;
  return new Set(
    ops.flatMap((op, index) =>
      (op.kind === 'release' ? held[op.joint]!.every(isFirst) : isFirst(op.part)) ? [index] : [],
    ),
  );
}

function endsOfDead({ isolation }: Mechanism, { ops }: Precedence): Set<number> {
  // a jumper that is out keeps it dead whatever leads are plugged in
  const isOut = (joint: number) => ops.some((op) => op.kind === 'release' && op.joint === joint);
  const jumpers = isolation.alone.filter(isOut);
  const joints = jumpers.length > 0 ? jumpers : [...isolation.alone, ...isolation.jointly];
  const ends = (op: StripOp) =>
    op.kind === 'release'
      ? joints.includes(op.joint)
      : joints.length === 0 && op.kind === 'lift' && op.part === isolation.battery;
  return new Set(ops.flatMap((op, index) => (ends(op) ? [index] : [])));
}

/**
 * What closes the device: a screw, bond or clip made, a part closed or fitted in one, of a display, cover or shell; and
 * of a mesh, label or gasket that can only come after such a closing. On it only more of these depend, and what came out
 * first.
 */
function outerClosings(mechanism: Mechanism, path: Precedence, removed: ReadonlySet<number>): Set<number> {
  const { map, held } = mechanism;
  const opened = new Set(path.ops.flatMap((op) => (op.kind === 'open' ? [op.part] : [])));
  const closes = (isIt: (part: DeviceMap['parts'][number]) => boolean) => (op: StripOp) => {
    if (op.kind === 'release') {
      const { type } = map.joints[op.joint]!;
      return ['screw', 'bond', 'clip'].includes(type) && held[op.joint]!.some((part) => isIt(map.parts[part]!));
    }
    return isIt(map.parts[op.part]!) && (op.kind === 'open' || !opened.has(op.part));
  };
  const closesOuter = closes(isOuter);
  const closesPiece = closes(({ kind }) => PIECES.has(kind));
  const outer = path.ops.map(closesOuter);
  const comesAfterOne = (index: number) => outer.some((is, each) => is && path.before[each]!.has(index));
  const candidates = new Set(
    path.ops.flatMap((op, index) => (outer[index] || (closesPiece(op) && comesAfterOne(index)) ? [index] : [])),
  );
  // what something else depends on closes nothing, and then neither does what comes before that
  for (let size = -1; size !== candidates.size;) {
    size = candidates.size;
    for (const each of candidates) {
      const isLast = [...path.before[each]!].every((later) => candidates.has(later) || removed.has(later));
      const isPieceAlone =
        !outer[each] && ![...candidates].some((other) => outer[other] && path.before[other]!.has(each));
      if (!isLast || isPieceAlone) candidates.delete(each);
    }
  }
  return candidates;
}

const PIECES: ReadonlySet<PartKind> = new Set(['mesh', 'label', 'gasket']);

/** Of what came out first, that which a function needs that something else in this plan has touched. */
function askedByTest(
  mechanism: Mechanism,
  { ops }: Precedence,
  removed: ReadonlySet<number>,
  replaced: ReadonlySet<number>,
): Set<number> {
  const { map } = mechanism;
  const others = ops.filter((_, index) => !removed.has(index));
  const touched = new Set(touchedFunctions(mechanism, others, replaced));
  const needed = new Set(map.functions.flatMap(({ id, needs }) => (touched.has(id) ? (needs ?? []) : [])));
  const serves = (functions: readonly string[] = []) => functions.some((id) => touched.has(id));
  const isAsked = (part: number) => {
    const { id, functions } = map.parts[part]!;
    return (
      needed.has(id) ||
      serves(functions) ||
      mechanism.holding[part]!.some((joint) => {
        const each = map.joints[joint]!;
        return needed.has(each.id) || ('functions' in each && serves(each.functions));
      })
    );
  };
  return new Set(
    [...removed].filter((index) => {
      const op = ops[index]!;
      return op.kind === 'release' ? mechanism.held[op.joint]!.some(isAsked) : isAsked(op.part);
    }),
  );
}
