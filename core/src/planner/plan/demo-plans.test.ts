import { describe, expect, it } from 'vitest';
import { dunlinOpen, tern5 } from '../../../test/maps.ts';
import { costOf } from '../order/index.ts';
import { FLIP_S, TOOL_CHANGE_S } from './arrange.ts';
import { before, ids, physical, plan, playBack } from '../../../test/played-plans.ts';

describe('Tern 5', () => {
  const map = tern5();

  it('takes the tray out and switches off before anything is heated or opened', () => {
    const { strip } = plan(map, [{ replace: 'display' }]);
    before(strip, 'power-off', 'lift:tray');
    before(strip, 'lift:tray', 'heat:front-seal');
    // the old pane is replaced: no film for it, but over glass that goes back in
    expect(ids(strip)).not.toContain('film');
    before(plan(map, [{ replace: 'cell' }]).strip, 'film', 'heat:front-seal');
    expect(ids(strip).indexOf('release:front-seal')).toBe(ids(strip).indexOf('heat:front-seal') + 1);
    before(strip, 'release:cell-plug', 'release:display-plug');
  });

  it('moves over what the old display carries, heated again, and fits it before the display', () => {
    const made = plan(map, [{ replace: 'display' }]);
    expect([...made.moveOver].sort()).toEqual(['bezel', 'earpiece', 'earpiece-mesh', 'light-sensor']);
    before(made.rebuild, 'heat:earpiece-glue', 'release:earpiece-glue');
    before(made.rebuild, 'lift:earpiece', 'fit:earpiece');
    before(made.rebuild, 'fit:earpiece', 'fit:display');
    expect(made.rebuild.find((op) => op.id === 'fit:earpiece')).toMatchObject({ onto: 'display' });
    expect(made.rebuild.find((op) => op.id === 'fit:display')).toMatchObject({ isNew: true });
  });

  it('leaves on the old part what the new one includes, and lists the screws of what it lacks', () => {
    const made = plan(map, [{ replace: 'display', newIncludes: ['earpiece-mesh'] }]);
    expect(made.moveOver).not.toContain('earpiece-mesh');
    const lacking = plan(map, [{ replace: 'port-module', newLacks: ['speaker-screws'] }, { remove: 'loudspeaker' }]);
    expect(ids(lacking.rebuild)).not.toContain('make:speaker-screws');
    expect(lacking.leftOver).toEqual([
      { fastener: 'lid-long', count: 1 },
      { fastener: 'lid-middle', count: 2 },
    ]);
  });

  it('lays the seal on the bare frame, comes alive, tests, takes its liner off and closes', () => {
    const { rebuild } = plan(map, [{ replace: 'display' }]);
    before(rebuild, 'lay:front-seal', 'fit:display');
    before(rebuild, 'make:display-plug', 'make:cell-plug');
    before(rebuild, 'make:cell-plug', 'test:before');
    before(rebuild, 'test:before', 'liner-off:front-seal');
    expect(ids(rebuild).indexOf('close:display')).toBe(ids(rebuild).indexOf('liner-off:front-seal') + 1);
    before(plan(map, [{ replace: 'display' }], { sealLaid: 'after-test' }).rebuild, 'test:before', 'lay:front-seal');
    before(rebuild, 'clean:front-seal', 'lay:front-seal');
    before(rebuild, 'lay:front-seal', 'make:front-seal');
    before(rebuild, 'make:front-seal', 'press:front-seal');
    expect(ids(rebuild).at(-1)).toBe('test:after');
    expect(ids(plan(map, [{ replace: 'display' }], { test: 'after' }).rebuild)).not.toContain('test:before');
  });

  it('takes off what it put on, and nothing else, and presses straight after', () => {
    const { strip, rebuild } = plan(map, [{ replace: 'port-module' }], { display: 'on-flexes' });
    const put = ids(strip).filter((id) => id === 'film' || id.startsWith('film:'));
    const off = ids(rebuild).filter((id) => id.startsWith('film-off'));
    expect([put, off]).toEqual([['film'], ['film-off:glass']]);
    expect(ids(rebuild).indexOf('press:port-mic-glue')).toBe(ids(rebuild).indexOf('make:port-mic-glue') + 1);
    // the old display is not covered; the new one's film is off before the first piece goes on it
    const made = plan(map, [{ replace: 'display' }]);
    expect(ids(made.strip).filter((id) => id.startsWith('film'))).toEqual([]);
    before(made.rebuild, 'film-off:display', 'fit:bezel');
  });

  it('has what lay bare wiped and looked through before it is covered, the liner off last', () => {
    const { rebuild } = plan(map, [{ replace: 'display' }]);
    const at = ids(rebuild).indexOf('wipe:through:front-camera');
    expect(ids(rebuild).slice(at - 1, at + 3)).toEqual([
      'test:before',
      'wipe:through:front-camera',
      'liner-off:front-seal',
      'close:display',
    ]);
    // the rear camera looks out the other way, and is wiped before its own window covers it
    expect(ids(rebuild)).not.toContain('wipe:through:rear-camera');
    before(plan(map, [{ replace: 'camera-window' }]).rebuild, 'wipe:through:rear-camera', 'fit:camera-window');
  });

  it('counts the screws before the cell goes in, and releases a plug under two others last', () => {
    const made = plan(map, [{ replace: 'cell' }]);
    before(made.rebuild, 'count:cell', 'fit:cell');
    const { strip } = plan(map, [{ replace: 'port-module' }]);
    before(strip, 'release:display-plug', 'release:port-plug');
    before(strip, 'release:touch-plug', 'release:port-plug');
  });

  it('waits with everything beneath the display until it is off, where the policy says so', () => {
    const off = plan(map, [{ replace: 'loudspeaker' }], { display: 'taken-off' });
    before(off.strip, 'lift:display', 'release:speaker-screws');
    const standing = plan(map, [{ replace: 'loudspeaker' }], { display: 'on-flexes' });
    expect(ids(standing.strip)).not.toContain('lift:display');
    expect(standing.seconds.strip).toBeLessThan(off.seconds.strip);
    expect(['taken-off', 'on-flexes']).toContain(plan(map, [{ replace: 'loudspeaker' }]).display);
  });

  it('tells what is lost, what goes with the board, and that a side key is parted from it', () => {
    const told = plan(map, [{ replace: 'lower-board' }]).warnings;
    expect(told).toContainEqual(expect.objectContaining({ code: 'lost', part: 'lower-board' }));
    expect(told).toContainEqual(expect.objectContaining({ code: 'stays-with', part: 'side-key' }));
    expect(told).toContainEqual(expect.objectContaining({ code: 'seal-opened', joint: 'front-seal' }));
  });

  it('leaves captive screws out of the count, and renews what is for one use', () => {
    const made = plan(map, [{ full: true }]);
    expect(made.screws.map((each) => each.fastener)).not.toContain('captive');
    expect(made.consumables).toContainEqual(expect.objectContaining({ what: 'single-use-part', part: 'liquid-mark' }));
    expect(playBack(map, made)).toEqual([]);
  });

  it('bares the base and moves everything over when the base is replaced, keeping what is to be kept', () => {
    const base = plan(map, [{ replace: 'frame' }]);
    expect(base.moveOver).toHaveLength(
      map.parts.length - 1 - map.parts.filter((part) => part.reuse === 'single-use').length,
    );
    const kept = plan(map, [{ full: true, keep: ['camera-window', 'tray'] }]);
    expect(ids(kept.strip)).not.toContain('release:window-glue');
    expect(playBack(map, base)).toEqual([]);
  });

  it('has seconds that the cost of its own operations gives, and precedence that its order keeps', () => {
    for (const target of ['display', 'cell', 'port-module', 'lower-board']) {
      const made = plan(map, [{ replace: target }]);
      for (const [ops, seconds] of [
        [made.strip, made.seconds.strip],
        [made.rebuild, made.seconds.rebuild],
      ] as const) {
        const problem = {
          ops: ops.map((op) => ({ ...op, face: op.face === 'edge' ? null : op.face, after: [] })),
          start: { tool: null, face: null },
          toolChangeSeconds: TOOL_CHANGE_S,
          flipSeconds: FLIP_S,
        };
        expect(costOf(problem, ids(ops)).seconds).toBe(seconds);
        ops.forEach((op, index) => op.notBefore.forEach((id) => expect(ids(ops).slice(0, index)).toContain(id)));
      }
    }
  });
});

describe('Dunlin Open', () => {
  const map = dunlinOpen();

  it('lifts the battery out by hand, needs no heat, and asks for no other isolation', () => {
    const made = plan(map, [{ replace: 'port-board' }]);
    before(made.strip, 'lift:cell', 'release:flex-port-end');
    expect(made.strip.some((op) => op.name === 'heat')).toBe(false);
    expect(playBack(map, made)).toEqual([]);
  });

  it('opens nothing for the clip back but the clip back', () => {
    expect(ids(physical(plan(map, [{ replace: 'back' }]).strip))).toEqual(['release:back-clips', 'lift:back']);
  });
});
