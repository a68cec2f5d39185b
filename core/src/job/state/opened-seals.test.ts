import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { tern5 } from '../../../test/maps.ts';
import type { DeviceMap, Renewal } from '../../model/device-map/index.ts';
import type { Policy } from '../../model/policy/index.ts';
import type { BondClosing } from '../events/deviation-events.ts';
import { saidOfWater } from './opened-seals.ts';

const RENEWED = 'Seal renewed: water resistance is not proven.';
const KEPT = 'Old seal kept: no longer water-resistant, and the owner is told.';
const GLUED = 'Glued: water resistance is not proven, and the next opening takes heat and solvent.';

function tern5With(renew: Renewal): DeviceMap {
  const map = tern5();
  const joints = map.joints.map((joint) => (joint.id === 'front-seal' ? { ...joint, renew } : joint));
  return { ...map, joints } as DeviceMap;
}

/** A display with its seal cut, by a map, a school and what was decided on sight. */
function opened(renew: Renewal, closing: Policy['closing'], decided: BondClosing | null) {
  const bench = new TestBench(tern5With(renew), [{ replace: 'cell' }]);
  if (closing) bench.send('policy', { change: { closing } });
  bench.prepare().until('open:display');
  if (decided) bench.send('closing', { joint: 'front-seal', way: decided, text: 'seen' });
  expect(bench.problem).toBeNull();
  return saidOfWater(bench.mechanism, bench.state);
}

describe('what an owner is told of an opened seal', () => {
  it.each<[Renewal, Policy['closing'], BondClosing | null, string]>([
    ['tape', null, null, RENEWED],
    ['precut', null, null, RENEWED],
    ['liquid', null, null, GLUED],
    ['reuse', null, null, KEPT],
    ['tape', 'liquid', null, GLUED],
    ['liquid', 'tape', null, RENEWED],
    ['tape', 'liquid', 'renew', RENEWED],
    ['reuse', null, 'renew', RENEWED],
    ['tape', null, 'reuse', KEPT],
    ['reuse', null, 'glue', GLUED],
  ])('a map that says %s, a school of %s, and %s decided on sight', (renew, closing, decided, said) => {
    expect(opened(renew, closing, decided)).toEqual([said]);
  });
});
