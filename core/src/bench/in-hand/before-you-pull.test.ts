import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { demoMaps, shearwater11, tern5 } from '../../../test/maps.ts';
import type { ScrewJoint } from '../../model/device-map/index.ts';
import { planRepair } from '../../planner/plan/index.ts';
import { heldBack } from './index.ts';

const budget = { now: () => performance.now(), limitMs: 300 };
const at = (id: string, until: string) => {
  const bench = new TestBench(tern5(), [{ remove: id }]).until(until);
  return (part = id) => heldBack(bench.mechanism, bench.state, part);
};

describe('before you pull', () => {
  it('names the one plug that was left, where it is, and what lies over a screw', () => {
    const bench = new TestBench(tern5(), [{ remove: 'rear-camera' }]).until('release:rear-camera-plug');
    const { holds } = heldBack(bench.mechanism, bench.state, 'rear-camera');
    expect(holds.map(({ joint }) => joint)).toEqual(
      expect.arrayContaining(['rear-camera-plug', 'rear-camera-bracket']),
    );
    bench.do(bench.ahead()[0]!);
    expect(heldBack(bench.mechanism, bench.state, 'rear-camera').holds).toMatchObject([
      { joint: 'rear-camera-bracket', text: expect.stringMatching(/^\d? ?[a-z\d]+.*screw/i) },
    ]);
  });

  it('says of a part that no plan touches what lies over it, and what holds it lightly', () => {
    const closed = new TestBench(tern5(), [{ replace: 'tray' }]);
    const board = heldBack(closed.mechanism, closed.state, 'lower-board');
    expect(board.holds.some(({ text }) => text.includes('lies over it'))).toBe(true);
    expect(
      heldBack(closed.mechanism, closed.state, 'cell').holds.find(({ joint }) => joint === 'cell-plug')!.beneath,
    ).toContain('Connector lid');
    const spreader = heldBack(closed.mechanism, closed.state, 'spreader');
    expect(spreader.lightly.map(({ joint }) => joint)).toEqual(['pad-to-spreader']);
  });

  it('counts the screws that are still in', () => {
    const bench = new TestBench(tern5(), [{ replace: 'display' }]).until('release:connector-lid-screws');
    const joint = 'connector-lid-screws';
    const { points } = tern5().joints.find(({ id }) => id === joint) as ScrewJoint;
    bench.send('screw', { joint, point: points[0]!.id });
    const { holds } = heldBack(bench.mechanism, bench.state, 'connector-lid');
    expect(holds.find((each) => each.joint === joint)!.text).toMatch(/^3 of 4 screws still in/);
  });

  it('names any one tether that is held back first, on every way to every part', () => {
    for (const map of demoMaps()) {
      for (const part of map.parts.filter(({ base }) => !base).slice(0, 12)) {
        // what hangs on a hinge never leaves
        if (map.joints.some(({ type, holds }) => type === 'hinge' && holds.includes(part.id))) continue;
        const { strip } = planRepair({ map, targets: [{ remove: part.id }] }, budget);
        // a joint whose other side is taken away is torn, and holds no more
        const lifted = new Set(strip.flatMap((op) => (op.kind === 'lift' ? [op.part] : [])));
        const own = new Set(
          map.joints.flatMap(({ id, holds, to }) => (holds.includes(part.id) && !lifted.has(to) ? [id] : [])),
        );
        for (const left of strip.filter((op) => op.kind === 'release' && own.has(op.joint!))) {
          const bench = new TestBench(map, []);
          for (const { id, kind, joint, part: moved } of strip) {
            if (kind === 'procedure' || joint === left.joint || moved === part.id) continue;
            bench.send('did', { steps: [{ id, kind, ...(joint ? { joint } : { part: moved! }) }], anyway: 'test' });
          }
          const [first] = heldBack(bench.mechanism, bench.state, part.id).holds;
          expect(first?.joint, `${map.id} ${part.id}`).toBe(left.joint);
        }
      }
    }
  });

  it('says what a map is likeliest to have missed where nothing holds any more, and nothing of what is off', () => {
    const loose = at('rear-camera', 'lift:rear-camera')();
    expect(loose.holds).toEqual([]);
    expect(loose.missed).toHaveLength(4);
    expect(loose.missed.join()).toMatch(/screw below.*lead.*Adhesive/);
    const bench = new TestBench(tern5(), [{ remove: 'rear-camera' }]).until('fit:rear-camera');
    expect(heldBack(bench.mechanism, bench.state, 'rear-camera')).toEqual({ holds: [], lightly: [], missed: [] });
    expect(heldBack(bench.mechanism, bench.state, 'moon').holds).toEqual([]);
    const tablet = new TestBench(shearwater11(), [{ full: true }]);
    for (const { id } of shearwater11().parts) expect(() => heldBack(tablet.mechanism, tablet.state, id)).not.toThrow();
  });
});
