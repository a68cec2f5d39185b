import { type BondJoint, isOuter, isSelfParting, renewalOf } from '../device-map/index.ts';
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
} from '../holds/index.ts';
import { renewalFor, secondsToLay, TIMES } from './estimates.ts';
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
import { opId, physicalId, thingOf } from './op-id.ts';
import type { Policy } from '../policy/index.ts';
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
  const waysDown = [rebuildWaits(mechanism, whole, display), rebuildWaits(mechanism, whole, 'on-flexes')].map(
    (extra) => ({
      extra,
      path: precedenceOf(mechanism, whole, undone, { live, extra }, true),
    }),
  );
  const { extra, path } = waysDown.find((way) => way.path.complete) ?? waysDown[1]!;
  const rules = { live, extra };
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

/** The rebuild as drafts, each operation the undoing of one on the path, with bonds cleaned, laid and pressed. */
export function rebuildDrafts(
  mechanism: Mechanism,
  state: DeviceState,
  { path, whole, remade }: WayBack,
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
  const renewed = renewal.moves.flatMap((move) => renewedPieces(mechanism, move));
  const fresh = [...joined, ...renewed].map((draft) => {
    const pieces = renewed.filter((piece) => draft.op.id === opId('fit', renewalHost(mechanism, renewal.moves, piece)));
    return pieces.length > 0
      ? after(
          draft,
          pieces.map((piece) => piece.op.id),
        )
      : draft;
  });
  return withBonds(mechanism, fresh, renewal, remade);
}

function backId(mechanism: Mechanism, op: StripOp): string {
  return physicalId(mechanism, inverse(op));
}

/** What moves over is on the new part before that is fitted. */
function beforeTheirCarrier(mechanism: Mechanism, drafts: readonly Draft[], moves: readonly Move[]): Draft[] {
  const { map } = mechanism;
  const ordered = new Map(withAllPredecessors(drafts.map(({ task }) => task)).map((task) => [task.id, task.after]));
  return drafts.map((draft) => {
    const move = moves.find(
      (each) => each.replaced !== mechanism.base && draft.op.id === opId('fit', map.parts[each.replaced]!.id),
    );
    if (!move) return draft;
    const along = new Set([move.replaced, ...move.parts, ...move.included]);
    const first = drafts.filter(({ op }) => {
      if (ordered.get(op.id)!.has(draft.op.id)) return false;
      if (op.kind === 'fit' || op.kind === 'close') {
        const part = mechanism.part.get(op.part!)!;
        return part !== move.replaced && move.parts.includes(part);
      }
      return op.kind === 'make' && mechanism.ends[mechanism.joint.get(op.joint!)!]!.every((end) => along.has(end));
    });
    return after(
      draft,
      first.map(({ op }) => op.id),
    );
  });
}

function renewedPieces(mechanism: Mechanism, move: Move): Draft[] {
  return move.renewed.map((part) => {
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

/** Bonds are scraped, cleaned, dried and laid before their part goes down, and pressed after. */
function withBonds(
  mechanism: Mechanism,
  drafts: readonly Draft[],
  renewal: Renewal,
  remade: ReadonlySet<number>,
): Draft[] {
  const ids = new Set<string>(drafts.map(({ op }) => op.id));
  let all = [...drafts];
  mechanism.map.joints.forEach((joint, number) => {
    if (joint.type !== 'bond') return;
    if (remade.has(number) && !isSelfParting(joint)) {
      all.push(...pressingDrafts(joint, opId('make', joint.id), renewal.policy));
      return;
    }
    const making = opId('make', joint.id);
    const goesDown = joint.holds.flatMap((id) => [opId('close', id), opId('fit', id)]).filter((id) => ids.has(id));
    if (isSelfParting(joint) ? goesDown.length === 0 : !ids.has(making)) return;
    const comesWithPart =
      renewalOf(joint) === 'with-part' && mechanism.held[number]!.some((part) => renewal.replaced.has(part));
    const laying = layingDrafts(joint, comesWithPart, renewal.policy);
    const last = laying.at(-1)?.op.id;
    // what swings open can be laid while it stands; anything else before it is fitted
    const down = goesDown.filter((id) =>
      swingsOpen(mechanism, id)
        ? id.startsWith('close:') || !ids.has(id.replace('fit:', 'close:'))
        : !ids.has(id.replace('close:', 'fit:')) || id.startsWith('fit:'),
    );
    const waiting = isSelfParting(joint) || down.length > 0 ? down : [making];
    if (last) all = all.map((draft) => (waiting.includes(draft.op.id) ? after(draft, [last]) : draft));
    all.push(...laying, ...pressingDrafts(joint, isSelfParting(joint) ? (down[0] ?? making) : making, renewal.policy));
  });
  return all;
}

function swingsOpen(mechanism: Mechanism, id: string): boolean {
  const part = mechanism.map.parts[mechanism.part.get(thingOf(id))!]!;
  return part.opens !== undefined || isOuter(part);
}

function layingDrafts(bond: BondJoint, comesWithPart: boolean, policy: Policy): Draft[] {
  if (renewalFor(bond, policy.closing) === 'reuse') return [];
  const common = { joint: bond.id, face: bond.face, stage: 'rebuild' } as const;
  const clean = procedureDraft({
    ...common,
    name: 'clean',
    seconds: TIMES.clean,
    tool: 'scraper',
    after: [],
  });
  const dry = procedureDraft({
    ...common,
    name: 'dry',
    seconds: 0,
    face: null,
    wait_s: Math.max(TIMES.dryWait, bond.close?.dry_s ?? 0),
    after: [clean.op.id],
  });
  if (comesWithPart) return [clean, dry];
  const { lay: seconds } = secondsToLay(bond, policy.closing);
  const lay = procedureDraft({ ...common, name: 'lay', seconds, after: [dry.op.id] });
  return [clean, dry, lay];
}

function pressingDrafts(bond: BondJoint, made: string, policy: Policy): Draft[] {
  if (renewalFor(bond, policy.closing) === 'reuse' && !bond.close?.press_s) return [];
  const press = procedureDraft({
    name: 'press',
    joint: bond.id,
    seconds: TIMES.press,
    wait_s: bond.close?.press_s ?? TIMES.pressWait,
    stage: 'rebuild',
    after: [made],
  });
  const { cure: cure_s } = secondsToLay(bond, policy.closing);
  if (!cure_s) return [press];
  const cure = procedureDraft({
    name: 'cure',
    joint: bond.id,
    seconds: TIMES.cure,
    wait_s: cure_s,
    stage: 'close',
    after: [press.op.id],
  });
  return [press, cure];
}
