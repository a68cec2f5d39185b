import { readFileSync } from 'node:fs';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { describe, expect, it } from 'vitest';
import { layoutOf, nearBox, scaleOf } from './view-box.ts';

const read = (id: string) =>
  JSON.parse(readFileSync(new URL(`../../../demo/device-maps/${id}.json`, import.meta.url), 'utf8')) as DeviceMap;
const [phone, tablet] = [read('tern-5'), read('shearwater-11')];
const upright = { width: 540, height: 640 };

describe('what of a device is drawn', () => {
  it('has what stands open beside it, or above it where that leaves it larger', () => {
    expect(layoutOf(phone, false, upright).standing).toBeNull();
    const wide = { width: 1200, height: 600 };
    expect(layoutOf(phone, true, wide).standing!.x).toBeGreaterThan(phone.outline.width);
    const high = { width: 500, height: 1000 };
    const above = layoutOf(tablet, true, high);
    expect(above.standing!.y).toBeLessThan(0);
    const beside = { ...layoutOf(tablet, true, wide).whole };
    expect(scaleOf(above.whole, high)).toBeGreaterThan(scaleOf(beside, high));
  });

  it('is the neighbourhood of what is in hand, which fills a third of it or more', () => {
    const { whole } = layoutOf(tablet, false, upright);
    for (const part of tablet.parts.filter(({ base }) => !base)) {
      const near = nearBox([part], whole, upright);
      if (!near) continue;
      const share = Math.max(part.box.w / near.w, part.box.h / near.h);
      // save what is so small that nearer is no help
      expect(share > 1 / 3 || near.h <= 30.01, part.id).toBe(true);
      expect(near.w / near.h).toBeCloseTo(upright.width / upright.height, 5);
      expect(part.box.x, part.id).toBeGreaterThanOrEqual(near.x - 0.01);
      expect(part.box.x + part.box.w, part.id).toBeLessThanOrEqual(near.x + near.w + 0.01);
    }
    const display = tablet.parts.find(({ kind }) => kind === 'display')!;
    expect(nearBox([display], whole, upright)).toBeNull();
    expect(nearBox([], whole, upright)).toBeNull();
  });
});
