import { describe, expect, it } from 'vitest';
import { random } from '../../../test/random-map.ts';
import { containersFor, containersRequest } from './containers.ts';

const names = (count: number) => Array.from({ length: count }, (_, at) => `k${at}`);

function someCosts(count: number, seed: number): number[][] {
  const next = random(seed);
  const cost = names(count).map(() => names(count).map(() => 0));
  for (let a = 0; a < count; a++) {
    for (let b = 0; b < a; b++) cost[a]![b] = cost[b]![a] = next() < 0.3 ? 0 : Math.round(next() * 100) / 10;
  }
  return cost;
}

/** Every split of a few kinds. */
function leastOf(cost: readonly (readonly number[])[], containers: number): number {
  let least = Number.POSITIVE_INFINITY;
  const split = (at: number, groups: readonly (readonly number[])[], sum: number): void => {
    if (at === cost.length) return void (least = Math.min(least, sum));
    groups.forEach((group, index) => {
      const more = group.reduce((total, other) => total + cost[at]![other]!, 0);
      split(at + 1, groups.with(index, [...group, at]), sum + more);
    });
    if (groups.length < containers) split(at + 1, [...groups, [at]], sum);
  };
  split(0, [], 0);
  return least;
}

const costOf = (groups: readonly (readonly string[])[], cost: readonly (readonly number[])[]) =>
  groups
    .flatMap((group) =>
      group.flatMap((a, at) => group.slice(at + 1).map((b) => cost[Number(a.slice(1))]![Number(b.slice(1))]!)),
    )
    .reduce((sum, each) => sum + each, 0);

describe('which screw kinds lie together', () => {
  it('is the split of least cost: all splits of up to 8 kinds', () => {
    for (let seed = 1; seed <= 40; seed++) {
      const count = 1 + (seed % 8);
      const cost = someCosts(count, seed);
      const containers = 1 + (seed % 5);
      const found = containersFor({ classes: names(count), cost, containers });
      expect(found.cost, String(seed)).toBeCloseTo(leastOf(cost, containers), 9);
      expect(costOf(found.groups, cost)).toBeCloseTo(found.cost, 9);
      expect(found.groups.flat().toSorted()).toEqual(names(count).toSorted());
      expect(found.groups.length).toBeLessThanOrEqual(containers);
      expect(found.optimal).toBe(true);
    }
  });

  it('is exact for 16 kinds whatever the number of containers, and bounded beyond', () => {
    const cost = someCosts(16, 5);
    const costs = [1, 2, 3, 5, 7, 11, 15, 16].map(
      (containers) => containersFor({ classes: names(16), cost, containers }).cost,
    );
    expect(costs).toEqual(costs.toSorted((a, b) => b - a));
    expect(costs.at(-1)).toBe(0);
    const many = containersFor({ classes: names(40), cost: someCosts(40, 9), containers: 6 });
    expect(many.lowerBound).toBeLessThanOrEqual(many.cost);
    expect(many.groups.flat()).toHaveLength(40);
    expect(many.optimal).toBe(many.lowerBound === many.cost);
  });

  it('keeps each apart where there are containers enough', () => {
    expect(containersFor({ classes: names(3), cost: someCosts(3, 1), containers: 9 })).toMatchObject({
      cost: 0,
      optimal: true,
    });
  });

  it('refuses what is no cost, by its place', () => {
    const of = (cost: number[][]) => () => containersFor({ classes: ['a', 'b'], cost, containers: 2 });
    expect(of([[0, 1]])).toThrow(expect.objectContaining({ path: 'cost' }) as Error);
    expect(of([[0, 1], [1]])).toThrow(expect.objectContaining({ path: 'cost[1]' }) as Error);
    expect(
      of([
        [0, 1],
        [2, 0],
      ]),
    ).toThrow(expect.objectContaining({ path: 'cost[0][1]' }) as Error);
    const refused = (more: object) =>
      containersRequest.validate({ classes: ['a'], cost: [[0]], containers: 1, ...more }).error?.message ?? '';
    expect(refused({ containers: 0 })).toContain('containers');
    expect(refused({ cost: [[-1]] })).toContain('cost[0][0]');
    expect(refused({ classes: ['a', 'a'] })).toContain('classes[1]');
  });
});
