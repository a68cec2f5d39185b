import { Refusal, wrong } from '../../model/refusal/index.ts';

interface Placings {
  /** per thing the logarithm of its weight in each bin */
  readonly logs: readonly (readonly number[])[];
  readonly counts: readonly number[];
  readonly nowhere: number;
  /** one placing, as good as any: all of them together weigh at least as much */
  readonly placing: readonly (number | null)[];
  /** in which order things are taken up: those that compete for the same bins close together */
  readonly order: readonly number[];
}

/** What weighs so much less than all of it together changes no digit that is shown. */
const NOTHING = Math.log(1e-16);
/** More fillings than this at once are not followed. */
const MOST = 120_000;

/** What lies so much more likely nowhere never lies there. */
const NEVER = Math.log(1e-30);

/**
 * The chance of each thing to lie in each bin, and nowhere (last), over all one-to-one placings into the individual places of
 * the bins. How full the bins are is all that later things depend on, so that placings with the same filling are counted
 * together, forward and back. What not even all that can follow makes count is dropped.
 * @throws Refusal where more fillings count than can be followed
 */
export function chancesOf(placings: Placings): number[][] {
  const { logs, counts, nowhere, order } = placings;
  const rows = order.map((thing) => [
    ...logs[thing]!.map((log, bin) => (isNever(log, counts[bin]!, nowhere) ? NONE : log)),
    nowhere,
  ]);
  const bins = new Bins(counts, rows);
  const least = leastCounted(placings, rows);
  const layers: Fillings[] = [Fillings.empty(bins)];
  for (const [at, row] of rows.entries()) layers.push(layers[at]!.with(bins, at, row, least[at + 1]!));
  const chances: number[][] = order.map(() => []);
  let after = layers.at(-1)!.logs.map(() => 0);
  for (let at = rows.length - 1; at >= 0; at--) {
    const { found, before } = layers[at]!.back(bins, at, rows[at]!, layers[at + 1]!, after);
    const all = found.reduce(added, NONE);
    chances[order[at]!] = found.map((each) => Math.exp(each - all));
    after = before;
  }
  return chances;
}

/** The logarithm of nothing: weights are kept as logarithms, so that none vanishes beside one that has no room. */
const NONE = Number.NEGATIVE_INFINITY;

function isNever(log: number, count: number, nowhere: number): boolean {
  return count === 0 || log + Math.log(count) < nowhere + NEVER;
}

/** The logarithm of a sum, of the logarithms of its parts. */
function added(a: number, b: number): number {
  if (a < b) return added(b, a);
  return b === NONE ? a : a + Math.log1p(Math.exp(b - a));
}

/** Can so many bins be followed at all? Asked before anything is computed. */
export function checkBins({ logs, counts, nowhere, order }: Omit<Placings, 'placing'>): void {
  const may = (log: number, bin: number) => (isNever(log, counts[bin]!, nowhere) ? NONE : 0);
  const bins = new Bins(
    counts,
    order.map((thing) => [...logs[thing]!.map(may), 0]),
  );
  if (!bins.isCountable) tooMany();
}

/**
 * How full the bins are, as one number, a digit for each that something still to come can lie in; those that are done with
 * leave their digit to others.
 */
class Bins {
  readonly counts: readonly number[];
  readonly logs: readonly number[];
  readonly #step: number[] = [];
  readonly #radix: number[] = [];
  /** per position the bins that nothing after it can lie in */
  readonly #done: readonly (readonly number[])[];
  readonly #factorials: readonly number[];
  readonly logWays: number;
  /** is one number enough for how full they are? */
  readonly isCountable: boolean;

  /** @param rows in their order, the logarithm of the weight of each thing in each bin and nowhere */
  constructor(counts: readonly number[], rows: readonly (readonly number[])[]) {
    this.counts = counts;
    this.logs = Array.from({ length: Math.max(0, ...counts) + 1 }, (_, n) => Math.log(n));
    let product = 0;
    this.#factorials = this.logs.map((log, n) => (product += n < 2 ? 0 : log));
    const spans = counts.map((_, bin) => {
      const at = rows.flatMap((row, index) => (row[bin]! > NONE ? [index] : []));
      return { bin, first: at[0] ?? -1, last: at.at(-1) ?? -1 };
    });
    this.#done = rows.map((_, index) => spans.flatMap(({ bin, last }) => (last === index ? [bin] : [])));
    const used = spans.filter(({ first }) => first >= 0).toSorted((a, b) => a.first - b.first);
    const digits: { last: number; radix: number; bins: number[] }[] = [];
    for (const { bin, first, last } of used) {
      const free = digits.find((each) => each.last < first);
      const digit = free ?? { last, radix: 0, bins: [] };
      if (!free) digits.push(digit);
      digit.last = last;
      // a drawer of any size holds no more than there are things
      digit.radix = Math.max(digit.radix, Math.min(counts[bin]!, rows.length) + 1);
      digit.bins.push(bin);
    }
    let step = 1;
    for (const { radix, bins } of digits) {
      for (const bin of bins) [this.#step[bin], this.#radix[bin]] = [step, radix];
      step *= radix;
    }
    this.isCountable = Number.isSafeInteger(step);
    this.logWays = used.reduce((sum, { bin }) => sum + this.#factorials[counts[bin]!]!, 0);
  }

  free(key: number, bin: number): number {
    return this.counts[bin]! - this.#digit(key, bin);
  }

  /** With one thing more in a bin. */
  filled(key: number, bin: number): number {
    return key + this.#step[bin]!;
  }

  /** Without the bins that nothing after this position can lie in. */
  left(key: number, at: number): number {
    return this.#done[at]!.reduce((rest, bin) => rest - this.#digit(rest, bin) * this.#step[bin]!, key);
  }

  /** In how many ways what is free in those bins could have been filled. */
  lostWays(key: number, at: number): number {
    return this.#done[at]!.reduce((sum, bin) => sum + this.#factorials[this.free(key, bin)]!, 0);
  }

  #digit(key: number, bin: number): number {
    return Math.floor(key / this.#step[bin]!) % this.#radix[bin]!;
  }
}

function logFactorial(n: number): number {
  let sum = 0;
  for (let each = 2; each <= n; each++) sum += Math.log(each);
  return sum;
}

/** The fillings that count after so many things. */
class Fillings {
  readonly keys: number[] = [];
  /** the logarithms of their weights */
  readonly logs: number[] = [];
  /** in how many ways what is free can be filled, at most */
  readonly ways: number[] = [];
  readonly #at = new Map<number, number>();

  static empty(bins: Bins): Fillings {
    const none = new Fillings();
    none.#add(0, 0, bins.logWays);
    return none;
  }

  /** With one thing more in each bin that has room for it, or nowhere. */
  with(bins: Bins, at: number, row: readonly number[], least: number): Fillings {
    const next = new Fillings();
    const nowhere = bins.counts.length;
    this.keys.forEach((key, index) => {
      const log = this.logs[index]!;
      const ways = this.ways[index]!;
      const short = least - log - ways;
      const add = (to: number, more: number, left: number) =>
        next.#add(bins.left(to, at), more, left - bins.lostWays(to, at));
      if (row[nowhere]! > NONE && row[nowhere]! >= short) add(key, log + row[nowhere]!, ways);
      for (let bin = 0; bin < nowhere; bin++) {
        if (row[bin] === NONE || row[bin]! < short) continue;
        const free = bins.free(key, bin);
        if (free > 0) add(bins.filled(key, bin), log + row[bin]! + bins.logs[free]!, ways - bins.logs[free]!);
      }
      if (next.keys.length > MOST) tooMany();
    });
    return next;
  }

  /** What follows each filling, from what follows those after it; and what the thing between weighs in each bin. */
  back(bins: Bins, at: number, row: readonly number[], next: Fillings, after: readonly number[]) {
    const nowhere = bins.counts.length;
    const found = row.map(() => NONE);
    const before = this.keys.map((key, index) => {
      let sum = NONE;
      for (let bin = 0; bin <= nowhere; bin++) {
        if (row[bin] === NONE) continue;
        const free = bin === nowhere ? 1 : bins.free(key, bin);
        const to = free > 0 ? next.#at.get(bins.left(bin === nowhere ? key : bins.filled(key, bin), at)) : undefined;
        if (to === undefined) continue;
        const share = row[bin]! + (bin === nowhere ? 0 : bins.logs[free]!) + after[to]!;
        sum = added(sum, share);
        found[bin] = added(found[bin]!, this.logs[index]! + share);
      }
      return sum;
    });
    return { found, before };
  }

  #add(key: number, log: number, ways: number): void {
    const at = this.#at.get(key);
    if (at !== undefined) {
      this.logs[at] = added(this.logs[at]!, log);
      return;
    }
    this.#at.set(key, this.keys.length);
    this.keys.push(key);
    this.logs.push(log);
    this.ways.push(ways);
  }
}

/**
 * Per position the least that a filling has to weigh to count, before the ways in which its free places can be filled: what
 * follows is at most every option of every thing that is still to come.
 */
function leastCounted({ logs, counts, nowhere, placing }: Placings, rows: readonly (readonly number[])[]): number[] {
  const ways = counts.reduce((sum, count, bin) => {
    const placed = placing.filter((to) => to === bin).length;
    return sum + logFactorial(count) - logFactorial(count - placed);
  }, 0);
  const one = placing.reduce<number>((sum, to, thing) => sum + (to === null ? nowhere : logs[thing]![to]!), ways);
  const least = [one + NOTHING];
  for (const row of rows.toReversed()) least.unshift(least[0]! - row.reduce(added, NONE));
  return least;
}

function tooMany(): never {
  throw new Refusal(
    wrong('loose', 'Too many of them look alike to be told apart exactly: measure some again, with less scatter.'),
  );
}
