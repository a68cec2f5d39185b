import Joi from 'joi';
import { Refusal, wrong } from '../../model/refusal/index.ts';

export interface ContainersRequest {
  readonly classes: readonly string[];
  /** what it costs to keep two kinds together: symmetric, 0 or more; the diagonal is not read */
  readonly cost: readonly (readonly number[])[];
  readonly containers: number;
}

/** Which kinds lie together. */
export interface Containers {
  readonly groups: readonly (readonly string[])[];
  /** the sum over all pairs that lie together */
  readonly cost: number;
  readonly optimal: boolean;
  /** no split costs less than this */
  readonly lowerBound: number;
}

/** So many are split exactly: every subset of them is looked at. */
const EXACT = 16;
const MOST = 200;

export const containersRequest = Joi.object<ContainersRequest>({
  classes: Joi.array().min(1).max(MOST).unique().items(Joi.string().min(1).max(200)).required(),
  cost: Joi.array()
    .max(MOST)
    .items(Joi.array().max(MOST).items(Joi.number().min(0).max(1e12)))
    .required(),
  containers: Joi.number().integer().min(1).max(10_000).required(),
});

/**
 * Splits kinds into at most so many groups, so that the sum of what it costs to keep two together is least. Exact to 16
 * kinds; beyond, groups that no single move makes cheaper, with a bound.
 * @throws Refusal by the path of a cost that is missing or not the same both ways
 */
export function containersFor({ classes, cost, containers }: ContainersRequest): Containers {
  if (!Number.isInteger(containers) || containers < 1)
    throw new Refusal(wrong('containers', 'One container at least.'));
  checkCosts(classes.length, cost);
  const all = classes.map((_, index) => index);
  const split = classes.length <= EXACT ? leastSplit(all, cost, containers) : goodSplit(all, cost, containers);
  const least = costOf(split, cost);
  const lowerBound = classes.length <= EXACT ? least : boundOf(all, cost, containers);
  const groups = split
    .map((group) => group.toSorted((a, b) => a - b))
    .toSorted(([a], [b]) => a! - b!)
    .map((group) => group.map((each) => classes[each]!));
  return { groups, cost: least, optimal: least <= lowerBound, lowerBound: Math.min(lowerBound, least) };
}

function checkCosts(count: number, cost: ContainersRequest['cost']): void {
  if (cost.length !== count)
    throw new Refusal(wrong('cost', `There are ${count} classes: the cost needs as many rows.`));
  cost.forEach((row, a) => {
    if (row.length !== count)
      throw new Refusal(wrong(`cost[${a}]`, `There are ${count} classes: the row needs as many.`));
    row.forEach((each, b) => {
      if (cost[b]?.[a] !== each)
        throw new Refusal(wrong(`cost[${a}][${b}]`, 'The cost of two classes is the same both ways.'));
    });
  });
}

/**
 * Over all subsets: what a subset costs in k groups is the least over its two parts of what they cost in i and k − i. So k
 * groups take only as many rounds as k has bits, twice.
 */
function leastSplit(all: readonly number[], cost: ContainersRequest['cost'], containers: number): number[][] {
  const count = all.length;
  if (containers >= count) return all.map((each) => [each]);
  const full = (1 << count) - 1;
  const layers = new Map<number, Float64Array>([[1, togetherCosts(all, cost)]]);
  const layer = (k: number): Float64Array => {
    const known = layers.get(k);
    if (known) return known;
    const [a, b] = [layer(k >> 1), layer(k - (k >> 1))];
    const least = new Float64Array(full + 1);
    for (let set = 1; set <= full; set++) least[set] = cheapest(set, a, b).cost;
    layers.set(k, least);
    return least;
  };
  const groups: number[][] = [];
  const take = (set: number, k: number): void => {
    if (set === 0) return;
    if (k === 1) return void groups.push(all.filter((_, index) => set & (1 << index)));
    const { part } = cheapest(set, layer(k >> 1), layer(k - (k >> 1)));
    take(part, k >> 1);
    take(set & ~part, k - (k >> 1));
  };
  take(full, containers);
  return groups;
}

/** The best of all ways to part a set in two. */
function cheapest(set: number, a: Float64Array, b: Float64Array): { readonly cost: number; readonly part: number } {
  let cost = Number.POSITIVE_INFINITY;
  let part = 0;
  // where both sides are split alike, the last of the set may be taken to lie in the second
  const within = a === b ? set & (set - 1) : set;
  for (let each = within; ; each = (each - 1) & within) {
    const sum = a[each]! + b[set & ~each]!;
    if (sum < cost) [cost, part] = [sum, each];
    if (each === 0) return { cost, part };
  }
}

/** What each subset costs in one container. */
function togetherCosts(all: readonly number[], cost: ContainersRequest['cost']): Float64Array {
  const together = new Float64Array(1 << all.length);
  for (let set = 1; set < together.length; set++) {
    const first = 31 - Math.clz32(set & -set);
    const rest = set & (set - 1);
    let sum = together[rest]!;
    for (let other = first + 1; other < all.length; other++) {
      if (rest & (1 << other)) sum += cost[all[first]!]![all[other]!]!;
    }
    together[set] = sum;
  }
  return together;
}

/** Each kind where it costs least, the most troublesome first; then moved for as long as that helps. */
function goodSplit(all: readonly number[], cost: ContainersRequest['cost'], containers: number): number[][] {
  if (containers >= all.length) return all.map((each) => [each]);
  const trouble = (each: number) => cost[each]!.reduce((sum, one) => sum + one, 0);
  const groups: number[][] = Array.from({ length: containers }, () => []);
  const addCost = (each: number, group: readonly number[]) =>
    group.reduce((sum, other) => (other === each ? sum : sum + cost[each]![other]!), 0);
  const cheapestFor = (each: number) =>
    groups.reduce((best, group) => (addCost(each, group) < addCost(each, best) ? group : best));
  for (const each of all.toSorted((a, b) => trouble(b) - trouble(a))) cheapestFor(each).push(each);
  for (let moved = true; moved;) {
    moved = false;
    for (const each of all) {
      const home = groups.find((group) => group.includes(each))!;
      const better = cheapestFor(each);
      if (better === home || addCost(each, better) >= addCost(each, home) - 1e-9) continue;
      home.splice(home.indexOf(each), 1);
      better.push(each);
      moved = true;
    }
  }
  return groups.filter((group) => group.length > 0);
}

/** Kinds of a few that are split by themselves cost no less together with others. */
const BLOCK = 12;

function boundOf(all: readonly number[], cost: ContainersRequest['cost'], containers: number): number {
  let bound = 0;
  for (let from = 0; from < all.length; from += BLOCK) {
    bound += costOf(leastSplit(all.slice(from, from + BLOCK), cost, containers), cost);
  }
  return bound;
}

function costOf(groups: readonly (readonly number[])[], cost: ContainersRequest['cost']): number {
  const ofGroup = (group: readonly number[]) =>
    group.reduce((sum, a, at) => group.slice(at + 1).reduce((more, b) => more + cost[a]![b]!, sum), 0);
  return groups.reduce((sum, group) => sum + ofGroup(group), 0);
}
