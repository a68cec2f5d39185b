import type { OrderRule } from '../sequence/index.ts';
import { afterBy, type Draft } from './draft.ts';

/** What has to come before what, so far: nothing is put before what has to come before it. */
export class PartialOrder {
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
      for (const id of [...task.after, ...(task.ruled?.keys() ?? [])]) {
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

  comesBefore(earlier: string, later: string): boolean {
    const [a, b] = [this.#number.get(earlier), this.#number.get(later)];
    return a !== undefined && b !== undefined && this.#has(a, b);
  }

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
