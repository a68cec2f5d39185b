import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bondOf, changed, shearwater11, tern5 } from '../../../test/maps.ts';
import type { BondSegment, DeviceMap } from '../../model/device-map/index.ts';
import { cutOfBond, cutRequest, planCut } from './index.ts';

const edge = (
  id: string,
  from: [number, number],
  to: [number, number],
  more: Partial<BondSegment> = {},
): BondSegment => ({
  id,
  from: { x: from[0], y: from[1] },
  to: { x: to[0], y: to[1] },
  depth: 3,
  ...more,
});
const round = (more: Partial<Record<string, Partial<BondSegment>>> = {}) => [
  edge('top', [0, 0], [70, 0], more['top']),
  edge('right', [70, 0], [70, 140], more['right']),
  edge('bottom', [70, 140], [0, 140], more['bottom']),
  edge('left', [0, 140], [0, 0], more['left']),
];
const order = (request: Parameters<typeof planCut>[0]) => planCut(request).edges.map((each) => each.segment);

describe('the order of edges', () => {
  it("is the map's own where it has one", () => {
    const segments = round({ top: { order: 4 }, right: { order: 2 }, bottom: { order: 1 }, left: { order: 3 } });
    expect(order({ segments, speed_mm_s: 2 })).toEqual(['bottom', 'right', 'left', 'top']);
  });

  it('begins where the pick may go deepest and nothing lies behind, goes round, and ends at the flex and the hinge', () => {
    const segments = round({ bottom: { depth: 5 }, left: { near: 'display-plug' } });
    expect(order({ segments, speed_mm_s: 2, hinge: 'top' })).toEqual(['bottom', 'right', 'left', 'top']);
    expect(order({ segments, speed_mm_s: 2, hinge: 'right' })).toEqual(['bottom', 'top', 'left', 'right']);
    expect(order({ segments, speed_mm_s: 2, hinge: 'right', start: 'top' })[0]).toBe('top');
  });

  it("keeps the map's own order also across zones", () => {
    const segments = round({
      top: { zone: 'a', order: 1 },
      right: { zone: 'b', order: 2 },
      bottom: { zone: 'a', order: 3 },
    });
    expect(order({ segments, speed_mm_s: 2 })).toEqual(['top', 'right', 'bottom', 'left']);
  });

  it('finishes a zone before the next, which has to be heated first', () => {
    const segments = round({
      top: { zone: 'upper' },
      right: { zone: 'lower' },
      bottom: { zone: 'lower' },
      left: { zone: 'upper' },
    });
    const plan = planCut({ segments, speed_mm_s: 2, start: 'top' });
    expect(plan.edges.map((each) => each.segment)).toEqual(['top', 'left', 'bottom', 'right']);
    expect(plan.edges.map((each) => each.reheatBefore ?? false)).toEqual([false, false, true, false]);
    expect(plan.reheats).toBe(1);
  });

  it('leaves out what has no depth', () => {
    expect(order({ segments: round({ left: { depth: undefined } }), speed_mm_s: 2 })).not.toContain('left');
  });

  it('cuts every edge once, whatever the bond', () => {
    const point = fc.record({ x: fc.integer({ min: 0, max: 100 }), y: fc.integer({ min: 0, max: 200 }) });
    const segment = fc.record({
      from: point,
      to: point,
      depth: fc.option(fc.integer({ min: 1, max: 9 }), { nil: undefined }),
      order: fc.option(fc.integer({ min: 1, max: 5 }), { nil: undefined }),
      zone: fc.constantFrom('a', 'b', undefined),
    });
    fc.assert(
      fc.property(
        fc.array(segment, { minLength: 1, maxLength: 9 }),
        fc.integer({ min: 5, max: 200 }),
        (given, workingTime_s) => {
          const segments = given.map((each, index) => ({ ...each, id: String(index) }));
          const plan = planCut({ segments, speed_mm_s: 2, heat: { workingTime_s, reheat_s: 60 } });
          const cut = segments.filter((each) => each.depth !== undefined);
          expect(plan.edges.map((each) => each.segment).toSorted()).toEqual(cut.map((each) => each.id).toSorted());
          // what the map gives an order comes first and in it; zones of the rest are not mixed
          const turns = plan.edges.map((each) => segments[Number(each.segment)]!.order ?? Infinity);
          expect(turns).toEqual(turns.toSorted((a, b) => a - b));
          const free = plan.edges.filter((each) => segments[Number(each.segment)]!.order === undefined);
          const zones = free.map((each) => segments[Number(each.segment)]!.zone);
          expect(zones.filter((zone, index) => zone !== zones[index - 1]).length).toBeLessThanOrEqual(
            new Set(zones).size + 1,
          );
          // the bond is never cut longer than it is soft
          let warm = 0;
          for (const { seconds, reheatBefore, reheatsWithin = 0 } of plan.edges) {
            warm = (reheatBefore ? 0 : warm) + seconds;
            expect(warm / (reheatsWithin + 1)).toBeLessThanOrEqual(workingTime_s + 1e-6);
            if (reheatsWithin > 0) warm = seconds - reheatsWithin * workingTime_s;
          }
        },
      ),
    );
  });
});

describe('time and heat', () => {
  it('is length over speed, and a pause before what would grow too stiff', () => {
    const plan = planCut({
      segments: round(),
      speed_mm_s: 2,
      start: 'top',
      heat: { workingTime_s: 110, reheat_s: 90 },
    });
    // 70, 140, 70, 140 mm: 35, 70, 35, 70 s
    expect(plan.edges.map((each) => each.seconds)).toEqual([35, 70, 35, 70]);
    expect(plan.edges.map((each) => each.reheatBefore ?? false)).toEqual([false, false, true, false]);
    expect(plan).toMatchObject({ reheats: 1, seconds: 210 + 90 });
  });

  it('pauses within an edge that takes longer than the bond stays soft', () => {
    const plan = planCut({ segments: [edge('long', [0, 0], [0, 100])], speed_mm_s: 1, heat: { workingTime_s: 30 } });
    expect(plan.edges[0]).toMatchObject({ seconds: 100, reheatsWithin: 3 });
    expect(plan.reheats).toBe(3);
  });

  it('needs no heat where none is asked about', () => {
    expect(planCut({ segments: round(), speed_mm_s: 2 })).toMatchObject({ reheats: 0, seconds: 210 });
  });

  it('takes the seal of Tern 5 as it is mapped', () => {
    const seal = tern5().joints.find((each) => each.id === 'front-seal')!;
    const segments = seal.type === 'bond' ? seal.segments! : [];
    const plan = planCut({ segments, hinge: 'right', speed_mm_s: 2.5 });
    expect(plan.edges).toHaveLength(segments.filter((each) => each.depth !== undefined).length);
    expect(plan.seconds).toBeGreaterThan(60);
  });
});

describe('bad input', () => {
  const refused = (change: object) =>
    cutRequest.validate({ segments: round(), speed_mm_s: 2, ...change }).error?.message ?? '';
  it('names the field and the cure', () => {
    expect(refused({})).toBe('');
    expect(refused({ speed_mm_s: 0 })).toContain('speed_mm_s');
    expect(refused({ start: 'middle' })).toContain('no segment middle');
    expect(refused({ segments: round({ top: { depth: undefined } }), start: 'top' })).toContain('no depth');
    expect(refused({ segments: round({ top: { depth: 0 } }) })).toContain('leave it out');
    expect(refused({ segments: [] })).toContain('segments');
    expect(refused({ heat: { workingTime_s: 0 } })).toContain('workingTime_s');
  });
});

describe('a bond of a map', () => {
  const cutOf = (map: DeviceMap, id: string) => cutOfBond(map, bondOf(map, id), { speed_mm_s: 4 })!;

  it('is cut as mapped, toward the side that stays down, until what tethers it has to come off', () => {
    const cut = cutOf(tern5(), 'front-seal');
    expect(cut.edges.map((each) => [each.segment, each.depth])).toEqual([
      ['bottom', 3],
      ['left', 2],
      ['top', 2],
      ['right', 1.5],
    ]);
    expect(cut).toMatchObject({ toward: 'right', slide: { dx: -4, dy: 0 }, startWhy: 'The map begins here.' });
    expect(cut.tethers).toContain('display-plug');
  });

  it('begins at the notch where there is one, and slides out of its hooks', () => {
    const notched = changed(tern5(), (copy) => {
      for (const joint of copy.joints) {
        if (joint.type === 'bond') for (const each of joint.segments ?? []) Reflect.deleteProperty(each, 'order');
      }
      copy.parts.find((each) => each.id === 'display')!.liftFrom = { x: 35, y: 0 };
    });
    expect(cutOf(notched, 'front-seal')).toMatchObject({ startWhy: 'The map has a place to pry here.' });
    expect(cutOf(notched, 'front-seal').edges[0]!.segment).toBe('top');
    const tablet = cutOf(shearwater11(), 'front-bond');
    expect(tablet).toMatchObject({ slide: { dx: 0, dy: 4 }, gap_mm: 4, toward: 'left' });
    expect(tablet.edges[0]).toMatchObject({ segment: 'bottom', depth: 8 });
  });

  it('is not cut where the map says of no edge how deep', () => {
    expect(cutOfBond(tern5(), bondOf(tern5(), 'cell-straps'), { speed_mm_s: 4 })).toBeNull();
  });

  it('pauses where the field says that an edge grows stiff first', () => {
    const segments = round();
    const softFor_s = { right: 20, top: 200, bottom: 200, left: 0 };
    const plan = planCut({ segments, speed_mm_s: 4, start: 'top', heat: { workingTime_s: 200, softFor_s } });
    // 70, 140, 70, 140 mm: 17.5, 35, 17.5, 35 s; the right edge is soft for 20 s only, so it pauses before it and on it
    expect(plan.edges.map((each) => [each.segment, each.reheatBefore ?? false, each.reheatsWithin ?? 0])).toEqual([
      ['top', false, 0],
      ['right', true, 1],
      ['bottom', false, 0],
      ['left', false, 0],
    ]);
  });
});
