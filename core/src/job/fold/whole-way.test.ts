import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { EFFORT, sampled } from '../../../test/effort.ts';
import { Led } from '../../../test/led.ts';
import { demoMaps } from '../../../test/maps.ts';
import { randomMap } from '../../../test/random-map.ts';
import type { DeviceMap } from '../../model/device-map/index.ts';
import { PlanError } from '../../planner/search/index.ts';
import { leftOpen } from '../rules/left-open.ts';
import { UNKNOWN } from '../state/surroundings.ts';

const MOST_STEPS = 400;

/** How a repair ends that does all that it is led to, and nothing else. */
function outcome(map: DeviceMap, part: string): string {
  const bench = new TestBench(map, [{ replace: part }]);
  const led = new Led(bench);
  try {
    for (let n = 0; n < MOST_STEPS && led.next(); n++) {
      if (bench.problem) return `${led.ahead().ops[0]!.id}: ${bench.problem}`;
    }
  } catch (error) {
    if (error instanceof PlanError) return `no plan: ${error.message}`;
    throw error;
  }
  const open = leftOpen(bench.mechanism, bench.state, UNKNOWN).map(({ text }) => text);
  return bench.send('finish', {}).problem ?? (open.length > 0 ? open.join() : 'finished');
}

const finishes = expect.stringMatching(/^(finished|no plan: .*)$/);

describe('the whole way', () => {
  it('from a closed device to its record is never barred by a rule, for any part of any demo device', () => {
    for (const map of demoMaps()) {
      const parts = sampled(map.parts.filter(({ base }) => !base));
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
