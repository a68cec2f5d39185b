import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { demoMaps, tern5 } from '../../../test/maps.ts';
import { type DeviceMap, jointById } from '../../model/device-map/index.ts';
import { isDead } from '../../planner/holds/index.ts';
import { cautionFor } from '../../planner/words/index.ts';
import { CLOCK_S, leadOf, together } from './together.ts';

const step = (bench: TestBench, isOver = false) =>
  together(bench.mechanism, bench.state.device, bench.ahead(), isOver).map(({ id }) => id as string);
const display = (until: string) => new TestBench(tern5(), [{ replace: 'display' }]).until(until);

describe('what one press does', () => {
  it('is one part off, or one part on, with what holds it', () => {
    expect(step(display('release:tray-lock'))).toEqual(['release:tray-lock', 'lift:tray']);
    expect(step(display('release:bezel-clips'))).toEqual(['release:bezel-clips', 'lift:bezel']);
    expect(step(display('fit:bezel'))).toEqual(['fit:bezel', 'make:bezel-clips']);
    // pressed by hand, so short that no clock runs for it
    expect(step(display('fit:earpiece-mesh'))).toEqual(['fit:earpiece-mesh', 'make:mesh-glue', 'press:mesh-glue']);
  });

  it('is a bond scraped and wiped, then its clock; what is laid when it is over', () => {
    expect(step(display('clean:front-seal'))).toEqual(['clean:front-seal', 'wipe:front-seal', 'dry:front-seal']);
    const drying = display('dry:front-seal');
    expect(step(drying)).toEqual(['dry:front-seal']);
    expect(step(drying, true)).toEqual(['dry:front-seal', 'lay:front-seal']);
    const group = together(drying.mechanism, drying.state.device, drying.ahead(), true);
    expect([leadOf(group, false).id, leadOf(group, true).id]).toEqual(['dry:front-seal', 'lay:front-seal']);
  });

  it('is alone where it isolates, cuts edge by edge, counts, tests, or peels the liner of a seal', () => {
    // a battery's flex is bent aside in the same move
    expect(step(display('release:cell-plug'))).toEqual(['release:cell-plug', 'bend-aside:cell-plug']);
    for (const id of ['release:front-seal', 'count:dead', 'make:cell-plug', 'test:before', 'liner-off:front-seal']) {
      expect(step(display(id)), id).toEqual([id]);
    }
  });

  it('never hides a caution, a live step, a clock or a test in another step, for any part of any device', () => {
    for (const map of demoMaps()) for (const part of sampled(map)) holds(map, part);

    function holds(map: DeviceMap, part: string) {
      const bench = new TestBench(map, [{ replace: part }]);
      const ops = bench.ahead();
      for (let at = 0; at < ops.length; at++) {
        const group = together(bench.mechanism, bench.state.device, ops.slice(at));
        const dead = isDead(bench.mechanism, bench.state.device);
        const first = cautionFor(map, group[0]!, dead);
        const places = group.flatMap(({ id, joint, part, kind }) => {
          const found = kind === 'procedure' ? undefined : jointById(map, joint);
          return found?.type === 'screw' ? found.points.map((point) => `${joint} ${point.id}`) : [part ?? joint ?? id];
        });
        if (group.length > 1) expect(new Set(places).size, group[0]!.id).toBeLessThanOrEqual(5);
        group.slice(1).forEach((op, index) => {
          const own = cautionFor(map, op, dead);
          expect(own === null || own === first, `${map.id} ${op.id}`).toBe(true);
          expect(op.live, op.id).toBeUndefined();
          expect(['test', 'count', 'heat', 'soak', 'vent', 'power-on', 'power-off']).not.toContain(op.name);
          // no more places than a hand holds in mind, all of them on the face that is up
          if (op.face !== null && group[0]!.face !== null) expect(op.face).toBe(group[0]!.face);
          // only the last of a step may have a clock
          expect((group[index]!.wait_s ?? 0) < CLOCK_S, op.id).toBe(true);
        });
      }
    }
  });
});

function sampled(map: DeviceMap): string[] {
  return map.parts.filter(({ base }, index) => !base && index % 3 === 0 && map.id !== 'knot-keys').map(({ id }) => id);
}
