import type { DeviceMap, Part } from '../../model/device-map/index.ts';
import { describe, expect, it } from 'vitest';
import { fromTheTop, mainSide, onSide, outlinePath, placesOf } from './on-side.ts';

const part = (id: string, more: Partial<Part>): Part => ({
  id,
  name: id,
  kind: 'other',
  face: 'front',
  box: { x: 10, y: 20, w: 30, h: 40 },
  z: { top: 1, bottom: 2 },
  ...more,
});

const map = {
  outline: { width: 70, height: 140, thickness: 8, corner: 5 },
  parts: [
    part('base', { base: true }),
    part('deep', { z: { top: 3, bottom: 4 } }),
    part('high', { z: { top: 0, bottom: 1 } }),
    part('behind', { face: 'back', z: { top: 7, bottom: 8 } }),
  ],
  joints: [],
} as unknown as DeviceMap;

describe('drawing', () => {
  it('mirrors the back about the middle of the device', () => {
    expect(onSide(map, 'front', 12)).toBe(12);
    expect(onSide(map, 'back', 12)).toBe(58);
    const corner: Part = {
      ...map.parts[0]!,
      outline: [
        [10, 20],
        [40, 20],
        [40, 60],
      ],
    };
    expect(outlinePath(map, 'back', corner)).toBe('M60 20L30 20L30 60Z');
    expect(outlinePath(map, 'back', map.parts[0]!)).toMatch(/^M30\.8 20H59\.2A/);
  });

  it('draws what is nearest to the eye first, the base apart', () => {
    expect(fromTheTop(map, 'front').map((each) => each.id)).toEqual(['high', 'deep']);
    expect(fromTheTop(map, 'back').map((each) => each.id)).toEqual(['behind']);
  });

  it('looks first at the side that most parts face', () => {
    expect(mainSide(map)).toBe('front');
    expect(mainSide({ ...map, parts: map.parts.filter(({ id }) => id === 'behind') })).toBe('back');
  });

  it('finds a joint by its points, its place, or the part it holds', () => {
    const common = { id: 'j', holds: ['deep'], to: 'base', face: 'front' } as const;
    expect(placesOf(map, { ...common, type: 'seat' })).toEqual([{ x: 25, y: 40 }]);
    expect(placesOf(map, { ...common, type: 'clip', at: { x: 3, y: 4 } })).toEqual([{ x: 3, y: 4 }]);
  });
});
