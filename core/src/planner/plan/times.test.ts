import { describe, expect, it } from 'vitest';
import { tern5 } from '../../../test/maps.ts';
import { planRequest } from '../../api/requests.ts';
import { planRepair, setUpBefore } from './index.ts';
import type { OwnTime } from './times.ts';

const budget = { now: () => performance.now(), limitMs: 300 };
const planned = (times?: readonly OwnTime[]) =>
  planRepair({ map: tern5(), targets: [{ replace: 'display' }], ...(times ? { times } : {}) }, budget);
const all = ({ strip, rebuild }: ReturnType<typeof planned>) => [...strip, ...rebuild];

describe('times of a plan', () => {
  it('have one total, whoever adds them up: hands-on, with every change of tool and face before what it is for', () => {
    const { strip, rebuild, seconds } = planned();
    const total = (ops: typeof strip) =>
      [...ops.map((op) => op.seconds), ...setUpBefore(ops)].reduce((sum, each) => sum + each, 0);
    expect([total(strip), total(rebuild)]).toEqual([seconds.strip, seconds.rebuild]);
  });

  it('are a guess with its reach where the workshop has none of its own', () => {
    for (const { id, seconds, low, high } of all(planned())) {
      expect(low!, id).toBeLessThanOrEqual(seconds);
      expect(high!, id).toBeGreaterThanOrEqual(seconds);
    }
  });

  it('are the workshop’s own, one for the type of joint before one for the kind', () => {
    const plain = planned();
    const plan = planned([
      { kind: 'release', low: 1, likely: 2, high: 3 },
      { kind: 'release', type: 'screw', low: 30, likely: 40, high: 50 },
      { kind: 'clean', low: 60, likely: 90, high: 200 },
    ]);
    const of = (id: string) => all(plan).find((op) => op.id === id)!;
    expect(of('release:connector-lid-screws')).toMatchObject({ low: 30, seconds: 40, high: 50 });
    expect(of('release:display-plug')).toMatchObject({ low: 1, seconds: 2, high: 3 });
    expect(of('clean:front-seal')).toMatchObject({ low: 60, seconds: 90, high: 200 });
    // they change what it takes, its bound with it, and not what is done
    expect(all(plan).map(({ id }) => id)).toEqual(all(plain).map(({ id }) => id));
    const sum = (plan_: typeof plan) => plan_.seconds.strip + plan_.seconds.rebuild;
    const own = (plan_: typeof plan) => all(plan_).reduce((seconds, op) => seconds + op.seconds, 0);
    expect(sum(plan) - sum(plain)).toBeCloseTo(own(plan) - own(plain), 6);
    expect(plan.lowerBoundSeconds).toBeLessThanOrEqual(sum(plan));
    expect(sum(plan) - plan.lowerBoundSeconds).toBeCloseTo(sum(plain) - plain.lowerBoundSeconds, 6);
  });

  it('know plugs by their style, screws one by one, and say from how many', () => {
    const plan = planned([
      { kind: 'release', type: 'screw', each: true, low: 2, likely: 3, high: 5, from: 40 },
      { kind: 'release', type: 'connector', low: 1, likely: 2, high: 3 },
      { kind: 'release', type: 'connector', style: 'press', low: 4, likely: 6, high: 9 },
    ]);
    const of = (id: string) => all(plan).find((op) => op.id === id)!;
    const screws = of('release:connector-lid-screws');
    expect(screws).toMatchObject({ seconds: 3 * screws.count!, high: 5 * screws.count!, timesFrom: 40 });
    expect(of('release:display-plug').seconds).toBe(6);
    expect(of('release:light-plug').seconds).toBe(2);
  });

  it('are refused where low, likely and high are not in their order', () => {
    const refused = (time: object) =>
      planRequest.validate({ map: {}, targets: [], times: [time] }).error?.message ?? '';
    expect(refused({ kind: 'lift', low: 1, likely: 2, high: 3 })).toBe('');
    expect(refused({ kind: 'lift', low: 5, likely: 2, high: 9 })).toContain('likely');
    expect(refused({ kind: 'lift', low: -1, likely: 2, high: 9 })).toContain('low');
    expect(refused({ low: 1, likely: 2, high: 9 })).toContain('kind');
  });
});
