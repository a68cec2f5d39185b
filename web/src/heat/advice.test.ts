import { readFileSync } from 'node:fs';
import type { BondJoint, DeviceMap } from '@nibrel/core/model/device-map';
import { foresee, stackOfBond, usualSetting, type Warming } from '@nibrel/core/physics/heat';
import { describe, expect, it } from 'vitest';
import { adviceWords, originWords } from './advice.ts';

const map = JSON.parse(
  readFileSync(new URL('../../../demo/device-maps/tern-5.json', import.meta.url), 'utf8'),
) as DeviceMap;
const seal = map.joints.find((each) => each.id === 'front-seal') as BondJoint;
const said = (change: Partial<Warming>) => {
  const warming: Warming = {
    stack: stackOfBond(map, seal),
    soften_C: 55,
    setting: usualSetting('plate'),
    heat_s: 300,
    ...change,
  };
  return adviceWords(warming, foresee(warming));
};

describe('what a foresight comes to', () => {
  it('says when it is soft by the slow end, and how long it can be cut', () => {
    const words = said({});
    expect(words.headline).toMatch(/^Soft after 1:\d\d at the latest$/);
    expect(words.detail).toMatch(
      /^As early as 0:\d\d\. Off at 5:00, it can be cut for at least \d:\d\d, less at the rim\.$/,
    );
    expect(words.isGood).toBe(true);
  });

  it('says plainly what will not do, and what would', () => {
    expect(said({ heat_s: 20 })).toMatchObject({ headline: 'Not soft in 0:20', isGood: false });
    expect(said({ heat_s: 70 }).headline).toBe('Perhaps soft, not for certain');
    expect(said({ setting: usualSetting('pad', 50) }).headline).toBe('Never soft at 50 °C');
    const hot = said({ setting: usualSetting('plate', 120) });
    expect(hot.headline).toMatch(/^Display may reach 80 °C after 0:\d\d$/);
    expect(hot.detail).toContain('Shorter, cooler');
    const late = said({ setting: usualSetting('plate', 78), heat_s: 280 });
    expect(late.headline).toMatch(/^Battery face may reach 60 °C after/);
    expect(late.detail).toContain('inwards after the source is gone');
    expect(late.isGood).toBe(false);
  });
});

describe('where a transfer comes from', () => {
  const setting = { ...usualSetting('plate'), origin: 'measured, 20 readings, 0.3 °C left over' };
  const measured = { setting, at: '2026-11-20T10:00:00Z', residual_C: 0.3, map: 'tern-5', joint: 'front-seal' };
  const here = { map: 'tern-5', joint: 'front-seal' };

  it('is said with its date, what was left over, and where it was measured', () => {
    expect(originWords(setting, measured, here)).toBe('Measured here 20 November 2026, 0.3 °C left over.');
    expect(originWords(setting, measured, { ...here, joint: 'window-glue' })).toContain('on another bond');
    expect(originWords(setting, { ...measured, simulated: true }, here)).toContain('(simulated)');
    expect(originWords(usualSetting('plate'), measured, here)).toContain('A guess');
    expect(originWords(setting, null, here)).toContain('A guess');
  });
});
