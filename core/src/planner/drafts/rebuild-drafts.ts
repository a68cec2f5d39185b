import { withAllPredecessors } from './task.ts';
import { inverse, type DeviceState, type Mechanism, OFF, type StripOp } from '../holds/index.ts';
import { TIMES } from './estimates.ts';
import type { Move } from '../search/index.ts';
import { after, type Draft, physicalDraft, procedureDraft } from './draft.ts';
import { opId, physicalId } from './op-id.ts';
import type { Policy } from '../../model/policy/index.ts';
import { placesOnMat } from './strip.ts';
import type { WayBack } from './way-back.ts';

export interface Renewal {
  readonly moves: readonly Move[];
  readonly replaced: ReadonlySet<number>;
  readonly policy: Policy;
}

/** The rebuild as drafts, each operation the undoing of one on the path. */
export function rebuildDrafts(
  mechanism: Mechanism,
  state: DeviceState,
  { path, touched, whole }: WayBack,
  renewal: Renewal,
): Draft[] {
  const onMat = placesOnMat(mechanism, whole, path.ops);
  const ids = path.ops.map((op) => backId(mechanism, op));
  const followers: string[][] = path.ops.map(() => []);
  path.before.forEach((before, index) => before.forEach((each) => followers[each]!.push(ids[index]!)));

  const opened = new Set(path.ops.flatMap((op) => (op.kind === 'open' ? [op.part] : [])));
  const movedOff = new Map(
    renewal.moves.flatMap((move) =>
      move.parts.filter((part) => state.status[part] === OFF).map((part) => [part, move.replaced] as const),
    ),
  );
  const drafts = path.ops.map((op, index) => {
    const part = op.kind === 'release' ? -1 : op.part;
    const onto = movedOff.get(part);
    const isNew =
      op.kind === 'lift' &&
      (renewal.replaced.has(part) || mechanism.map.parts[part]!.reuse === 'single-use') &&
      state.status[part] === OFF;
    const moved = op.kind === 'lift' && onto !== undefined && onto !== mechanism.base;
    return physicalDraft(mechanism, {
      physical: inverse(op, moved ? onto : undefined, op.kind === 'lift' ? opened.has(part) : undefined),
      after: followers[index]!,
      onMat: moved || onMat[index]!,
      policy: renewal.policy,
      stage: moved ? 'move' : 'rebuild',
      isNew,
      staysOpen: op.kind === 'lift' && opened.has(part),
    });
  });
  // the natural sequence is the strip-down's, turned round
  const joined = beforeTheirCarrier(mechanism, drafts.toReversed(), renewal.moves);
  // what was lifted at any time is renewed when it is fitted
  const lifted = new Set(touched.ops.flatMap((op) => (op.kind === 'lift' ? [op.part] : [])));
  const renewed = renewal.moves.flatMap((move) => renewedPieces(mechanism, move, lifted));
  const fresh = [...joined, ...renewed].map((draft) => {
    const pieces = renewed.filter((piece) => draft.op.id === opId('fit', renewalHost(mechanism, renewal.moves, piece)));
    return pieces.length > 0
      ? after(
          draft,
          pieces.map((piece) => piece.op.id),
        )
      : draft;
  });
  return fresh;
}

function backId(mechanism: Mechanism, op: StripOp): string {
  return physicalId(mechanism, inverse(op));
}

/** What moves over is on the new part before that is fitted: work on the mat, done first. */
function beforeTheirCarrier(mechanism: Mechanism, drafts: readonly Draft[], moves: readonly Move[]): Draft[] {
  const { map } = mechanism;
  const ordered = new Map(withAllPredecessors(drafts.map(({ task }) => task)).map((task) => [task.id, task.after]));
  const carriers = new Map(
    moves
      .filter(({ replaced }) => replaced !== mechanism.base)
      .map((move) => [opId('fit', map.parts[move.replaced]!.id) as string, move]),
  );
  const onCarrier = new Map(
    [...carriers].map(([fitting, move]) => {
      const along = new Set([move.replaced, ...move.parts, ...move.included]);
      const first = drafts.filter(({ op }) => {
        if (ordered.get(op.id)!.has(fitting)) return false;
        if (op.kind === 'make') return mechanism.ends[mechanism.joint.get(op.joint!)!]!.every((end) => along.has(end));
        const part = mechanism.part.get(op.part!)!;
        return part !== move.replaced && along.has(part);
      });
      return [fitting, first.map(({ op }) => op.id as string)] as const;
    }),
  );
  const pieces = new Set([...onCarrier.values()].flat());
  return drafts.map((draft) => {
    const own = after(draft, onCarrier.get(draft.op.id) ?? []);
    return pieces.has(draft.op.id) ? { ...own, op: { ...own.op, stage: 'move' } } : own;
  });
}

function renewedPieces(mechanism: Mechanism, { renewed, replaced }: Move, lifted: ReadonlySet<number>): Draft[] {
  // what never leaves a base hangs on it by a hinge, and comes with the new one
  const pieces = replaced === mechanism.base ? [] : renewed.filter((part) => !lifted.has(part));
  return pieces.map((part) => {
    const { id } = mechanism.map.parts[part]!;
    return procedureDraft({
      name: 'renew',
      part: id,
      seconds: TIMES.renewPiece,
      stage: 'move',
      after: [],
    });
  });
}

function renewalHost(mechanism: Mechanism, moves: readonly Move[], piece: Draft): string {
  const part = mechanism.part.get(piece.op.part!)!;
  return mechanism.map.parts[moves.find((move) => move.renewed.includes(part))!.replaced]!.id;
}
