import { describe, expect, it } from 'vitest';
import { changed, dunlinOpen, tern5 } from '../../../test/maps.ts';
import { plan } from '../../../test/played-plans.ts';
import type { ConnectorJoint } from '../../model/device-map/index.ts';
import { mechanismOf } from '../holds/index.ts';
import { showable } from './showable.ts';

const functionsOf = (made: ReturnType<typeof plan>, id: string) => made.rebuild.find((op) => op.id === id)?.functions;

describe('what can be tried before the device is closed', () => {
  const shut = changed(tern5(), (copy) => {
    copy.functions.push({
      id: 'shut',
      name: 'Front shut',
      how: 'Press along the rim: nothing gives.',
      needs: ['display'],
    });
    copy.functions.push({ id: 'lid', name: 'Lid shut', how: 'It lies flush.', needs: ['front-seal'] });
    const display = copy.parts.find(({ id }) => id === 'display')!;
    display.functions = [...display.functions!, 'shut', 'lid'];
  });

  it('leaves out what the state cannot show yet, and asks for it once all is closed', () => {
    const made = plan(shut, [{ replace: 'display' }]);
    const [before, after] = [functionsOf(made, 'test:before')!, functionsOf(made, 'test:after')!];
    expect(after).toContain('lid');
    expect(before).not.toContain('lid');
    // a display that stands on its flexes shows its picture
    expect(before).toEqual(expect.arrayContaining(['picture', 'shut']));
    // of what was tried before only what closing can change is asked again
    expect(after).toContain('picture');
    expect(before).toContain('charge');
    expect(after).not.toContain('charge');
  });

  it('knows contacts that part by themselves: what they serve works only when their carrier is seated', () => {
    const map = dunlinOpen();
    const mechanism = mechanismOf(map);
    const spring = map.joints.find(
      (each) => each.type === 'connector' && each.style === 'spring' && each.functions?.length,
    )!;
    const [served] = (spring as ConnectorJoint).functions!;
    const later = [{ kind: 'close' as const, part: spring.holds[0]! }];
    expect(showable(mechanism, [served!], [])).toEqual([served]);
    expect(showable(mechanism, [served!], later)).toEqual([]);
    expect(showable(mechanism, [served!], [{ kind: 'fit', part: 'cell' }])).toEqual([]);
  });
});

describe('a new board', () => {
  it('is charged for its reset, as a wait, and reset before everything is tried, while it can still be reached', () => {
    const made = plan(tern5(), [{ replace: 'upper-board' }]);
    const names = made.rebuild.map(({ id }) => id as string);
    const [charge, reset, test] = ['charge:cell', 'reset:upper-board', 'test:before'].map((id) => names.indexOf(id));
    expect([charge! < reset!, reset! < test!]).toEqual([true, true]);
    // 4.1 Ah × 3.86 V, a tenth of it (common practice) at 10 W
    expect(made.rebuild[charge!]!.wait_s).toBe(Math.round((0.1 * 4.1 * 3.86 * 3600) / 10));
    expect(plan(tern5(), [{ replace: 'lower-board' }]).rebuild.some(({ name }) => name === 'reset')).toBe(false);
    expect(plan(tern5(), [{ replace: 'display' }]).rebuild.some(({ name }) => name === 'reset')).toBe(false);
  });
});
