import type { DeviceMap } from '@nibrel/core/device-map';
import type { Plan } from '@nibrel/core/plan';
import { describe, expect, it } from 'vitest';
import { costs, questionsFor } from './schools.ts';

const plan = (strip: number, rebuild: number, waiting: number) =>
  ({
    seconds: { strip, rebuild, waiting },
    strip: [{ id: `${strip}` }],
    rebuild: [{ id: `${rebuild}` }],
  }) as unknown as Plan;
const bare = { joints: [], parts: [] } as unknown as DeviceMap;

describe('schools', () => {
  it('asks only what means something on the device', () => {
    expect(questionsFor(bare).map(({ key }) => key)).toEqual(['test', 'tools', 'tightening']);
    const hot = { ...bare, joints: [{ type: 'bond', heat: true, endangers: ['cell'] }] } as unknown as DeviceMap;
    expect(questionsFor(hot).map(({ key }) => key)).toContain('heat');
    expect(questionsFor(hot).map(({ key }) => key)).toContain('batteryWhilePrying');
  });

  it('says what another school costs and risks, and when there is no plan that way', () => {
    const [question] = questionsFor(bare);
    const after = question!.options[1]!;
    expect(costs(after, plan(100, 200, 50), plan(100, 140, 50))).toBe(
      'Only after: 60 s less, a fault found then costs a new seal and opening again.',
    );
    expect(costs(after, plan(1, 1, 1), plan(1, 1, 1))).toBe('Only after: no difference on this device.');
    expect(costs(after, plan(2, 1, 1), plan(1, 1, 2))).toContain('the same time');
    expect(costs(after, plan(1, 1, 1), null)).toBe('Only after: no plan this way.');
  });
});
