import { describe, expect, it } from 'vitest';
import { TestBench } from '../../test/bench.ts';
import { EFFORT } from '../../test/effort.ts';
import { demoMaps } from '../../test/maps.ts';
import { randomMap } from '../../test/random-map.ts';
import type { DeviceMap } from '../device-map/index.ts';
import { PlanError, settled } from '../plan/index.ts';
import { benchItems } from '../prepare/index.ts';
import { type Ahead, aheadOf, leftOpen, type PlansMade, targetsForNow, UNKNOWN } from './index.ts';

/** A repair as the page leads through it: what it asks is answered, what it does not ask is not said. */
function ledThrough(map: DeviceMap, part: string): string {
  const bench = new TestBench(map, [{ replace: part }]);
  const made: PlansMade = new Map<string, Ahead>();
  const ahead = () => aheadOf(bench.mechanism, bench.job, bench.state.events, made);
  for (let n = 0; n < 400; n++) {
    const { ops, untold } = ahead();
    const [op] = ops;
    if (!op) break;
    if (op.name === 'agree') bench.send('told', { items: untold.map(({ text }) => text), who: 'Aldis', how: 'here' });
    else if (op.name === 'run-down' || op.name === 'charge-up')
      bench.send('charge', { charge: op.name === 'run-down' ? 0.2 : 0.6, source: 'typed' });
    else if (op.name === 'prepare') {
      const targets = targetsForNow(bench.mechanism, bench.state);
      const items = benchItems(map, targets, settled(bench.state.policy).policy, ops).map(({ id }) => id);
      const told = bench.state.agreed?.items ?? [];
      const charge = bench.state.charges.at(-1)?.charge;
      bench.send('prepared', { items, skipped: [], told, ...(charge === undefined ? {} : { charge }) });
    } else bench.do(op);
    if (bench.problem) return `${op.id}: ${bench.problem}`;
  }
  const open = leftOpen(bench.mechanism, bench.state, UNKNOWN).map(({ text }) => text);
  return bench.send('finish', {}).problem ?? (open.length > 0 ? open.join() : 'finished');
}

function outcome(map: DeviceMap, part: string): string {
  try {
    return ledThrough(map, part);
  } catch (error) {
    if (error instanceof PlanError) return `no plan: ${error.message}`;
    throw error;
  }
}

const finishes = expect.stringMatching(/^(finished|no plan: .*)$/);

describe('the whole way', () => {
  it('from a closed device to its record is never barred by a rule, for any part of any demo device', () => {
    for (const map of demoMaps()) {
      const parts = map.parts.filter((each, n) => !each.base && n % (EFFORT === 1 ? 1 : 12) === 0);
      const ways = parts.map(({ id }) => ({ part: id, way: outcome(map, id) }));
      for (const { part, way } of ways) expect({ part, way }).toEqual({ part, way: finishes });
    }
  }, 120_000);

  it('nor for parts of random maps', () => {
    const ways = Array.from({ length: 100 * EFFORT }, (_, seed) => {
      const map = randomMap(seed + 1);
      const parts = map.parts.filter((each) => !each.base);
      return { seed, way: outcome(map, parts[seed % parts.length]!.id) };
    });
    for (const { seed, way } of ways) expect({ seed, way }).toEqual({ seed, way: finishes });
    expect(ways.filter(({ way }) => way === 'finished').length).toBeGreaterThan(ways.length / 2);
  }, 120_000);
});
