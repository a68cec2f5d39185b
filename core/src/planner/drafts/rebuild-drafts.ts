import { withAllPredecessors } from './task.ts';
import {
  assembled,
  copyOf,
  inverse,
  isStripOp,
  type DeviceState,
  liveJoints,
  type Mechanism,
  OFF,
  type PhysicalOp,
  type StripOp,
  planRules,
} from '../holds/index.ts';
import { TIMES } from './estimates.ts';
import {
  leastSets,
  type Move,
  type Precedence,
  precedenceOf,
  rebuildWaits,
  noWork,
  opsOf,
  withOps,
  type WorkSet,
} from '../search/index.ts';
import { after, type Draft, physicalDraft, procedureDraft } from './draft.ts';
import { opId, physicalId } from './op-id.ts';
import type { Policy } from '../../model/policy/index.ts';
import { placesOnMat } from './strip.ts';

/** The way back: how one would have come from the whole device to this state, to be undone from its end. */
export interface WayBack {
  readonly whole: DeviceState;
  readonly path: Precedence;
  /** the same for everything that was undone at any time in this job, also what is back in its place */
  readonly touched: Precedence;
  /** bonds that were made again already: they may still want pressing and curing */
  readonly remade: ReadonlySet<number>;
  /** further strip-down work without which nothing could be put back */
  readonly missing: readonly StripOp[];
  readonly extra: ReturnType<typeof rebuildWaits>;
  readonly live: ReadonlySet<number>;
}

/**
 * @param history all that was done in this job until now
 * @param lacking joints that the new parts have no place for
 */
export function wayBack(
  mechanism: Mechanism,
  state: DeviceState,
  history: readonly PhysicalOp[],
  lacking: ReadonlySet<number>,
  display: 'taken-off' | 'on-flexes',
): WayBack {
  const whole = copyOf(assembled(mechanism));
  lacking.forEach((joint) => (whole.released[joint] = 1));
  const live = liveJoints(mechanism, whole);
  const undone = undoneSet(mechanism, state, whole);
  const wayDown = (keeping: 'taken-off' | 'on-flexes') => {
    const extra = rebuildWaits(mechanism, whole, keeping);
    return { extra, path: precedenceOf(mechanism, whole, undone, planRules(live, extra), true) };
  };
  const asKept = wayDown(display);
  const { extra, path } = asKept.path.complete ? asKept : wayDown('on-flexes');
  const rules = planRules(live, extra);
  const everUndone = withOps(undone, whole, history.filter(isStripOp));
  const touched = everUndone.weight === undone.weight ? path : precedenceOf(mechanism, whole, everUndone, rules, true);
  const remade = new Set(history.flatMap((op) => (op.kind === 'make' && !state.released[op.joint] ? [op.joint] : [])));
  const way = { whole, extra, live, touched, remade };
  const larger = path.complete ? undefined : leastSets(mechanism, whole, () => [], rules, undone)[0];
  if (!larger) return { ...way, path, missing: [] };
  const missing = opsOf(larger).filter((op) => !isIn(undone, op));
  return { ...way, path: precedenceOf(mechanism, whole, larger, rules, true), missing };
}

function isIn(set: WorkSet, op: StripOp): boolean {
  return op.kind === 'release' ? set.joints[op.joint] === 1 : set.parts[op.part]! > 0;
}

/** Everything that is not as in the whole device; a made joint whose sides lie apart was torn and counts as released. */
function undoneSet(mechanism: Mechanism, state: DeviceState, whole: DeviceState): WorkSet {
  const ops: StripOp[] = [];
  state.released.forEach((released, joint) => {
    const torn =
      mechanism.releasable[joint] &&
      mechanism.held[joint]!.some((part) => state.group[part] !== state.group[mechanism.to[joint]!]);
    if (released || torn) ops.push({ kind: 'release', joint });
  });
  state.status.forEach((status, part) => {
    if (status > 0) ops.push({ kind: status === OFF ? 'lift' : 'open', part });
  });
  return withOps(noWork(mechanism), whole, ops);
}

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
