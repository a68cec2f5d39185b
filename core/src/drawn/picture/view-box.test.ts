import { readFileSync } from 'node:fs';
import type { DeviceMap } from '../../model/device-map/index.ts';
import { describe, expect, it } from 'vitest';
import { layoutOf, nearBox } from './view-box.ts';

const read = (id: string) =>
  JSON.parse(readFileSync(new URL(`../../../../demo/device-maps/${id}.json`, import.meta.url), 'utf8')) as DeviceMap;
const [phone, tablet] = [read('tern-5'), read('shearwater-11')];
const upright = { width: 540, height: 640 };

describe('what of a device is drawn', () => {
  it('has room for what stands open at the edge where it stays down', () => {
    expect(layoutOf(phone, []).rooms).toEqual([]);
    const { width, height } = phone.outline;
    const [right, left, top, bottom] = layoutOf(phone, ['right', 'left', 'top', 'bottom']).rooms;
    expect(right!.x).toBeGreaterThan(width);
    expect(left!.x + left!.w).toBeLessThan(0);
    expect(top!.y + top!.h).toBeLessThan(0);
    expect(bottom!.y).toBeGreaterThan(height);
    const { whole, rooms } = layoutOf(phone, ['right', 'right']);
    // two at one edge stand one above the other
    expect(rooms[0]!.y + rooms[0]!.h).toBeCloseTo(rooms[1]!.y, 9);
    for (const room of rooms) expect(room.x + room.w).toBeLessThan(whole.x + whole.w);
  });

  it('is the neighbourhood of what is in hand, which fills a third of it or more', () => {
    const { whole } = layoutOf(tablet, []);
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
