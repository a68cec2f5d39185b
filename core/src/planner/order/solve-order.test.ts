import highsLoader from 'highs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { EFFORT } from '../../../test/effort.ts';
import { mixedIntegerModel } from '../../../test/order-model.ts';
import { chains, randomOrderProblem } from '../../../test/order-problems.ts';
import { costOf, CycleError, type OrderProblem, solveOrder } from './index.ts';

const patient = { now: () => performance.now(), limitMs: 30_000 };

/** Every order, one after the other: slow, and without any thought that could be wrong twice. */
function bruteForce(problem: OrderProblem): number {
  let best = Infinity;
  const place = (order: string[], left: OrderProblem['ops']) => {
    if (left.length === 0) best = Math.min(best, costOf(problem, order).seconds);
    for (const op of left) {
      if (op.after.every((id) => order.includes(id)))
        place(
          [...order, op.id],
          left.filter((each) => each !== op),
        );
    }
  };
  place([], problem.ops);
  return best;
}

/** Dynamic programming over closed sets as bit patterns, with nothing clever: source docs/check-values.md, ordering. */
function plainDynamicProgramme(problem: OrderProblem): number {
  const { ops } = problem;
  const number = new Map(ops.map((op, index) => [op.id, index]));
  const before = ops.map((op) => op.after.reduce((bits, id) => bits | (1 << number.get(id)!), 0));
  let level = new Map<string, { done: number; tool: string | null; face: string | null; cost: number }>();
  level.set('', { done: 0, ...problem.start, cost: 0 });
  for (let step = 0; step < ops.length; step++) {
    const next: typeof level = new Map();
    for (const { done, tool, face, cost } of level.values()) {
      ops.forEach((op, index) => {
        if (done & (1 << index) || before[index]! & ~done) return;
        const state = {
          done: done | (1 << index),
          tool: op.tool ?? tool,
          face: op.face ?? face,
          cost:
            cost +
            op.seconds +
            (op.tool !== null && op.tool !== tool ? problem.toolChangeSeconds : 0) +
            (op.face !== null && face !== null && op.face !== face ? problem.flipSeconds : 0),
        };
        const key = `${state.done}/${state.tool}/${state.face}`;
        const known = next.get(key);
        if (!known || state.cost < known.cost) next.set(key, state);
      });
    }
    level = next;
  }
  return Math.min(...[...level.values()].map((state) => state.cost));
}

function isLegal(problem: OrderProblem, order: readonly string[]): boolean {
  const place = new Map(order.map((id, index) => [id, index]));
  return (
    place.size === problem.ops.length &&
    problem.ops.every((op) => op.after.every((id) => place.get(id)! < place.get(op.id)!))
  );
}

describe('solveOrder', () => {
  it('finds the least cost of every brute-forced case up to 9 operations (docs/check-values.md, ordering)', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e9 }), fc.integer({ min: 1, max: 9 }), (seed, size) => {
        const problem = randomOrderProblem(seed, size);
        const found = solveOrder(problem, patient);
        expect(found.seconds).toBeCloseTo(bruteForce(problem), 9);
        expect(found.optimal).toBe(true);
        expect(isLegal(problem, found.order)).toBe(true);
      }),
      { numRuns: 60, seed: 20_261_124 },
    );
  });

  it('agrees with a plain dynamic programme on 9 to 16 operations (docs/check-values.md, ordering)', () => {
    for (let seed = 1; seed <= 25; seed++) {
      const problem = randomOrderProblem(seed, 9 + (seed % 8));
      expect(solveOrder(problem, patient).seconds).toBeCloseTo(plainDynamicProgramme(problem), 9);
    }
  });

  // some ten seconds: left to `npm test`
  it.skipIf(EFFORT < 0.5)(
    'agrees with a mixed-integer model solved by HiGHS on 10 operations (docs/check-values.md, ordering)',
    async () => {
      const highs = await highsLoader();
      let compared = 0;
      for (const size of [10, 10]) {
        const problem = randomOrderProblem(size * 31 + compared, size);
        const solved = highs.solve(mixedIntegerModel(problem), { time_limit: 20 });
        if (solved.Status !== 'Optimal') continue;
        compared++;
        const work = problem.ops.reduce((sum, op) => sum + op.seconds, 0);
        expect(solveOrder(problem, patient).seconds).toBeCloseTo(work + solved.ObjectiveValue, 4);
      }
      expect(compared).toBeGreaterThan(0);
    },
  );

  it('states a bound that no order beats when it has no time', () => {
    const problem = chains(3, 10, 8, 6, 3);
    const hurried = solveOrder(problem, {
      now: (() => {
        let t = 0;
        return () => (t += 10);
      })(),
      limitMs: 0,
    });
    const best = solveOrder(problem, patient);
    expect(isLegal(problem, hurried.order)).toBe(true);
    expect(hurried.lowerBoundSeconds).toBeLessThanOrEqual(best.seconds + 1e-9);
    expect(hurried.seconds).toBeGreaterThanOrEqual(best.seconds - 1e-9);
    expect(hurried.optimal).toBe(hurried.seconds === hurried.lowerBoundSeconds);
  });

  it('reports progress while it proves', () => {
    const seen: number[] = [];
    const problem = chains(5, 12, 4, 6, 2);
    const found = solveOrder(problem, {
      ...patient,
      onProgress: ({ lowerBoundSeconds }) => seen.push(lowerBoundSeconds),
    });
    expect(Math.max(...seen)).toBeLessThanOrEqual(found.seconds);
  });

  it('sets a null face free of charge, and counts the first tool', () => {
    const op = (id: string, tool: string | null, face: string | null, after: string[] = []) => ({
      id,
      seconds: 1,
      tool,
      face,
      after,
    });
    const problem = {
      ops: [op('a', 'T2', 'back'), op('b', null, null, ['a']), op('c', 'T2', 'front', ['b'])],
      start: { tool: null, face: null },
      toolChangeSeconds: 8,
      flipSeconds: 5,
    };
    expect(solveOrder(problem, patient)).toMatchObject({
      order: ['a', 'b', 'c'],
      seconds: 16,
      setupSeconds: 13,
      toolChanges: 1,
      flips: 1,
    });
    expect(solveOrder({ ...problem, start: { tool: 'T2', face: 'front' } }, patient)).toMatchObject({
      toolChanges: 0,
      flips: 2,
    });
  });

  it('names the operations of a ring', () => {
    const op = (id: string, after: string[]) => ({ id, seconds: 1, tool: null, face: null, after });
    const ops = [op('a', []), op('b', ['a', 'd']), op('c', ['b']), op('d', ['c'])];
    const problem = { ops, start: { tool: null, face: null }, toolChangeSeconds: 1, flipSeconds: 1 };
    expect(() => solveOrder(problem, patient)).toThrow(CycleError);
    expect(() => solveOrder(problem, patient)).toThrow(
      expect.objectContaining({ cycle: expect.arrayContaining(['b', 'c', 'd']), path: 'ops' }),
    );
  });

  it('orders nothing at all', () => {
    const problem = { ops: [], start: { tool: null, face: null }, toolChangeSeconds: 8, flipSeconds: 5 };
    expect(solveOrder(problem, patient)).toMatchObject({ order: [], seconds: 0, optimal: true });
  });
});
