import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { changed, tern5 } from '../../../test/maps.ts';
import { usualSetting } from '../../physics/heat/index.ts';
import { putOn } from './put-on.ts';

const at = (until: string, target: object = { replace: 'display' }) =>
  new TestBench(tern5(), [target as { replace: string }]).prepare().until(until);
const on = (bench: TestBench) => putOn(bench.mechanism.map, bench.state).map(({ text }) => text);
const ids = (bench: TestBench) => bench.ahead().map((op) => op.id as string);

describe('what was put on', () => {
  it('is a cup from the first gap until the part is loose, and a block while it stands open', () => {
    const bench = at('heat:front-seal', { replace: 'cell' });
    const heat = { joint: 'front-seal', setting: usualSetting('plate'), heat_s: 300 };
    bench.send('heat-on', heat).wait(300).send('heat-off', { joint: 'front-seal', seconds: 300 });
    expect(on(bench)).toEqual(['Film on the glass']);
    bench.send('edge', { joint: 'front-seal', segment: 'bottom' });
    expect(on(bench)).toContain('Cup on Display');
    bench.until('open:display');
    expect(on(bench)).toEqual(['Film on the glass']);
    bench.do(bench.ahead()[0]!);
    expect(on(bench)).toContain('Prop under the display');
    const byBlade = at('heat:front-seal');
    byBlade
      .send('policy', { change: { firstGap: 'edgeless-blade' } })
      .send('heat-on', heat)
      .wait(300);
    byBlade.send('heat-off', { joint: 'front-seal', seconds: 300 });
    byBlade.send('edge', { joint: 'front-seal', segment: 'bottom' });
    expect(on(byBlade)).not.toContain('Cup on Display');
  });

  it('is tape, which leaves with the part that is replaced and comes off the one that stays', () => {
    const crack = { kind: 'crack', face: 'front', x: 30, y: 60, part: 'display' } as const;
    const taped = (target: object) => {
      const bench = new TestBench(tern5(), [target as { replace: string }]).send('damage', crack).prepare();
      return bench.until('heat:front-seal');
    };
    const stays = taped({ replace: 'cell' });
    expect(on(stays)).toContain('Tape on Display');
    expect(ids(stays)).toContain('tape-off:display');
    stays.until('test:after');
    expect(on(stays)).not.toContain('Tape on Display');
    const goes = taped({ replace: 'display' });
    expect(on(goes)).toContain('Tape on Display');
    expect(ids(goes)).not.toContain('tape-off:display');
    expect(on(goes.until('test:after'))).toEqual([]);
  });

  it('is none on glue: it is laid and closed', () => {
    for (const way of ['school', 'sight'] as const) {
      const bench = new TestBench(tern5(), [{ replace: 'display' }]).prepare();
      if (way === 'school') bench.send('policy', { change: { closing: 'liquid' } });
      else bench.send('closing', { joint: 'front-seal', way: 'glue', text: '' });
      bench.until();
      expect(bench.send('finish', {}).problem).toBeNull();
    }
  });

  it('that was sealed in all the same keeps the repair from being finished', () => {
    const bench = at('liner-off:front-seal');
    for (const op of bench.ahead().filter(({ id }) => id !== 'liner-off:front-seal')) {
      const { id, kind, joint, part, name } = op;
      const step = { id, kind, ...(joint ? { joint } : {}), ...(part ? { part } : {}), ...(name ? { name } : {}) };
      for (const tried of op.name === 'test' ? op.functions! : []) {
        bench.send('test', { function: tried, result: 'works', stage: 'after' });
      }
      bench.send('did', { steps: [step], anyway: 'forgotten' });
    }
    expect(bench.send('finish', {}).problem).toContain('Liner sealed in at');
  });

  it('is not sealed in: picks, a liner and a film come off first', () => {
    const bench = at('liner-off:front-seal');
    const made = { id: 'make:front-seal', kind: 'make', joint: 'front-seal' } as const;
    const closed = { id: 'close:display', kind: 'close', part: 'display' } as const;
    const hooked = { id: 'make:front-hooks', kind: 'make', joint: 'front-hooks' } as const;
    expect(bench.send('did', { steps: [closed, hooked, made] }).problem).toContain('Liner on Display: seal would be');
    const peeled = { id: 'liner-off:front-seal', kind: 'procedure', name: 'liner-off', joint: 'front-seal' } as const;
    bench.send('placeholder', { joint: 'front-seal', material: 'plastic', count: 1 });
    expect(bench.send('did', { steps: [peeled, closed, hooked, made] }).problem).toContain('1 plastic in Display');
    bench.send('placeholder', { joint: 'front-seal', material: 'plastic', count: 0 });
    expect(bench.send('did', { steps: [peeled, closed, hooked, made] }).problem).toBeNull();

    const filmed = changed(tern5(), (copy) => {
      copy.parts.find((each) => each.id === 'front-camera')!.film = true;
    });
    const covered = new TestBench(filmed, [{ replace: 'cell' }]).prepare().until('close:display');
    expect(covered.state.steps.has('film:front-camera')).toBe(true);
    covered.state = { ...covered.state, steps: new Map([...covered.state.steps, ['film-off:front-camera', 0]]) };
    expect(covered.send('did', { steps: [closed] }).problem).toContain('Film on Front camera would be sealed in');
    // what happened anyway is a fact, and stays in the ledger
    expect(covered.send('did', { steps: [closed], anyway: 'it was forgotten' }).problem).toBeNull();
    expect(on(covered)).toContain('Film on Front camera');
  });
});

describe('what intake has marked', () => {
  const marked = (kind: 'crack' | 'bend') =>
    new TestBench(tern5(), [{ replace: 'display' }])
      .send('damage', { kind, face: 'front', x: 30, y: 60, part: kind === 'crack' ? 'display' : 'frame' })
      .prepare();

  it('has crumbs brushed out of the frame before its seal is laid, once', () => {
    const bench = marked('crack').until('release:front-seal');
    const all = ids(bench);
    expect(all.indexOf('brush:display')).toBeGreaterThan(all.indexOf('lift:display'));
    expect(all.indexOf('brush:display')).toBeLessThan(all.indexOf('clean:front-seal'));
    bench.until('brush:display').do(bench.ahead()[0]!);
    expect(ids(bench)).not.toContain('brush:display');
  });

  it('has a bent rim trued before a panel goes on it', () => {
    const all = ids(marked('bend'));
    expect(all.indexOf('true:display')).toBeGreaterThan(all.indexOf('lift:display'));
    expect(all.indexOf('true:display')).toBeLessThan(all.indexOf('clean:front-seal'));
    expect(ids(new TestBench(tern5(), [{ replace: 'display' }]).prepare())).not.toContain('true:display');
  });
});
