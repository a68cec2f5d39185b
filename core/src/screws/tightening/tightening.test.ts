import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { changed, demoMaps, gannetWorks } from '../../../test/maps.ts';
import type { ScrewJoint, ScrewPoint } from '../../model/device-map/index.ts';
import { peakVerdict, tighteningOrder, windowOf } from './index.ts';

const point = (id: string, x: number, y: number, order?: number): ScrewPoint => ({
  id,
  x,
  y,
  depth: 3,
  below: 'metal',
  ...(order === undefined ? {} : { order }),
});
const ids = (points: readonly ScrewPoint[]) => tighteningOrder({ points }).map(({ id }) => id);

describe('the order of tightening', () => {
  it('crosses a rectangle corner by corner', () => {
    expect(ids([point('a', 0, 0), point('b', 10, 0), point('c', 10, 6), point('d', 0, 6)])).toEqual([
      'a',
      'c',
      'd',
      'b',
    ]);
  });
  it('goes by the numbers of the map where it has them', () => {
    expect(ids([point('a', 0, 0, 3), point('b', 9, 0, 1), point('c', 4, 8, 2)])).toEqual(['b', 'c', 'a']);
  });
  it('keeps what is clamped from being drawn to one side: every second screw of a ring balances the one before', () => {
    const ring = Array.from({ length: 8 }, (_, at) =>
      point(`r${at}`, 10 * Math.cos((at * Math.PI) / 4), 10 * Math.sin((at * Math.PI) / 4)),
    );
    const order = tighteningOrder({ points: ring });
    for (const pairs of [2, 4, 6, 8]) {
      const down = order.slice(0, pairs);
      expect(
        Math.hypot(...(['x', 'y'] as const).map((axis) => down.reduce((sum, each) => sum + each[axis], 0))),
      ).toBeCloseTo(0, 6);
    }
  });
  it('means the same in any order of the map, and has every screw once', () => {
    const place = fc.integer({ min: 0, max: 40 });
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.tuple(place, place), { minLength: 1, maxLength: 14, selector: String }),
        fc.integer(),
        (places, seed) => {
          const points = places.map(([x, y], at) => point(`p${at}`, x, y));
          const turned = points.toSorted(
            (a, b) => ((a.x * 31 + a.y * 17 + seed) % 13) - ((b.x * 31 + b.y * 17 + seed) % 13),
          );
          expect(ids(turned)).toEqual(ids(points));
          expect(ids(points).toSorted()).toEqual(points.map(({ id }) => id).toSorted());
        },
      ),
    );
  });
});

describe('the window of a screw', () => {
  const screws = (map = gannetWorks()) => map.joints.filter((each): each is ScrewJoint => each.type === 'screw');
  it('is the map’s where it has one', () => {
    const map = gannetWorks();
    const lid = screws(map).find(({ id }) => id === 'lid-screws')!;
    expect(windowOf(map, lid, lid.points[0]!)).toEqual({ least_Ncm: 8, most_Ncm: 10, from: 'map' });
  });
  it('is computed from its thread where it has none, spares the boss, and is about what board screws get (common practice)', () => {
    for (const map of demoMaps()) {
      const bare = changed(map, (copy) =>
        copy.fasteners.forEach((each) => void delete (each as { torque?: object }).torque),
      );
      for (const joint of screws(bare)) {
        for (const each of joint.points) {
          const found = windowOf(bare, joint, each);
          if (!found) continue;
          expect(found.stripMargin).toBeGreaterThanOrEqual(2.5 - 1e-9);
          expect(found.least_Ncm).toBeGreaterThan(0);
          // M1.2 to M2 of phones and tablets: a few N·cm, never a bolt's
          expect(found.most_Ncm).toBeLessThan(60);
        }
      }
    }
  });
  it('is none where the thread is written in another way', () => {
    const map = changed(gannetWorks(), (copy) =>
      copy.fasteners.forEach((each) => {
        each.thread = 'own';
        delete (each as { torque?: object }).torque;
      }),
    );
    const [joint] = screws(map);
    expect(windowOf(map, joint!, joint!.points[0]!)).toBeNull();
  });
  it('judges a peak', () => {
    const window = { least_Ncm: 8, most_Ncm: 10, from: 'map' } as const;
    expect([7.9, 8, 10, 10.1].map((peak) => peakVerdict(peak, false, window))).toEqual(['low', 'in', 'in', 'high']);
    expect(peakVerdict(5, true, window)).toBe('slips');
  });
});
