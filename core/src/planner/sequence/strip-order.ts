import type { Point } from '../../model/device-map/index.ts';
import {
  applied,
  type DeviceState,
  isDead,
  isLegalNow,
  isStripOp,
  SEATED,
  type StripOp,
  unmetFor,
} from '../holds/index.ts';
import { Hands, type HandsTask } from './hands.ts';
import { isLater, type Phases } from './phases.ts';
import { centreOf, placeOf } from './place.ts';
import type { OrderRule } from './rules.ts';
import { forTheirOwnSake, openedOnTheWay, plugsOfThoseThatStay } from './strip-goals.ts';

/** The chosen set to be put in order, with what is at hand where it begins. */
export interface StripTask extends HandsTask {
  readonly phases: Phases;
  /** cuts that are made on one warming, following each other directly */
  readonly blocks: readonly (readonly number[])[];
  /** a part that is lifted is opened with that, in one movement, unless something waits for it to be open */
  readonly liftsInOne: boolean;
  /** joints that have to be released live: all that makes the device dead follows directly */
  readonly live: ReadonlySet<number>;
  /** a lift may have to take along just what lies with its part in the end */
  readonly admits?: (state: DeviceState, op: StripOp) => boolean;
}

/** Operations by number in the order in which they are done, each with the rule that kept it until then. */
export interface StripOrder {
  readonly order: readonly number[];
  readonly ruledBy: readonly (OrderRule | undefined)[];
}

/**
 * The strip-down as a careful technician goes (docs/device-map.md): what comes out first, then dead, then the displays,
 * then one part finished before the next, first what was just uncovered, else the nearest. Nothing is searched: at each
 * step the rules leave one thing to do.
 */
export function stripOrder(task: StripTask): StripOrder {
  const walk = new Walk(task);
  const order = walk.whole();
  return walk.isStuck ? (asItIs(task) ?? order) : order;
}

/** The order in which the set was found; null where that is no way either. */
function asItIs({ chosen, admits }: StripTask): StripOrder | null {
  const { mechanism, precedence, rules } = chosen;
  let state = chosen.start;
  for (const op of precedence.ops) {
    if (!isLegalNow(mechanism, state, op, rules) || admits?.(state, op) === false) return null;
    state = applied(mechanism, state, op);
  }
  return { order: [...precedence.ops.keys()], ruledBy: precedence.ops.map(() => undefined) };
}

class Walk {
  /** was something done that may not be done yet, since nothing else was left? */
  isStuck = false;
  readonly #task: StripTask;
  readonly #ops: readonly StripOp[];
  #phases: Phases;
  readonly #hands: Hands;
  readonly #left: Set<number>;
  readonly #order: number[] = [];
  readonly #ruledBy: (OrderRule | undefined)[] = [];
  #state: DeviceState;
  /** the last lift or open: a number of the chosen set, or nothing of it */
  #uncovered = -1;
  #goal = -1;
  #block: readonly number[] | null = null;
  #display = -1;
  /** the last lift or open before this walk, whose work is gone on with */
  readonly #begunAt: StripOp | undefined;
  readonly #begunFrom: Point;
  readonly #forItself: ReadonlySet<number>;
  /** openings that nothing but the lift of their part needs, with that lift */
  readonly #onTheWay: ReadonlyMap<number, number>;
  readonly #plugs: ReadonlyMap<number, readonly number[]>;
  /** how the goal in hand was chosen */
  #chosenBy: OrderRule = 'part-by-part';

  constructor(task: StripTask) {
    const { chosen, history } = task;
    const { mechanism, precedence } = chosen;
    this.#task = task;
    this.#phases = task.phases;
    this.#ops = precedence.ops;
    this.#hands = new Hands(task);
    this.#left = new Set(precedence.ops.keys());
    this.#state = chosen.start;
    const done = history.filter(isStripOp);
    this.#begunAt = done.findLast((op) => op.kind !== 'release');
    this.#begunFrom = this.#begunAt ? placeOf(mechanism, this.#begunAt) : centreOf(mechanism.map);
    this.#forItself = forTheirOwnSake(task);
    this.#onTheWay = task.liftsInOne ? openedOnTheWay(task) : new Map();
    this.#plugs = plugsOfThoseThatStay(task, this.#forItself);
  }

  whole(): StripOrder {
    while (this.#left.size > 0) this.#do(this.#next());
    return { order: this.#order, ruledBy: this.#ruledBy };
  }

  /** What one thing needs can change by what was done for another: then it is found anew from here. */
  #next(): number {
    const next = this.#wanted();
    if (this.#isLegal(next)) return next;
    this.#phases = this.#phases.from(this.#state, this.#left);
    this.#goal = -1;
    const again = this.#wanted();
    return this.#isLegal(again) ? again : this.#anyLegal(this.#left);
  }

  #wanted(): number {
    const within = this.#inBlock();
    if (within !== undefined) return within;
    const set = this.#set();
    if (!this.#left.has(this.#goal) || !set.has(this.#goal) || !this.#isReady(this.#goal))
      this.#goal = this.#choose(set);
    if (this.#goal < 0) return this.#anyLegal(set);
    const before = this.#missing(this.#goal);
    const releases = [...before, ...this.#plugsOf(this.#goal)].filter((op) => this.#ops[op]!.kind === 'release');
    const legal = releases.filter((op) => this.#isLegal(op));
    if (legal.length > 0) return this.#hands.handiest(legal);
    // opened on the way to its lift
    return before.find((op) => this.#onTheWay.has(op)) ?? this.#goal;
  }

  /** Another cut on the same warming. */
  #inBlock(): number | undefined {
    const cuts = (this.#block ?? []).filter((op) => this.#left.has(op) && this.#isLegal(op));
    if (cuts.length === 0) this.#block = null;
    return cuts.length > 0 ? this.#hands.handiest(cuts) : undefined;
  }

  /** What is left of the first phase that has anything left; after a live joint, what makes the device dead. */
  #set(): ReadonlySet<number> {
    const { live, chosen } = this.#task;
    const phases = this.#phases;
    const isOpenedLive = [...live].some((joint) => this.#state.released[joint]);
    if (isOpenedLive && phases.dead.size > 0 && !isDead(chosen.mechanism, this.#state)) return phases.dead;
    for (const set of [phases.removedFirst, phases.dead]) if (this.#isOpen(set)) return this.#withUsedUp(set);
    const display = this.#displayInHand();
    return display ? this.#withUsedUp(display) : this.#left;
  }

  #isOpen(set: ReadonlySet<number>): boolean {
    return [...set].some((op) => this.#left.has(op));
  }

  /** The nearest display that stands, unless it lies beneath another one. */
  #displayInHand(): ReadonlySet<number> | null {
    const standing = this.#phases.displays.filter(({ lift }) => this.#left.has(lift));
    if (standing.length === 0) return null;
    const inHand = standing.find(({ lift }) => lift === this.#display);
    if (inHand) return inHand.needs;
    const isFree = ({ needs }: (typeof standing)[number]) =>
      standing.every((other) =>
        [...needs].every((op) => !this.#left.has(op) || !other.beneath.has(op) || other.needs.has(op)),
      );
    const free = standing.filter(isFree);
    const nearest = this.#hands.nearest((free.length > 0 ? free : standing).map(({ lift }) => lift));
    this.#display = nearest;
    return standing.find(({ lift }) => lift === nearest)!.needs;
  }

  /** A single-use part of which a joint was released is lifted as soon as that can be. */
  #withUsedUp(set: ReadonlySet<number>): ReadonlySet<number> {
    const used = this.#usedUp();
    return used.length > 0 ? new Set([...set, ...used.flatMap((op) => [...this.#phases.needs(op)])]) : set;
  }

  #usedUp(): number[] {
    const { mechanism } = this.#task.chosen;
    return [...this.#left].filter((index) => {
      const op = this.#ops[index]!;
      if (op.kind !== 'lift' || mechanism.map.parts[op.part]!.reuse !== 'single-use') return false;
      const isUsed = mechanism.holding[op.part]!.some(
        (joint) => this.#state.released[joint] && !mechanism.tether[joint] && mechanism.releasable[joint],
      );
      return isUsed && this.#isReady(index);
    });
  }

  /** The goal step that comes next: what was begun, then what was just uncovered, else any; −1 where none is ready. */
  #choose(set: ReadonlySet<number>): number {
    const ready = [...set].filter((op) => this.#left.has(op) && this.#isGoal(op) && this.#isReady(op));
    const used = this.#usedUp().filter((op) => ready.includes(op));
    const begun = used.length > 0 ? used : this.#begun(ready);
    const follows = ready.filter((op) => this.#follows(op));
    this.#chosenBy = begun.length === 0 && follows.length > 0 ? 'follow' : 'part-by-part';
    const from = begun.length > 0 ? begun : follows.length > 0 ? follows : ready;
    const shown = from.filter((op) => this.#hands.isShown(op));
    if (from.length === 0) return -1;
    // what was begun was the nearest from where it was begun
    const isBegun = begun.length > 0 && used.length === 0;
    return this.#hands.nearest(shown.length > 0 ? shown : from, isBegun ? this.#begunFrom : undefined);
  }

  /** Where work goes on from a state in which a part was half freed, that part is finished. */
  #begun(ready: readonly number[]): number[] {
    if (this.#order.length > 0) return [];
    const { chosen, history } = this.#task;
    const last = history.findLastIndex((op) => op.kind !== 'release');
    const freed = history.slice(last + 1).flatMap((op) => (op.kind === 'release' ? [op.joint] : []));
    if (freed.length === 0) return [];
    const isTied = (goal: number) => (joint: number) => {
      const made = { ...this.#state, released: this.#state.released.with(joint, 0) };
      return [goal, ...this.#missing(goal)].some((op) =>
        unmetFor(chosen.mechanism, made, this.#ops[op]!, chosen.rules).some((each) => each.joint === joint),
      );
    };
    const whole = ready.filter((goal) => freed.every(isTied(goal)));
    return whole.length > 0 ? whole : ready.filter((goal) => freed.some(isTied(goal)));
  }

  #isGoal(op: number): boolean {
    const { kind } = this.#ops[op]!;
    if (kind === 'release') return this.#isolates(op) || this.#forItself.has(op);
    return kind === 'lift' || !this.#onTheWay.has(op);
  }

  /** The plugs of a part that is only opened are undone before it, as they are of one that is lifted. */
  #plugsOf(goal: number): readonly number[] {
    return (this.#plugs.get(goal) ?? []).filter((op) => this.#left.has(op));
  }

  /** Did the last lift or open make this goal ready? */
  #follows(goal: number): boolean {
    const { chosen } = this.#task;
    if (this.#uncovered >= 0) return chosen.precedence.uncovering[goal]!.has(this.#uncovered);
    const last = this.#begunAt;
    if (last === undefined || last.kind === 'release') return false;
    const { mechanism, start, rules } = chosen;
    const covered = {
      ...start,
      status: start.status.with(last.part, SEATED),
      group: start.group.map((place) => (place === last.part ? mechanism.base : place)),
    };
    return [goal, ...this.#missing(goal)].some((op) =>
      unmetFor(mechanism, covered, this.#ops[op]!, rules).some((each) => each.part === last.part),
    );
  }

  #isReady(op: number): boolean {
    return this.#missing(op).every(
      (each) => (this.#ops[each]!.kind === 'release' && !this.#isolates(each)) || this.#onTheWay.get(each) === op,
    );
  }

  #isolates(op: number): boolean {
    return this.#phases.isolating.has(op);
  }

  #needs(op: number): ReadonlySet<number> {
    return this.#phases.needs(op);
  }

  #missing(op: number): number[] {
    return [...this.#needs(op)].filter((each) => each !== op && this.#left.has(each));
  }

  /** Where what an operation needs has alternatives, one of them may be in the way of what was thought of. */
  #anyLegal(set: ReadonlySet<number>): number {
    const legal = (from: Iterable<number>) => [...from].filter((op) => this.#left.has(op) && this.#isLegal(op));
    const inSet = legal(set);
    const any = inSet.length > 0 ? inSet : legal(this.#left);
    this.isStuck ||= any.length === 0;
    return any.length > 0 ? this.#hands.handiest(any) : [...this.#left][0]!;
  }

  #isLegal(index: number): boolean {
    const { chosen, admits } = this.#task;
    const op = this.#ops[index]!;
    return isLegalNow(chosen.mechanism, this.#state, op, chosen.rules) && (admits?.(this.#state, op) ?? true);
  }

  #do(index: number): void {
    const { chosen, blocks } = this.#task;
    const op = this.#ops[index]!;
    this.#ruledBy.push(this.#keptBy(index));
    this.#order.push(index);
    this.#left.delete(index);
    this.#state = applied(chosen.mechanism, this.#state, op);
    this.#hands.moveTo(index);
    if (op.kind !== 'release') this.#uncovered = index;
    this.#block ??= blocks.find((each) => each.includes(index)) ?? null;
    if (this.#display === index) this.#display = -1;
  }

  /** The rule that kept an operation from standing one earlier; none where what stands there has to. */
  #keptBy(index: number): OrderRule | undefined {
    const last = this.#order.at(-1);
    if (last === undefined || this.#task.chosen.precedence.before[index]!.has(last)) return undefined;
    const { of } = this.#phases;
    if (isLater(of[index]!, of[last]!)) return of[last]!;
    // what frees one part is taken as it comes to hand
    return this.#goal >= 0 && this.#needs(this.#goal).has(last) && last !== this.#goal ? undefined : this.#chosenBy;
  }
}
