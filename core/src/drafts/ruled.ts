import { type Mechanism } from '../holds/index.ts';
import { CycleError } from '../order/index.ts';
import type { OrderRule } from '../sequence/index.ts';
import { afterBy, type Draft } from './draft.ts';
import { opId } from './op-id.ts';
import { withAllPredecessors, withRules } from './task.ts';
import type { WayUp } from './way-up.ts';

/** A display that is off and is fitted again. */
export interface LastDisplay {
  readonly part: number;
  /** what may be done while it stands: the undoing of what its own lift needs, by id */
  readonly ownNeeds: ReadonlySet<string>;
}

/**
 * The rules of the rebuild that speak of physical operations: all that can be done dead is done dead, a display that was
 * taken off is fitted last, and what came out first goes in last. A rule gives way where an earlier one asks for the
 * opposite.
 */
export function withRebuildRules(
  mechanism: Mechanism,
  drafts: readonly Draft[],
  way: WayUp,
  displays: readonly LastDisplay[],
): Draft[] {
  const order = new Partial(drafts);
  const ids = drafts.map(({ op }) => op.id);
  const isFree = (id: string) => way.outerClosings.has(id) || way.late.has(id) || way.removedFirst.has(id);

  for (const end of way.endsOfDead) {
    for (const id of ids) {
      const dependsOnAnEnd = [...way.endsOfDead].some((each) => way.follows.get(each)?.has(id));
      if (!way.endsOfDead.has(id) && !isFree(id) && !dependsOnAnEnd) order.put(id, end, 'dead-long');
    }
  }
  const fits = displays.map(({ part }) => opId('fit', mechanism.map.parts[part]!.id));
  const theirs = new Set(displays.flatMap(({ ownNeeds }) => [...ownNeeds]));
  for (const fit of fits) {
    for (const id of ids) {
      if (isFree(id) || theirs.has(id) || way.endsOfDead.has(id) || way.follows.get(fit)?.has(id)) continue;
      order.put(id, fit, 'display-last');
    }
  }
  for (const late of way.late) {
    for (const id of ids) if (!way.late.has(id)) order.put(id, late, 'test');
  }
  return order.drafts();
}

/** The same drafts; where rules of order wait for each other, the one that closes the ring gives way. */
export function withoutRings(drafts: readonly Draft[]): readonly Draft[] {
  try {
    withAllPredecessors(withRules(drafts.map(({ task }) => task)));
    return drafts;
  } catch (error) {
    if (!(error instanceof CycleError)) throw error;
  }
  const order = new Partial(drafts.map(({ op, task }) => ({ op, task: { ...task, ruled: undefined } })));
  for (const { op, task } of drafts) task.ruled?.forEach((rule, id) => order.put(id, op.id, rule));
  return order.drafts();
}

/** What has to come before what, so far: nothing is put before what has to come before it. */
class Partial {
  readonly #drafts: Draft[];
  readonly #number: ReadonlyMap<string, number>;
  readonly #words: number;
  /** a row of bits per operation: all that comes before it */
  readonly #before: Uint32Array[];

  constructor(drafts: readonly Draft[]) {
    this.#drafts = [...drafts];
    this.#number = new Map(drafts.map(({ op }, index) => [op.id, index]));
    this.#words = Math.ceil(drafts.length / 32);
    this.#before = drafts.map(() => new Uint32Array(this.#words));
    drafts.forEach(({ task }, index) => {
      for (const id of task.after) {
        const earlier = this.#number.get(id);
        if (earlier !== undefined) this.#add(earlier, index);
      }
    });
  }

  put(earlier: string, later: string, rule: OrderRule): void {
    const [a, b] = [this.#number.get(earlier), this.#number.get(later)];
    if (a === undefined || b === undefined || a === b || this.#has(b, a)) return;
    this.#drafts[b] = afterBy(this.#drafts[b]!, rule, [earlier]);
    this.#add(a, b);
  }

  drafts(): Draft[] {
    return this.#drafts;
  }

  /** Does `a` come before `b`? */
  #has(a: number, b: number): boolean {
    return (this.#before[b]![a >>> 5]! & (1 << (a & 31))) !== 0;
  }

  #add(a: number, b: number): void {
    if (this.#has(a, b)) return;
    for (let each = 0; each < this.#before.length; each++) {
      if (each !== b && !this.#has(b, each)) continue;
      for (let word = 0; word < this.#words; word++) this.#before[each]![word]! |= this.#before[a]![word]!;
      this.#before[each]![a >>> 5]! |= 1 << (a & 31);
    }
  }
}
