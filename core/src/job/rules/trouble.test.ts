import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { changed, shearwater11, tern5 } from '../../../test/maps.ts';
import { usualSetting } from '../../physics/heat/index.ts';
import { correctionText, softensAt } from './trouble.ts';
import { TROUBLE_KINDS } from '../events/events.ts';

const joint = 'front-seal';
const plate = { joint, setting: usualSetting('plate'), heat_s: 300 };
const atHeat = () => new TestBench(tern5(), [{ replace: 'display' }]).until('heat:front-seal');
const ids = (bench: TestBench) => bench.ahead().map((op) => op.id);
describe('when it goes wrong', () => {
  const trouble = (kind: (typeof TROUBLE_KINDS)[number], more: object = {}) =>
    atHeat()
      .send('heat-on', plate)
      .send('heat-off', { joint, seconds: 300 })
      .send('trouble', { kind, text: '', joint, ...more });
  const seal = tern5().joints.find((each) => each.id === joint) as Parameters<typeof softensAt>[1];

  it('a bond that will not lift is heated again and thought to soften hotter', () => {
    const bench = trouble('will-not-lift', { bond_C: 61 });
    expect(ids(bench).slice(0, 2)).toEqual(['heat:front-seal', 'release:front-seal']);
    expect(softensAt(bench.state, seal)).toBe(64);
    expect(bench.state.corrections).toEqual([
      {
        path: expect.stringMatching(/^joints\[\d+\]\.soften_C$/),
        from: 55,
        to: 64,
        text: expect.stringContaining('would not lift'),
        softensFrom_C: 64,
      },
    ]);
    expect(correctionText(bench.state.corrections[0]!, 'C')).toContain('from 64 °C');
    expect(correctionText(bench.state.corrections[0]!, 'F')).toContain('from 147 °F');
    bench.send('trouble', { kind: 'will-not-lift', text: '', joint, bond_C: 50 });
    // it was colder than where it is thought to soften: nothing new is learned
    expect(softensAt(bench.state, seal)).toBe(64);
    expect(softensAt(trouble('will-not-lift').state, seal)).toBe(60);
  });

  it('adhesive that grabbed again is heated again, and teaches nothing', () => {
    const bench = trouble('grabbed-again');
    expect(ids(bench)[0]).toBe('heat:front-seal');
    expect(softensAt(bench.state, seal)).toBe(55);
  });

  it('a cup that slips and a cracked face get tape', () => {
    expect(ids(trouble('cup-slips'))[0]).toBe('tape:display');
    const cracked = new TestBench(tern5(), [{ replace: 'cell' }])
      .until('heat:front-seal')
      .send('trouble', { kind: 'part-cracked', text: '', part: 'display' });
    expect(ids(cracked)).toContain('tape:display');
    expect(cracked.state.targets).toContainEqual({ replace: 'display' });
  });

  it('a cut too deep over a cell stops the work; elsewhere what lies there is looked at', () => {
    const bench = trouble('cut-too-deep', { segment: 'top' });
    expect(bench.state.stopped).toBeNull();
    const look = bench.ahead()[0]!;
    expect(look).toMatchObject({ id: 'look:front-seal', name: 'look' });
    // at that edge, not at every one
    expect(look.why).toContain('Earpiece');
    expect(look.why).not.toContain('Port module');
    const over = trouble('cut-too-deep', { segment: 'left' });
    expect(over.state.stopped).toMatchObject({ reason: 'puncture' });
    expect(over.send('edge', { joint, segment: 'left' }).problem).toContain('Stopped');
  });

  it('a broken clip is looked at when it is made again', () => {
    const map = changed(shearwater11(), () => {});
    const bench = new TestBench(map, [{ replace: 'display' }]).until('release:front-hooks');
    bench.send('trouble', { kind: 'clip-broken', text: '', joint: 'front-hooks' });
    const plan = ids(bench);
    expect(plan.indexOf('look:front-hooks')).toBe(plan.indexOf('make:front-hooks') - 1);
    expect(plan.indexOf('look:front-hooks')).toBeGreaterThan(0);
  });
});
