import {
  carried,
  type DeviceState,
  isTethered,
  type Mechanism,
  play,
  type Rules,
  SEATED,
  type StripOp,
} from '../holds/index.ts';
import { type Need, needsOf } from './need.ts';
import { opKey } from './op-key.ts';
import { Snapshot } from './snapshot.ts';
import { opsOf, type WorkSet } from './work-set.ts';

/** A chosen set of operations with what precedes each of them in every legal order. */
export interface Precedence {
  readonly ops: readonly StripOp[];
  /** per operation the numbers of all that come before it, whatever the order */
  readonly before: readonly ReadonlySet<number>[];
  /** the same with isolation left aside: what lies over it or holds it, not what makes the device dead */
  readonly uncovering: readonly ReadonlySet<number>[];
  /** false where the operations can't all be done from here */
  readonly complete: boolean;
}

/**
 * @param openFirst true: every part that is tethered is opened before it is lifted, even where one movement would do
 */
export function precedenceOf(
  mechanism: Mechanism,
  start: DeviceState,
  set: WorkSet,
  rules: Rules,
  openFirst = false,
): Precedence {
  const wanted = withNeededOpens(mechanism, start, set, rules, openFirst);
  const played = play(mechanism, start, wanted, rules);
  const ops = played.done;
  return { ops, ...necessaryPredecessors(mechanism, start, ops, rules), complete: played.waiting.length === 0 };
}

/** Can the operations of a set all be done from here? */
export function isComplete(mechanism: Mechanism, start: DeviceState, set: WorkSet, rules: Rules): boolean {
  return play(mechanism, start, withNeededOpens(mechanism, start, set, rules, false), rules).waiting.length === 0;
}

function isOptionalOpen(set: WorkSet, op: StripOp): boolean {
  return op.kind === 'open' && set.parts[op.part] === 2;
}

/**
 * Parts that go off are lifted in one movement, save where something waits for them to be open before.
 * @param tetheredToo opens every tethered part before its lift
 */
function withNeededOpens(
  mechanism: Mechanism,
  start: DeviceState,
  set: WorkSet,
  rules: Rules,
  tetheredToo: boolean,
): StripOp[] {
  const opens = (op: StripOp) =>
    tetheredToo && op.kind === 'open' && isTethered(mechanism, carried(mechanism, start, op.part));
  const all = opsOf(set);
  const wanted = all.filter((op) => !isOptionalOpen(set, op) || opens(op));
  // opened first where there is a choice
  const ops = [...wanted.filter((op) => op.kind !== 'lift'), ...wanted.filter((op) => op.kind === 'lift')];
  const spare = new Map(all.filter((op) => !wanted.includes(op)).map((op) => [opKey(op), op]));
  let state = start;
  for (;;) {
    const played = play(mechanism, state, ops, rules);
    if (played.waiting.length === 0) return ops;
    state = played.state;
    const snapshot = new Snapshot(mechanism, state, rules);
    const asked = played.waiting.flatMap(({ op }) => needsOf(snapshot, op).flatMap((need) => need.options.map(opKey)));
    const found = [...new Set(asked)].flatMap((key) => spare.get(key) ?? []);
    if (found.length === 0) return ops;
    for (const op of found) spare.delete(opKey(op));
    ops.unshift(...found);
  }
}

function partOf(op: StripOp): number {
  return op.kind === 'release' ? -1 : op.part;
}

/**
 * What precedes an operation in every legal order: for each of its needs, what all the ways of meeting it have in
 * common. The greatest solution of these equations, found by lowering from *everything*, as dominators of a graph are.
 */
function necessaryPredecessors(
  mechanism: Mechanism,
  start: DeviceState,
  ops: readonly StripOp[],
  rules: Rules,
): Pick<Precedence, 'before' | 'uncovering'> {
  const number = new Map(ops.map((op, index) => [opKey(op), index]));
  const meeting = (option: StripOp) => {
    const own = number.get(opKey(option));
    // what is only lifted, in one movement, is open from then on
    return own ?? (option.kind === 'open' ? number.get(`lift ${option.part}`) : undefined);
  };
  const snapshot = new Snapshot(mechanism, start, rules);
  const asked = ops.map((op, index) => {
    const own = needsOf(snapshot, op, (each) => meeting(each) !== undefined);
    const met = (needs: readonly Need[]) =>
      needs
        .map((need) => need.options.map(meeting))
        .map((options) => [...new Set(options.filter((each) => each !== undefined && each !== index))] as number[])
        .filter((options) => options.length > 0);
    const opened = op.kind === 'lift' ? number.get(`open ${op.part}`) : undefined;
    const first = opened !== undefined && start.status[partOf(op)] === SEATED ? [[opened]] : [];
    return {
      all: [...met(own), ...first],
      covering: [...met(own.filter((need) => !need.isolates)), ...first],
    };
  });
  return {
    before: lowered(
      ops.length,
      asked.map((each) => each.all),
    ),
    uncovering: lowered(
      ops.length,
      asked.map((each) => each.covering),
    ),
  };
}

/**
 * Rows of bits, one per operation, lowered until nothing changes.
 * @param needs per operation its needs, each the operations that could meet it
 */
function lowered(size: number, needs: readonly (readonly (readonly number[])[])[]): Set<number>[] {
  const words = Math.max(1, Math.ceil(size / 32));
  // the order played is a legal one, so nothing after an operation in it can be a necessary predecessor
  const rows = needs.map((_, index) => allBelow(index, words));
  const common = new Uint32Array(words);
  for (let changed = true; changed;) {
    changed = false;
    for (let index = 0; index < size; index++) {
      const next = new Uint32Array(words);
      for (const options of needs[index]!) {
        common.fill(0xffffffff);
        let ahead = 0;
        for (const option of options) {
          const row = rows[option]!;
          if (row[index >>> 5]! & (1 << (index & 31))) continue;
          ahead++;
          for (let word = 0; word < words; word++) {
            const own = word === option >>> 5 ? 1 << (option & 31) : 0;
            common[word]! &= row[word]! | own;
          }
        }
        if (ahead > 0) for (let word = 0; word < words; word++) next[word]! |= common[word]!;
      }
      const row = rows[index]!;
      const below = allBelow(index, words);
      for (let word = 0; word < words; word++) {
        const kept = (next[word]! & below[word]!) >>> 0;
        if (kept !== row[word]) changed = true;
        row[word] = kept;
      }
    }
  }
  return rows.map(
    (row, index) =>
      new Set(Array.from({ length: index }, (_, at) => at).filter((at) => row[at >>> 5]! & (1 << (at & 31)))),
  );
}

function allBelow(index: number, words: number): Uint32Array {
  const row = new Uint32Array(words);
  for (let word = 0; word < words; word++) {
    const bits = Math.min(32, Math.max(0, index - 32 * word));
    row[word] = bits === 32 ? 0xffffffff : 2 ** bits - 1;
  }
  return row;
}
