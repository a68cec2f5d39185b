import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { demoMaps, gannetWorks, shearwater11, tern5 } from '../../../test/maps.ts';
import type { DeviceMap } from '../../model/device-map/index.ts';
import { holesOf } from '../mix-ups/index.ts';
import { type MatSheet, PAPERS, screwMat } from './index.ts';

const overlaps = ({ places }: MatSheet) =>
  places.flatMap(({ box: a, point }, at) =>
    places
      .slice(at + 1)
      .filter(({ box: b }) => a.x < b.x + b.w && b.x < a.x + a.w && a.y < b.y + b.h && b.y < a.y + a.h)
      .map((other) => `${point} ${other.point}`),
  );
const isOnPaper = ({ paper, places }: MatSheet) =>
  places.every(
    ({ box }) =>
      box.x >= 0 && box.y >= 0 && box.x + box.w <= PAPERS[paper].width && box.y + box.h <= PAPERS[paper].height,
  );

/** A device of this size whose screws stand wherever they like, on top of each other too. */
function crowded(width: number, height: number, holes: readonly (readonly [number, number])[]): DeviceMap {
  const map = tern5();
  const points = holes.map(([x, y], at) => ({
    id: `p${at}`,
    x: x * width,
    y: y * height,
    depth: 9,
    below: 'metal' as const,
  }));
  const screws = map.joints.find((each) => each.type === 'screw')!;
  return { ...map, outline: { ...map.outline, width, height }, joints: [{ ...screws, points } as typeof screws] };
}

describe('a printed mat', () => {
  it.each(demoMaps().flatMap((map) => (['a4', 'letter'] as const).map((paper) => [map.id, paper, map] as const)))(
    'has a place for every screw of %s that comes out, on %s, none over another',
    (_, paper, map) => {
      const sheets = screwMat(map, paper);
      const laid = sheets.flatMap(({ places }) => places.map(({ joint, point }) => `${joint}/${point}`));
      const out = holesOf(map).filter(({ kind }) => !kind.captive);
      expect(laid.toSorted()).toEqual(out.map(({ joint, point }) => `${joint.id}/${point.id}`).toSorted());
      expect(sheets.flatMap(overlaps)).toEqual([]);
      expect(sheets.every(isOnPaper)).toBe(true);
    },
  );

  it('lays no place over another wherever holes stand', () => {
    const share = fc.double({ min: 0, max: 1, noNaN: true });
    fc.assert(
      fc.property(
        fc.array(fc.tuple(share, share), { minLength: 1, maxLength: 120 }),
        fc.integer({ min: 40, max: 400 }),
        (holes, width) => {
          const sheets = screwMat(crowded(width, width * 1.5, holes), 'a4');
          expect(sheets.flatMap(overlaps)).toEqual([]);
          expect(sheets.every(isOnPaper)).toBe(true);
          expect(sheets.flatMap(({ places }) => places)).toHaveLength(holes.length);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('draws screws as long as they are, however far their places are spread', () => {
    const map = gannetWorks();
    const [sheet] = screwMat(map, 'a4');
    expect(sheet!.spread).toBeGreaterThan(1);
    for (const { joint, length, head, box, at } of sheet!.places) {
      const kind = holesOf(map, [joint])[0]!.kind;
      if (kind.id === 'shell') expect([length, head]).toEqual([6.2, 3]);
      expect(at.x + head / 2 + length).toBeLessThanOrEqual(box.x + box.w);
    }
  });

  it('tiles a device that is larger than the paper, at its own size', () => {
    const sheets = screwMat(shearwater11(), 'a4');
    const tiled = sheets.filter(({ title }) => title.includes('sheet'));
    expect(tiled.length).toBeGreaterThan(1);
    expect(tiled.every(({ spread }) => spread === 1)).toBe(true);
  });

  it('says with a line where a place could not lie at its hole, and with a sheet of rows where nothing is near', () => {
    const same = Array.from({ length: 400 }, () => [0.5, 0.5] as const);
    const sheets = screwMat(crowded(70, 140, same), 'a4');
    expect(sheets[0]!.places.filter(({ hole }) => hole !== null).length).toBeGreaterThan(50);
    expect(sheets.at(-1)!.title).toContain('in rows');
    expect(sheets.flatMap(({ places }) => places)).toHaveLength(400);
  });

  it('has no sheet where a device has no screws, and refuses a screw that is larger than the paper', () => {
    expect(screwMat({ ...tern5(), joints: [] }, 'a4')).toEqual([]);
    const map = crowded(70, 140, [[0.5, 0.5]]);
    const long = { ...map, fasteners: map.fasteners.map((each) => ({ ...each, length: 250 })) };
    expect(() => screwMat(long, 'a4')).toThrow(/larger than the paper/);
  });
});
