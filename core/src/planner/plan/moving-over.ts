import {
  applied,
  type DeviceState,
  isLegalNow,
  isMarkedLive,
  type Mechanism,
  type PhysicalOp,
  type Rules,
  type StripOp,
  withHost,
} from '../holds/index.ts';
import {
  afterBy,
  type Draft,
  type HeatBlock,
  type Op,
  opId,
  physicalDraft,
  placesOnMat,
  workDrafts,
} from '../drafts/index.ts';
import { type Policy } from '../../model/policy/index.ts';
import { type Move, type Precedence } from '../search/index.ts';

/** Taking off what moves over, and whatever else has to come off before anything can be put back. */
export function takeOffDrafts(
  mechanism: Mechanism,
  start: DeviceState,
  moving: Precedence,
  blocks: readonly HeatBlock[],
  missing: readonly StripOp[],
  moves: readonly Move[],
  policy: Policy,
  live: ReadonlySet<number>,
): Draft[] {
  const included = new Set(moves.flatMap((move) => move.included));
  const work = workDrafts(mechanism, start, moving, policy, live, blocks, () => 'move').map((draft): Draft => {
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

/** What is done with the pieces that move over: taken off the old part, put on the new one. */
export interface PieceWork {
  readonly id: string;
  readonly physical: PhysicalOp;
}

/**
 * What moves over goes over piece by piece, each put on before the next is taken off, where that is allowed; pieces that
 * lie over each other come off together and go on in reverse.
 * @param off taking off, in order; `before` by number as in `moving`
 * @param on putting on, in the reverse of the order in which it would be taken off
 */
export function pieceByPiece(
  mechanism: Mechanism,
  start: DeviceState,
  moving: Precedence,
  off: readonly number[],
  offIds: readonly string[],
  on: readonly PieceWork[],
  rules: Rules,
): string[] {
  const groups = nested(moving, off);
  const pieces = groups.map((group) => new Set(group.flatMap((index) => piecesOf(mechanism, moving.ops[index]!))));
  const ofGroup = (work: PieceWork) =>
    pieces.findIndex((parts) => piecesOf(mechanism, work.physical).every((part) => parts.has(part)));
  const sequence = groups.flatMap((group, number) => [
    ...group.map((index): PieceWork => ({ id: offIds[index]!, physical: moving.ops[index]! })),
    ...on.filter((work) => ofGroup(work) === number),
  ]);
  const rest = on.filter((work) => ofGroup(work) < 0);
  const allOff = off.map((index): PieceWork => ({ id: offIds[index]!, physical: moving.ops[index]! }));
  // what is off the old part already goes on first
  const ways = [
    [...rest, ...sequence],
    [...sequence, ...rest],
    [...allOff, ...on],
  ];
  const found = ways.find((way) => isLegal(mechanism, start, way, rules)) ?? allOff;
  return found.map(({ id }) => id);
}

/** Takings-off that belong to one piece, or to pieces that lie over each other; in their order. */
function nested({ ops, before }: Precedence, off: readonly number[]): number[][] {
  const groups: number[][] = [];
  let open: number[] = [];
  for (const index of off) {
    open.push(index);
    if (ops[index]!.kind !== 'lift') continue;
    const needs = new Set(open.flatMap((each) => [...before[each]!]));
    const over = groups.filter((group) => group.some((each) => needs.has(each)));
    const joined = [...over.flat(), ...open];
    const at = over.length > 0 ? groups.indexOf(over[0]!) : groups.length;
    const kept = groups.filter((group) => !over.includes(group));
    groups.splice(0, groups.length, ...kept.toSpliced(Math.min(at, kept.length), 0, joined));
    open = [];
  }
  return open.length > 0 ? [...groups, open] : groups;
}

function piecesOf({ held }: Mechanism, op: PhysicalOp): readonly number[] {
  return 'joint' in op ? held[op.joint]! : [op.part];
}

function isLegal(mechanism: Mechanism, start: DeviceState, sequence: readonly PieceWork[], rules: Rules): boolean {
  let state = start;
  for (const { physical } of sequence) {
    const op = withHost(mechanism, state, physical);
    if (!isLegalNow(mechanism, state, op, rules)) return false;
    state = applied(mechanism, state, op);
  }
  return true;
}

/** The move is done at the start of the rebuild, old and new side by side. */
export function afterMoves(drafts: readonly Draft[], moves: ReadonlySet<string>): Draft[] {
  if (moves.size === 0) return [...drafts];
  return drafts.map((draft) => {
    const { op, task } = draft;
    if (moves.has(op.id)) return draft;
    if (op.kind !== 'procedure' || (task.early && op.name === 'clean')) return afterBy(draft, 'mirror', moves);
    // a bond that is undone in the move is cleaned after that
    const undone = op.joint === undefined ? undefined : opId('release', op.joint);
    return undone !== undefined && moves.has(undone) ? afterBy(draft, 'mirror', [undone]) : draft;
  });
}

/** Names the group that each fitted part joins, where it is not the base. */
export function withPlaces(
  mechanism: Mechanism,
  start: DeviceState,
  ops: readonly Op[],
  physicalOf: ReadonlyMap<string, PhysicalOp | undefined>,
  onto: ReadonlyMap<string, number>,
): Op[] {
  let state = start;
  return ops.map((op) => {
    const physical = physicalOf.get(op.id);
    if (!physical) return op;
    const place = onto.get(op.id);
    const named = physical.kind === 'fit' && place !== undefined ? { ...physical, onto: place } : physical;
    const resolved = withHost(mechanism, state, named);
    state = applied(mechanism, state, resolved);
    if (resolved.kind !== 'fit' || resolved.onto === mechanism.base) return op;
    return { ...op, onto: mechanism.map.parts[resolved.onto]!.id };
  });
}
