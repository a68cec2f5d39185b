import {
  applied,
  type DeviceState,
  isMarkedLive,
  type Mechanism,
  type PhysicalOp,
  type StripOp,
  withHost,
} from '../holds/index.ts';
import { arrangeBack } from './arrange.ts';
import { movesOf, moveWork } from '../search/index.ts';
import { after, type Draft, type Op, physicalDraft, placesOnMat, workDrafts, opId } from '../drafts/index.ts';
import { type Policy } from '../policy/index.ts';

/** Taking off what moves over, and whatever else has to come off before anything can be put back. */
export function takeOffDrafts(
  mechanism: Mechanism,
  start: DeviceState,
  moving: ReturnType<typeof moveWork>,
  missing: readonly StripOp[],
  moves: ReturnType<typeof movesOf>,
  policy: Policy,
  live: ReadonlySet<number>,
): Draft[] {
  const included = new Set(moves.flatMap((move) => move.included));
  const work = workDrafts(mechanism, start, moving, policy, live, () => 'move').map((draft): Draft => {
    const { op } = draft;
    const joint = op.joint === undefined ? undefined : mechanism.joint.get(op.joint);
    const ends = joint === undefined ? [mechanism.part.get(op.part!)!] : mechanism.held[joint]!;
    return ends.some((part) => included.has(part)) ? { ...draft, op: { ...op, onBoth: true } } : draft;
  });
  const onMat = placesOnMat(mechanism, start, [...moving.ops, ...missing]).slice(moving.ops.length);
  const drafts = [...work];
  missing.forEach((op, index) => {
    const after = drafts.slice(-1).map((draft) => draft.op.id);
    const isLive = op.kind === 'release' && isMarkedLive(mechanism, live, op.joint);
    drafts.push(
      physicalDraft(mechanism, { physical: op, after, onMat: onMat[index]!, policy, stage: 'rebuild', live: isLive }),
    );
  });
  return drafts;
}

/** The move is done at the start of the rebuild, old and new side by side. */
export function afterMoves(drafts: readonly Draft[], moves: readonly Draft[]): Draft[] {
  const ids = moves.map(({ op }) => op.id);
  if (ids.length === 0) return [...drafts];
  return drafts.map((draft) => {
    if (draft.op.kind !== 'procedure') return after(draft, ids);
    // a bond that is undone in the move is cleaned after that
    return after(
      draft,
      ids.filter((id) => draft.op.joint !== undefined && id === opId('release', draft.op.joint)),
    );
  });
}

/** Names the group that each fitted part joins, where it is not the base. */
export function withPlaces(
  mechanism: Mechanism,
  start: DeviceState,
  ops: readonly Op[],
  drafts: readonly Draft[],
  found: ReturnType<typeof arrangeBack>,
): Op[] {
  const byId = new Map<string, PhysicalOp | undefined>(drafts.map(({ op, task }) => [op.id, task.physical]));
  let state = start;
  return found.order.map((id, index) => {
    const op = ops[index]!;
    const physical = byId.get(id);
    if (!physical) return op;
    const onto = found.onto.get(id);
    const placed = physical.kind === 'fit' && onto !== undefined ? { ...physical, onto } : physical;
    const resolved = withHost(mechanism, state, placed);
    state = applied(mechanism, state, resolved);
    if (resolved.kind !== 'fit' || resolved.onto === mechanism.base) return op;
    return { ...op, onto: mechanism.map.parts[resolved.onto]!.id };
  });
}
