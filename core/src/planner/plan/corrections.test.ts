import { describe, expect, it } from 'vitest';
import { dunlinOpen, petrelGlass, sample, tern5 } from '../../../test/maps.ts';
import { ids, plan, playBack } from '../../../test/played-plans.ts';
import type { DeviceMap, Joint, Part } from '../../model/device-map/index.ts';

const at = { box: { x: 0, y: 0, w: 10, h: 10 }, z: { top: 1, bottom: 2 }, face: 'front' } as const;
const part = (id: string, kind: Part['kind'], more: Partial<Part> = {}): Part => ({
  ...at,
  id,
  name: id,
  kind,
  ...more,
});
const joint = (id: string, more: object): Joint => ({ id, to: 'frame', face: 'front', ...more }) as Joint;
const screws = (id: string, holds: string[], x: number, y: number, under: Joint['under'] = []) =>
  joint(id, {
    type: 'screw',
    holds,
    fastener: 'short',
    points: [{ id: 'a', x, y, depth: 3, below: 'metal' }],
    under,
  });
const plug = (id: string, holds: string[], more: object = {}) =>
  joint(id, { type: 'connector', style: 'press', holds, ...more });

/** A made-up device of these parts and joints, its cell on a plug. */
function device(parts: Part[], joints: Joint[], battery = true): DeviceMap {
  const base = sample();
  return {
    ...base,
    battery: battery ? { ...base.battery!, part: 'cell' } : null,
    parts: [part('frame', 'frame', { base: true }), ...parts],
    joints,
  };
}

describe('the check values of the order (docs/device-map.md)', () => {
  const lid = (id: string, x: number) => part(id, 'bracket', { box: { x, y: 10, w: 10, h: 10 } });
  const off = (id: string) => [{ part: id, until: 'off' as const }];

  it('two lids: dead first, then one part finished', () => {
    const map = device(
      [
        lid('lidA', 10),
        lid('lidB', 50),
        part('cam', 'camera', { box: { x: 50, y: 10, w: 8, h: 8 } }),
        part('cell', 'battery'),
      ],
      [
        screws('lidA-screws', ['lidA'], 12, 12),
        screws('lidB-screws', ['lidB'], 52, 12),
        plug('cell-plug', ['cell'], { isolates: true, under: off('lidA'), at: { x: 14, y: 14 } }),
        joint('cell-tabs', { type: 'bond', style: 'tabs', holds: ['cell'] }),
        plug('cam-plug', ['cam'], { under: off('lidB'), at: { x: 54, y: 14 } }),
      ],
    );
    const made = plan(map, [{ remove: 'cam' }, { remove: 'lidA' }, { remove: 'lidB' }]);
    expect(ids(made.strip.filter((op) => op.kind !== 'procedure'))).toEqual([
      'release:lidA-screws',
      'lift:lidA',
      'release:cell-plug',
      'release:lidB-screws',
      'lift:lidB',
      'release:cam-plug',
      'lift:cam',
    ]);
    expect(made.strip.find((op) => op.id === 'release:lidB-screws')).toMatchObject({
      ruledBy: 'dead-first',
      whyNotEarlier: 'Dead first: a screw that slips on a live board shorts it.',
    });
  });

  it('an open screen goes before the speaker beneath it', () => {
    const map = device(
      [
        part('screen', 'display'),
        part('lid', 'bracket', { under: [{ part: 'screen', until: 'open' }] }),
        part('speaker', 'speaker', { under: [{ part: 'screen', until: 'open' }] }),
      ],
      [
        joint('screen-clip', { type: 'clip', holds: ['screen'] }),
        screws('lid-screws', ['lid'], 3, 3, [{ part: 'screen', until: 'open' }]),
        plug('screen-plug', ['screen'], { under: off('lid') }),
        screws('speaker-screws', ['speaker'], 8, 8, [{ part: 'screen', until: 'open' }]),
      ],
      false,
    );
    const done = [{ kind: 'release', joint: 'screen-clip' } as const, { kind: 'open', part: 'screen' } as const];
    const made = plan(map, [{ remove: 'speaker' }], { display: 'taken-off' }, done);
    expect(ids(made.strip.filter((op) => op.kind !== 'procedure'))).toEqual([
      'release:lid-screws',
      'lift:lid',
      'release:screen-plug',
      'lift:screen',
      'release:speaker-screws',
      'lift:speaker',
    ]);
  });

  it('what a plate uncovered comes before what lies beside it', () => {
    const map = device(
      [
        part('plate', 'plate', { box: { x: 10, y: 10, w: 10, h: 10 } }),
        part('cam', 'camera', { box: { x: 10, y: 10, w: 10, h: 10 } }),
        part('horn', 'speaker', { box: { x: 40, y: 40, w: 10, h: 10 } }),
      ],
      [
        screws('plate-screws', ['plate'], 12, 12),
        plug('cam-plug', ['cam'], { under: off('plate'), at: { x: 15, y: 15 } }),
        screws('horn-screws', ['horn'], 42, 42),
      ],
      false,
    );
    const targets = [{ remove: 'plate' }, { remove: 'cam' }, { remove: 'horn' }];
    const strip = ids(plan(map, targets, {}, [{ kind: 'release', joint: 'plate-screws' }]).strip);
    expect(strip.filter((id) => !id.startsWith('film'))).toEqual([
      'lift:plate',
      'release:cam-plug',
      'lift:cam',
      'release:horn-screws',
      'lift:horn',
    ]);
  });
});

describe('what was found from outside', () => {
  it('a kept part stays on what carries it, also where that comes off', () => {
    const kept = plan(petrelGlass(), [{ full: true, keep: ['camera-ring'] }]);
    expect(ids(kept.strip)).toContain('lift:back-glass');
    expect(ids(kept.strip)).not.toContain('release:ring-bond');
    const mesh = plan(tern5(), [{ full: true, keep: ['earpiece-mesh', 'bezel'] }]);
    expect(ids(mesh.strip)).not.toContain('release:bezel-clips');
    expect(playBack(tern5(), mesh)).toEqual([]);
  });

  it('a display that leaves with the board it is carried by is not parted from it', () => {
    const map = device(
      [
        part('board', 'board'),
        part('shield', 'shield'),
        part('screen', 'display'),
        part('lid', 'bracket', { reuse: 'single-use', under: [{ part: 'screen', until: 'open' }] }),
        part('cell', 'battery', { hazards: ['lithium'] }),
      ],
      [
        joint('board-clip', { type: 'clip', holds: ['board'], under: [{ part: 'screen', until: 'open' }] }),
        joint('shield-clip', { type: 'clip', holds: ['shield'], to: 'board' }),
        joint('screen-clip', { type: 'clip', holds: ['screen'], to: 'shield' }),
        joint('lid-clip', { type: 'clip', holds: ['lid'], to: 'board', under: [{ part: 'screen', until: 'open' }] }),
        plug('screen-plug', ['screen'], { to: 'board', under: [{ part: 'lid', until: 'off' }] }),
        plug('cell-plug', ['cell'], { isolates: true, face: 'back' }),
        joint('cell-tabs', { type: 'bond', style: 'tabs', holds: ['cell'], face: 'back' }),
        plug('board-plug', ['board'], { face: 'back' }),
      ],
    );
    for (const display of ['taken-off', 'auto'] as const) {
      const strip = ids(plan(map, [{ remove: 'board' }], { display }).strip);
      expect(strip).not.toContain('release:screen-plug');
      expect(strip).not.toContain('lift:lid');
      expect(strip.at(-1)).toBe('lift:board');
    }
  });
});

describe('a rule that is broken already', () => {
  const doneOf = (made: ReturnType<typeof plan>) =>
    made.strip.flatMap(({ kind, joint, part: id }) =>
      kind === 'procedure' ? [] : [{ kind, ...(joint ? { joint } : { part: id }) } as { kind: 'lift'; part?: string }],
    );
  const orderWarnings = (map: DeviceMap, target: string, done: Parameters<typeof plan>[3]) =>
    plan(map, [{ replace: target }], { display: 'taken-off' }, done).warnings.filter(({ code }) => code === 'order');

  it('is said, and nothing is said while the plan is followed', () => {
    for (const [map, target] of [
      [tern5(), 'loudspeaker'],
      [dunlinOpen(), 'rear-camera'],
    ] as const) {
      const done = doneOf(plan(map, [{ replace: target }], { display: 'taken-off' }));
      done.forEach((_, at) => expect(orderWarnings(map, target, done.slice(0, at))).toEqual([]));
    }
    const live = orderWarnings(tern5(), 'lower-board', [
      { kind: 'lift', part: 'display' },
      { kind: 'release', joint: 'touch-plug' },
    ]);
    expect(live.map(({ text }) => text.split(':')[0])).toEqual(expect.arrayContaining(['Removed first', 'Dead first']));
  });
});
