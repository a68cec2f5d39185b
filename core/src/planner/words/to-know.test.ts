import { describe, expect, it } from 'vitest';
import { changed, gannetWorks, shearwater11, tern5 } from '../../../test/maps.ts';
import { plan } from '../../../test/played-plans.ts';
import type { DeviceMap } from '../../model/device-map/index.ts';
import { opWords } from './index.ts';

type Changed<T> = { -readonly [Key in keyof T]: unknown };

/** Everything that a bench says of a full strip and its way back. */
function said(map: DeviceMap): string {
  const { strip, rebuild } = plan(map, [{ full: true }]);
  return [...strip, ...rebuild]
    .map((op) => {
      const { title, thing, hint = '' } = opWords(map, op);
      return `${op.id} ${title} ${thing} ${hint}`;
    })
    .join('\n');
}

const part = (id: string, more: object) => (map: DeviceMap) =>
  void Object.assign(map.parts.find((each) => each.id === id)! as Changed<object>, more);
const joint = (id: string, more: object) => (map: DeviceMap) =>
  void Object.assign(map.joints.find((each) => each.id === id)! as Changed<object>, more);
const fastener = (more: object) => (map: DeviceMap) =>
  void Object.assign(map.fasteners.find(({ id }) => id === 'lid-short')! as Changed<object>, more);
const point = (more: object) => (map: DeviceMap) => {
  const screws = map.joints.find(({ id }) => id === 'connector-lid-screws')!;
  if (screws.type === 'screw') Object.assign(screws.points[0]!, more);
};

describe('what the map knows', () => {
  const before = said(tern5());

  it.each([
    ['a lever point', joint('display-plug', { lever: { x: 0, y: 60 } }), 'Lever at its left edge.'],
    ['a printed mark', joint('display-plug', { mark: 'J7' }), 'Marked “J7”.'],
    ['a mark on a part', part('rear-camera', { mark: '2' }), 'Marked “2”.'],
    ['how it goes in', part('rear-camera', { motion: { firstEdge: 'top', angle: 30 } }), 'its top edge first, at 30°'],
    [
      'a fold',
      part('volume-flex', { folds: [{ from: { x: 1, y: 1 }, to: { x: 3, y: 1 } }] }),
      'Folded along the line drawn: is it?',
    ],
    ['an opening', part('volume-flex', { through: [{ part: 'frame', x: 1, y: 1 }] }), 'Feed it back through'],
    ['a look-alike', part('rear-camera', { mixUpWith: ['front-camera'] }), 'mixed up with Front camera'],
    ['what a failed look asks for', part('rear-camera', { ifFailed: { replace: 'rear-camera' } }), 'Look at it first'],
    ['where to pry', part('display', { liftFrom: { x: 35, y: 150 } }), 'Begin at its lower middle.'],
    ['what is overlooked', part('rear-camera', { hazards: ['overlooked'] }), 'rear camera plug'],
    ['what is not touched', part('vibrator', { hazards: ['no-touch'] }), 'Fingers off its face.'],
    ['what a spark ruins', part('rear-camera', { hazards: ['static'] }), 'a spark ruins it'],
    ['what heat ruins', part('rear-camera', { hazards: ['heat-sensitive'] }), 'Keep it from the heat.'],
    ['an order out', point({ outOrder: 1 }), 'In the order of the numbers'],
    ['an order in', point({ order: 1 }), 'In the order of the numbers'],
    ['what no magnet holds', fastener({ magnetic: false }), 'No magnet holds them'],
    ['what is for one use', fastener({ singleUse: true }), 'for one use'],
    ['a thread locker', fastener({ locker: { cure_s: 600 } }), 'it sets in 10 min'],
    ['a weight', joint('front-seal', { close: { press_s: 120, mass_kg: 13 } }), '13 kg on it'],
    ['a tilt', joint('bezel-clips', { tilt: 'top' }), 'Tilt it up from the bottom edge.'],
  ] as const)('says %s with the operation that it belongs to', (_, change, words) => {
    const after = said(changed(tern5(), change as Parameters<typeof changed>[1]));
    expect(after).not.toBe(before);
    expect(after).toContain(words);
  });

  it('says how a plug of each kind lets go, and what becomes of what came off', () => {
    const map = gannetWorks();
    const ops = plan(map, [{ full: true }], {}).strip;
    const hint = (id: string) =>
      opWords(
        map,
        ops.find((op) => op.id === id)!,
      ).hint;
    expect(hint('release:lamp-plug')).toContain('The flex comes out upward.');
    expect(hint('release:right-snap-top')).toContain('Lay the lead aside');
    expect(hint('release:cell-strap')).toContain('Straight up and evenly');
    // a flex of what stands open leaves toward the side that stays down, also that of a piece that rides on it
    const toward = (device: DeviceMap, id: string) =>
      opWords(
        device,
        plan(device, [{ full: true }], {}).strip.find((op) => op.id === id)!,
      ).hint;
    expect(toward(shearwater11(), 'release:touch-plug')).toContain('The flex comes out to the left.');
    expect(toward(tern5(), 'release:light-plug')).toContain('The flex comes out to the right.');
    expect(hint('lift:seal-label')).toContain('Into the bin at once');
    expect(hint('release:shield-screws')).toContain('No magnet holds them');
  });
});
