import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { EFFORT } from '../../../test/effort.ts';
import { demoMaps } from '../../../test/maps.ts';
import { toldApart, unmapped } from '../../../test/told-apart.ts';
import { checkDeviceMap } from '../../planner/map-check/index.ts';
import { mechanismOf, SEATED } from '../../planner/holds/index.ts';
import { planRepair } from '../../planner/plan/index.ts';
import { leansOn, sureness } from '../../planner/words/index.ts';
import { mapToKeep, taught } from '../../teardown/infer/index.ts';
import { counts } from '../../screws/screws/index.ts';
import { toldSoFar } from '../../teardown/record/index.ts';
import { type EventData, lastToUndo } from '../events/index.ts';
import type { DeviceMap } from '../../model/device-map/index.ts';
import { goingOf, toldIn } from './going.ts';
import { repairLines } from './repair-lines.ts';

const budget = { now: () => performance.now(), limitMs: 300 };

/** The lid is held by four screws, the battery is unplugged beneath it, and both come off. */
function lidAndBattery(): TestBench {
  return unmapped('phone')
    .send('came-off', {
      joint: 's1',
      joints: [{ id: 's1', type: 'screw', count: 4, screw: 'A' }],
      screws: [{ id: 'A', drive: 'PH000' }],
    })
    .send('came-off', { part: 'lid', to: 'off', parts: [{ id: 'lid', kind: 'bracket' }] })
    .send('came-off', { joint: 'p1', joints: [{ id: 'p1', type: 'connector', holds: ['battery'] }] })
    .send('came-off', { part: 'battery', to: 'off' });
}

const told = (bench: TestBench) => toldIn(bench.state.events);
const under = (bench: TestBench, thing: string) => {
  const { parts, joints } = mapToKeep(bench.base, told(bench));
  return [...parts, ...joints].find(({ id }) => id === thing)?.under ?? [];
};

describe('a device without a map', () => {
  it.each(demoMaps().map((map) => ({ map })))('$map.id, as it is told, goes back together by the plan', ({ map }) => {
    for (const seed of EFFORT < 0.5 ? [1] : [1, 2]) {
      const bench = unmapped(map.kind, map.outline);
      for (const [type, data] of toldApart(map, seed)) {
        bench.send(type, data as EventData[typeof type]);
        expect([type, data, bench.problem]).toEqual([type, data, null]);
      }
      const out = map.joints.filter((joint) => joint.type === 'screw').flatMap((joint) => joint.points);
      expect(bench.state.ledger.onMat).toHaveLength(out.length);
      bench.send('put-together', {});
      expect(bench.problem).toBeNull();
      expect(checkDeviceMap(bench.mechanism.map).errors).toEqual([]);
      bench.until().send('finish', {});
      expect(bench.problem).toBeNull();
      expect([...bench.state.device.status].every((each) => each === SEATED)).toBe(true);
      expect(counts(bench.state.ledger).onMat).toBe(0);
      // what is kept is a map like any other, and the record that made it comes along
      const kept = mapToKeep(bench.base, told(bench));
      expect(checkDeviceMap(kept).errors).toEqual([]);
      expect(kept.origin?.record).toMatchObject({ record: expect.any(Array) });
      // the same events make the same job, wherever they are folded
      const again = goingOf(bench.base, bench.job, bench.state.events);
      expect(again.state).toEqual(bench.state);
    }
  });

  it('holds what came off next, unless it is said', () => {
    const bench = lidAndBattery();
    expect(bench.problem).toBeNull();
    const joint = (id: string) => bench.mechanism.map.joints.find((each) => each.id === id);
    expect(joint('s1')).toMatchObject({ holds: ['lid'], type: 'screw' });
    bench.send('described', {
      parts: [{ id: 'shield', kind: 'shield' }],
      joints: [{ id: 's1', holds: ['lid', 'shield'] }],
    });
    expect(joint('s1')).toMatchObject({ holds: ['lid', 'shield'] });
  });

  it('what has no place lies under what came off last before it', () => {
    expect(under(lidAndBattery(), 'p1')).toContainEqual({ part: 'lid', until: 'off' });
    expect(under(lidAndBattery(), 's1')).toEqual([]);
  });

  it('a screw that was forgotten is inserted earlier, and the rest stays as it is', () => {
    const bench = lidAndBattery();
    const lidOff = bench.state.events.find(
      ({ type, data }) => type === 'came-off' && 'part' in data && data.part === 'lid',
    )!;
    bench.send('came-off', {
      joint: 's2',
      joints: [{ id: 's2', type: 'screw', count: 1, screw: 'A' }],
      before: lidOff.id,
    });
    expect(bench.problem).toBeNull();
    const { map } = bench.mechanism;
    expect(map.joints.find(({ id }) => id === 's2')?.holds).toEqual(['lid']);
    expect(bench.state.ledger.onMat).toHaveLength(5);
    expect(under(bench, 's2')).toEqual([]);
  });

  it('a refusal is certain, an answer too, and what was not pressed is none', () => {
    const bench = unmapped('phone')
      .send('came-off', { part: 'lid', to: 'off', parts: [{ id: 'lid', kind: 'bracket' }] })
      .send('came-off', { part: 'shield', to: 'off', parts: [{ id: 'shield', kind: 'shield' }] });
    const lid = bench.state.events.find(({ type }) => type === 'came-off')!;
    bench
      .send('described', { parts: [{ id: 'camera', kind: 'camera' }] })
      .send('stuck', { part: 'camera', by: { part: 'lid' }, before: lid.id })
      .send('came-off', { part: 'camera', to: 'off' });
    expect(bench.problem).toBeNull();
    const guesses = () => mapToKeep(bench.base, told(bench)).origin!.guesses.filter(({ part }) => part === 'camera');
    expect(guesses()).toContainEqual(
      expect.objectContaining({ entry: { part: 'lid', until: 'off' }, certainty: 'certain' }),
    );
    const off = (part: string) => ({ part, until: 'off' }) as const;
    bench.send('what-held', { part: 'camera', options: [off('shield')], by: [] });
    expect(guesses().map(({ entry }) => entry.part)).toEqual(['lid']);
  });

  it('takes screws of which nobody said the kind', () => {
    const bench = unmapped('phone').send('came-off', { joint: 's1', joints: [{ id: 's1', type: 'screw', count: 2 }] });
    expect(bench.problem).toBeNull();
    bench
      .send('came-off', { part: 'lid', to: 'off', parts: [{ id: 'lid', kind: 'bracket' }] })
      .send('put-together', {});
    expect(bench.problem).toBeNull();
    expect(checkDeviceMap(bench.mechanism.map).errors).toEqual([]);
    expect(bench.mechanism.map.origin?.unmeasured).toContain('unknown');
  });

  it('has layers of its own photographs alone, and an undo takes a photograph back with its layer', () => {
    const picture = { shown: 'a'.repeat(64), thumb: 'a'.repeat(64), width: 4, height: 3 };
    const bench = lidAndBattery().send('layer', { photo: '00000000-0000-4000-8000-00000000ffff', face: 'front' });
    expect(bench.problem).toContain('no such photograph');
    const photo = bench.send('photo', picture).state.photos.at(-1)!.id;
    expect(bench.send('layer', { photo, face: 'front' }).problem).toBeNull();
    const layers = () => toldSoFar(bench.base, told(bench)).layers;
    expect(layers()).toMatchObject([{ photo, after: 4 }]);
    // its corners put right it is the same photograph, taken when it was
    bench.send('came-off', { part: 'board', to: 'off', parts: [{ id: 'board', kind: 'board' }] });
    const corners = [
      { x: 0, y: 0 },
      { x: 1, y: 0 },
      { x: 1, y: 1 },
      { x: 0, y: 1 },
    ];
    bench.send('layer', { photo, face: 'front', corners });
    expect(layers()).toMatchObject([{ photo, after: 4, corners }]);
    expect(lastToUndo(bench.state.inForce)?.type).toBe('came-off');
    bench.send('undo', { event: lastToUndo(bench.state.inForce)!.id }).send('undo', { event: photo });
    expect(bench.problem).toBeNull();
    expect(layers()).toEqual([]);
  });

  it('a cell stays one, and burns, whatever is told of it', () => {
    const bench = unmapped('phone').send('described', { parts: [{ id: 'battery', kind: 'other' }] });
    expect(bench.problem).toContain('its cell');
    bench.send('described', { parts: [{ id: 'battery', hazards: [] }] });
    expect(bench.problem).toBeNull();
    expect(bench.mechanism.map.parts.find(({ id }) => id === 'battery')?.hazards).toEqual(['lithium']);
  });

  it('undo takes back what was told, and the map with it', () => {
    const bench = lidAndBattery();
    const last = bench.state.events.at(-1)!;
    bench.send('undo', { event: last.id });
    expect(bench.state.device.status[bench.mechanism.part.get('battery')!]).toBe(SEATED);
    const first = bench.state.inForce.at(-1)!;
    bench.send('undo', { event: first.id });
    expect(bench.mechanism.joint.has('p1')).toBe(false);
    expect(bench.problem).toBeNull();
  });

  it('plugs the battery in late, also where the cell came out last', () => {
    const bench = unmapped('phone')
      .send('came-off', { part: 'lid', to: 'off', parts: [{ id: 'lid', kind: 'bracket' }] })
      .send('came-off', {
        joint: 'p2',
        joints: [{ id: 'p2', type: 'connector', holds: ['camera'] }],
        parts: [{ id: 'camera', kind: 'camera' }],
      })
      .send('came-off', { part: 'camera', to: 'off' })
      .send('came-off', { joint: 'p1', joints: [{ id: 'p1', type: 'connector', holds: ['battery'] }] })
      .send('came-off', { part: 'battery', to: 'off' })
      .send('put-together', {});
    const { map } = bench.mechanism;
    const { rebuild } = planRepair({ map, targets: [], done: bench.state.done as never }, budget);
    const made = rebuild.filter(({ kind }) => kind === 'make').map(({ joint }) => joint);
    expect(made).toEqual(['p2', 'p1']);
  });

  it('plans another part of it the next day, from the map that was kept', () => {
    const map = mapToKeep(lidAndBattery().base, told(lidAndBattery()));
    const { strip } = planRepair({ map, targets: [{ replace: 'battery' }] }, { ...budget });
    const physical = strip.filter(({ kind }) => kind !== 'procedure').map(({ joint, part }) => joint ?? part);
    expect(physical).toEqual(['s1', 'lid', 'p1', 'battery']);
    expect(mechanismOf(map).map.battery?.part).toBe('battery');
  });

  it('says of each step whether it leans on a guess', () => {
    const bench = lidAndBattery();
    const kept = mapToKeep(bench.base, told(bench));
    expect(leansOn(kept, { kind: 'release', joint: 'p1' })).toBe('A guess: Lid off first.');
    expect(leansOn(kept, { kind: 'fit', part: 'lid' })).toMatch(/^A guess: before .*Battery/);
    expect(sureness(kept, 'p1', { part: 'lid', until: 'off' })).toBe('likely: that came off last before it');
    const box = (x: number) => ({ x, y: 10, w: 20, h: 20 });
    const { mechanism } = unmapped('phone')
      .send('came-off', { part: 'left', to: 'off', parts: [{ id: 'left', kind: 'shield', box: box(5) }] })
      .send('came-off', { part: 'right', to: 'off', parts: [{ id: 'right', kind: 'shield', box: box(40) }] })
      .send('put-together', {});
    expect(leansOn(mechanism.map, { kind: 'fit', part: 'left' })).toContain('In the reverse of how it came off');
    expect(leansOn(bench.base, { kind: 'fit', part: 'battery' })).toBe('');
  });

  it('is taught by every later repair: what did without an entry deletes it, what would not move adds one', () => {
    const map = mapToKeep(lidAndBattery().base, told(lidAndBattery()));
    const entries = (of: DeviceMap | null, id: string) => of?.joints.find((joint) => joint.id === id)?.under ?? [];
    expect(entries(map, 'p1')).toContainEqual({ part: 'lid', until: 'off' });
    const repaired = (...data: readonly EventData['did'][]) => {
      const bench = new TestBench(map, [{ remove: 'battery' }])
        .send('charge', { charge: 0.2, source: 'typed' })
        .prepare();
      for (const each of data) bench.send('did', each);
      expect(bench.problem).toBeNull();
      return repairLines(bench.state.inForce);
    };
    const release = (joint: string) => ({ id: `release:${joint}`, kind: 'release', joint }) as const;
    const without = taught(map, repaired({ steps: [release('p1')], anyway: 'the lid has a window' }))!;
    expect(entries(without, 'p1')).toEqual([]);
    expect(without.origin?.refuted).toContainEqual({ joint: 'p1', entry: { part: 'lid', until: 'off' } });
    expect(checkDeviceMap(without).errors).toEqual([]);
    // taught once more it knows the first lesson still
    const again = taught(without, repaired({ steps: [release('s1')] }));
    expect(entries(again ?? without, 'p1')).toEqual([]);
    const stuck = taught(map, [
      { kind: 'refused', part: 'lid' },
      ...repaired({ steps: [release('p1')], anyway: 'x' }),
      { kind: 'lift', part: 'lid' },
    ])!;
    expect(stuck.parts.find(({ id }) => id === 'lid')?.under ?? []).toEqual([]);
    // what somebody has changed by hand is theirs
    const byHand = { ...map, name: 'Kittiwake Lite, 2nd' };
    expect(taught(byHand, repaired({ steps: [release('p1')], anyway: 'x' }))).toBeNull();
    expect(
      taught({ ...map, origin: { ...map.origin!, record: { odd: true } } }, repaired({ steps: [release('s1')] })),
    ).toBeNull();
  });

  it.each([
    [
      'a part that holds itself',
      { joint: 'x', joints: [{ id: 'x', type: 'screw', holds: ['lid'], to: 'lid' }] },
      'itself',
    ],
    ['the same thing twice', { part: 'lid', to: 'off' }, 'off already'],
    ['a joint twice', { joint: 's1' }, 'undone already'],
    [
      'a joint of what came off long ago',
      { joint: 'x', joints: [{ id: 'x', type: 'clip', holds: ['lid'] }] },
      'on the mat',
    ],
    ['a part that nobody told of', { part: 'horn', to: 'off' }, 'Nobody has told'],
    [
      'a kind of screw that nobody told of',
      { joint: 'x', joints: [{ id: 'x', type: 'screw', screw: 'Q' }] },
      'Nobody has told',
    ],
    ['the frame', { part: 'frame', to: 'off' }, 'does not come off'],
    ['two bases', { part: 'frame', to: 'off', parts: [{ id: 'frame', kind: 'shell' }] }, 'frame'],
    [
      'a place before nothing',
      { joint: 'x', joints: [{ id: 'x', type: 'clip' }], before: '00000000-0000-4000-8000-00000000ffff' },
      'by this event',
    ],
    [
      'places that are not so many',
      { joint: 'x', joints: [{ id: 'x', type: 'screw', count: 3, points: [{ x: 1, y: 1 }] }] },
      '3 came off',
    ],
    ['a joint without a kind', { joint: 'x', joints: [{ id: 'x' }] }, 'what kind'],
  ])('refuses %s with a clear word', (_, data, words) => {
    const bench = lidAndBattery();
    const before = bench.state;
    bench.send('came-off', data as unknown as EventData['came-off']);
    expect(bench.problem).toContain(words);
    expect(bench.state).toBe(before);
  });

  it('keeps the gates: nothing before the bench is prepared, and nothing cut beside a cell that nobody has read', () => {
    const bench = unmapped('phone');
    const seal = {
      joint: 'g',
      joints: [{ id: 'g', type: 'bond', style: 'perimeter', holds: ['display'] }],
      parts: [{ id: 'display', kind: 'display' }],
    } as const;
    const unread = new TestBench(bench.base, [{ full: true }]).send('take-apart', {});
    expect(unread.send('came-off', seal).problem).toContain('prepare the bench');
    expect(bench.send('charge', { charge: 0.8, source: 'typed' }).send('came-off', seal).problem).toContain('80 %');
    expect(bench.send('charge', { charge: 0.2, source: 'typed' }).send('came-off', seal).problem).toBeNull();
    bench.send('stop', { reason: 'swelling', text: '' });
    expect(bench.send('came-off', { part: 'display', to: 'off' }).problem).toContain('Stopped');
  });
});
