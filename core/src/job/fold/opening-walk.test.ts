import { WARM_SOURCES } from '../../model/sources/index.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { EFFORT } from '../../../test/effort.ts';
import { shearwater11, tern5 } from '../../../test/maps.ts';
import { usualSetting } from '../../physics/heat/index.ts';
import { airing } from '../../physics/solvent/index.ts';
import { dropsOf } from '../state/opening-state.ts';
import type { EventData, EventType } from '../events/events.ts';
import { foldJob } from './fold.ts';

type Said = { readonly type: EventType; readonly data: EventData[EventType] };

/** What somebody might say at an opening, sense and nonsense. */
function sayings(joints: readonly string[], segments: readonly string[]): fc.Arbitrary<Said> {
  const joint = fc.constantFrom(...joints, 'nothing');
  const setting = fc.constantFrom(...WARM_SOURCES).map((kind) => usualSetting(kind));
  const reading = fc.record({
    at_s: fc.integer({ min: 0, max: 400 }),
    temp_C: fc.integer({ min: -50, max: 120 }),
    spot: fc.constantFrom('face' as const, 'bond' as const, 'far' as const),
  });
  const said = (type: EventType, data: fc.Arbitrary<object>) =>
    data.map((each): Said => ({ type, data: each as EventData[EventType] }));
  return fc.oneof(
    said('heat-on', fc.record({ joint, setting, heat_s: fc.constant(120) })),
    said(
      'heat-on',
      fc.record({ joint, setting, heat_s: fc.constant(120), zone: fc.constantFrom('lower', 'upper', 7) }),
    ),
    said('heat-reading', fc.record({ joint, readings: fc.array(reading, { minLength: 1, maxLength: 4 }) })),
    said('heat-off', fc.record({ joint, seconds: fc.integer({ min: 0, max: 900 }) })),
    said('edge', fc.record({ joint, segment: fc.constantFrom(...segments, 'middle') })),
    said('edge', fc.record({ joint: fc.constant(joints[0]!), segment: fc.constantFrom(...segments) })),
    said(
      'placeholder',
      fc.record({ joint, material: fc.constantFrom('metal', 'plastic'), count: fc.integer({ min: 0, max: 3 }) }),
    ),
    said(
      'solvent',
      fc.record({ joint, drops: fc.integer({ min: 1, max: 20 }), away: fc.boolean(), bond_C: fc.constantFrom(25, 60) }),
    ),
    said('aired', fc.record({ step: fc.constant('vent:x'), seconds: fc.integer({ min: 0, max: 900 }) })),
    said(
      'trouble',
      fc.record({
        kind: fc.constantFrom('will-not-lift', 'grabbed-again', 'cup-slips', 'cut-too-deep', 'clip-broken'),
        text: fc.constant(''),
        joint,
        segment: fc.constantFrom(...segments),
      }),
    ),
    said('clear', fc.constant({ text: 'looked at', lead: 'Maren' })),
  );
}

describe('any opening', () => {
  const devices = [
    { map: tern5(), joint: 'front-seal' },
    { map: shearwater11(), joint: 'front-bond' },
  ];
  it.each(devices)('of $map.id keeps its rules, whatever is said in whatever order', ({ map, joint }) => {
    const bond = map.joints.find((each) => each.id === joint);
    const segments = bond?.type === 'bond' ? bond.segments!.map(({ id }) => id) : [];
    const others = map.joints.flatMap((each) => (each.type === 'bond' && each.id !== joint ? [each.id] : []));
    fc.assert(
      fc.property(fc.array(sayings([joint, ...others.slice(0, 2)], segments), { maxLength: 40 }), (all) => {
        const bench = new TestBench(map, [{ replace: 'display' }]).prepare();
        for (const { type, data } of all) {
          const before = bench.state;
          bench.send(type, data);
          const { opening } = bench.state;
          // a refusal says why, and changes nothing
          if (bench.problem !== null) {
            expect(bench.problem).toMatch(/\S+ \S+/);
            expect(bench.state).toBe(before);
            continue;
          }
          if (before.stopped) expect(['heat-on', 'edge', 'solvent']).not.toContain(type);
          if (type === 'heat-on') {
            expect(dropsOf(before.opening)).toBe(0);
            expect(before.opening.heating).toBeNull();
          }
          if (type === 'solvent') {
            expect(opening.heating).toBeNull();
            expect((data as EventData['solvent']).bond_C!).toBeLessThanOrEqual(40);
          }
          if (type === 'aired') {
            const needed = airing(dropsOf(before.opening), before.limits).seconds;
            expect((data as EventData['aired']).seconds).toBeGreaterThanOrEqual(needed);
          }
          if (type === 'edge') expect(before.opening.heating?.joint).not.toBe((data as EventData['edge']).joint);
          // readings stand in order, each place for itself
          for (const spot of ['face', 'bond', 'far']) {
            const times = (opening.heating?.readings ?? [])
              .filter((each) => each.spot === spot)
              .map(({ at_s }) => at_s);
            expect(times).toEqual([...new Set(times)].toSorted((a, b) => a - b));
          }
          // no refusal to lift has ever made a bond softer
          for (const [id, soften_C] of opening.softens) {
            expect(soften_C).toBeGreaterThanOrEqual(before.opening.softens.get(id) ?? 0);
          }
        }
        expect(foldJob(bench.mechanism, bench.job, bench.state.events)).toEqual(bench.state);
      }),
      { numRuns: 40 * EFFORT, seed: 20_261_125 },
    );
  });
});
