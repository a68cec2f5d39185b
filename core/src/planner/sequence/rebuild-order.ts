import {
  applied,
  type DeviceState,
  inverse,
  isLegalNow,
  type Mechanism,
  type PhysicalOp,
  play,
  type Rules,
  type StripOp,
  withHost,
} from '../holds/index.ts';

/** A way back to be put in order. */
export interface RebuildTask {
  readonly mechanism: Mechanism;
  /** the device as it was whole, and where the way back starts */
  readonly whole: DeviceState;
  readonly start: DeviceState;
  readonly rules: Rules;
  /** what is to be done, in the reverse of the order in which a careful technician would have come here */
  readonly ops: readonly PhysicalOp[];
  /** per operation what comes before it by the map, and by the map and the rules */
  readonly hard: readonly ReadonlySet<number>[];
  readonly before: readonly ReadonlySet<number>[];
  /** per operation the part that it joined a group with on the way down, where that is known */
  readonly places: readonly (number | undefined)[];
  /** fittings that stand directly before one of these: the first of the plugs, or the closing */
  readonly fitsBefore: ReadonlyMap<number, readonly number[]>;
}

/**
 * Back in reverse: what came off last goes on first. Where that is not allowed yet, the earliest in the reversed order
 * that is, and leaves the rest possible.
 * @returns null where no reversed order can be done from here
 */
export function rebuildOrder(task: RebuildTask): { order: readonly number[]; resolved: readonly PhysicalOp[] } | null {
  return new WalkBack(task).whole();
}

class WalkBack {
  readonly #task: RebuildTask;
  /** what is left, in an order that can be done from here: the proof that the rest is possible */
  #rest: readonly number[];
  #state: DeviceState;
  readonly #left: Set<number>;
  readonly #order: number[] = [];
  readonly #resolved: PhysicalOp[] = [];

  constructor(task: RebuildTask) {
    this.#task = task;
    this.#rest = [...task.ops.keys()];
    this.#left = new Set(this.#rest);
    this.#state = task.start;
  }

  whole() {
    if (!this.#played(this.#state, this.#rest) && !this.#replanned([])) return null;
    while (this.#left.size > 0) {
      const next = this.#next();
      const op = this.#legal(this.#state, next);
      if (!op) return null;
      this.#order.push(next);
      this.#resolved.push(op);
      this.#left.delete(next);
      this.#state = applied(this.#task.mechanism, this.#state, op);
    }
    return { order: this.#order, resolved: this.#resolved };
  }

  #next(): number {
    const { before, hard } = this.#task;
    const open = (sets: readonly ReadonlySet<number>[]) =>
      [...this.#left].filter((op) => [...sets[op]!].every((each) => !this.#left.has(each)));
    const ready = open(before);
    const inTurn = ready.find((op) => this.#isInTurn(op) && this.#takes(op)) ?? ready.find((op) => this.#takes(op));
    if (inTurn !== undefined) return inTurn;
    // a rule that bars every way gives way
    const free = open(hard).find((op) => this.#takes(op));
    if (free !== undefined) return free;
    const [first, ...rest] = this.#rest;
    this.#rest = rest;
    return first!;
  }

  /** A display is fitted only where its plug, or its closing, can follow at once. */
  #isInTurn(op: number): boolean {
    const followers = this.#task.fitsBefore.get(op)?.filter((each) => this.#left.has(each));
    if (!followers || followers.length === 0) return true;
    const fitting = this.#legal(this.#state, op);
    if (!fitting) return true;
    const after = applied(this.#task.mechanism, this.#state, fitting);
    return followers.some(
      (each) =>
        [...this.#task.before[each]!].every((earlier) => earlier === op || !this.#left.has(earlier)) &&
        this.#legal(after, each) !== null,
    );
  }

  /** Takes the operation next where the rest can still be done after it. */
  #takes(op: number): boolean {
    const at = this.#rest.indexOf(op);
    if (at > 0 && !this.#played(this.#state, [op, ...this.#rest.slice(0, at)])) return this.#replanned([op]);
    this.#rest = this.#rest.toSpliced(at, 1);
    return true;
  }

  /** What is left may have to go in another order then: it is found by coming down from the whole device. */
  #replanned(first: readonly number[]): boolean {
    const { mechanism, whole, rules, ops } = this.#task;
    const left = [...this.#left].filter((each) => !first.includes(each) && !isForward(ops[each]!));
    const undone = left.map((each) => inverse(ops[each] as Parameters<typeof inverse>[0]) as unknown as StripOp);
    const down = play(mechanism, whole, undone, rules);
    if (down.waiting.length > 0) return false;
    const numbers = down.done.map((each) => left[undone.findIndex((one) => isSame(one, each))]!).reverse();
    if (numbers.length < left.length || !this.#played(this.#state, [...first, ...numbers])) return false;
    this.#rest = numbers;
    return true;
  }

  #played(start: DeviceState, ops: readonly number[]): boolean {
    let state = start;
    for (const each of ops) {
      const op = this.#legal(state, each);
      if (!op) return false;
      state = applied(this.#task.mechanism, state, op);
    }
    return true;
  }

  /** The operation with its place, where it may be done now. */
  #legal(state: DeviceState, number: number): PhysicalOp | null {
    const { mechanism, ops, places, rules } = this.#task;
    const op = ops[number]!;
    const place = places[number];
    if (op.kind === 'fit' && place !== undefined && state.group[place] === place) {
      const placed = { ...op, onto: place };
      if (isLegalNow(mechanism, state, placed, rules)) return placed;
    }
    const usual = withHost(mechanism, state, op);
    return isLegalNow(mechanism, state, usual, rules) ? usual : null;
  }
}

function isForward(op: PhysicalOp): boolean {
  return op.kind === 'release' || op.kind === 'open' || op.kind === 'lift';
}

function isSame(a: StripOp, b: StripOp): boolean {
  if (a.kind === 'release') return b.kind === 'release' && a.joint === b.joint;
  return a.kind === b.kind && a.part === b.part;
}
