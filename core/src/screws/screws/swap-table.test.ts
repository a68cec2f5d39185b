import { describe, expect, it } from 'vitest';
import { tern5 } from '../../../test/maps.ts';
import type { ScrewJoint } from '../../model/device-map/index.ts';
import { swapRequest, swapTable } from './swap-table.ts';

const kind = (id: string, length: number, drive = 'PH000', thread = 'M1.4x0.3') => ({ id, length, drive, thread });
const hole = (id: string, fastener: string, depth: number) => ({ id, fastener, points: [{ id: 'p', depth }] });
const cell = (cells: ReturnType<typeof swapTable>, fastener: string, joint: string) =>
  cells.find((each) => each.fastener === fastener && each.joint === joint)!;

describe('what may go where', () => {
  const fasteners = [
    kind('short', 1.2),
    kind('long', 3.1),
    kind('star', 1.2, 'T3'),
    kind('fine', 1.2, 'T3', 'M1.2x0.25'),
  ];
  const cells = swapTable({ fasteners, joints: [hole('lid', 'short', 1.6), hole('deep', 'long', 3.4)] });

  it('flags a 3.1 mm screw in a hole for 1.2 mm as long (common practice)', () => {
    expect(cell(cells, 'long', 'lid')).toEqual({
      fastener: 'long',
      joint: 'lid',
      point: 'p',
      verdict: 'long',
      protrudes_mm: 1.5,
    });
    expect(cell(cells, 'short', 'deep')).toMatchObject({ verdict: 'short', engagementLost_mm: 1.9 });
    expect(cell(cells, 'short', 'lid')).toMatchObject({ verdict: 'fits' });
  });

  it('says a wrong thread before a wrong drive, and that before a length', () => {
    expect(cell(cells, 'fine', 'lid').verdict).toBe('wrong-thread');
    expect(cell(cells, 'star', 'deep').verdict).toBe('wrong-drive');
  });

  it('has every kind in every hole, each hole by its own fastener', () => {
    const map = tern5();
    const joints = map.joints.filter((each): each is ScrewJoint => each.type === 'screw');
    const holes = joints.reduce((sum, { points }) => sum + points.length, 0);
    const table = swapTable({ fasteners: map.fasteners, joints });
    expect(table).toHaveLength(map.fasteners.length * holes);
    for (const joint of joints) {
      for (const point of joint.points) {
        const right = table.find(
          (each) =>
            each.joint === joint.id && each.point === point.id && each.fastener === (point.fastener ?? joint.fastener),
        );
        expect(right!.verdict).toBe('fits');
      }
    }
  });

  it('takes equal screws under two names, and no screws at all', () => {
    const two = swapTable({ fasteners: [kind('a', 1.2), kind('b', 1.2)], joints: [hole('lid', 'a', 1.6)] });
    expect(two.map(({ verdict }) => verdict)).toEqual(['fits', 'fits']);
    expect(swapTable({ fasteners: [], joints: [] })).toEqual([]);
  });

  it('names what is wrong', () => {
    const lost = () => swapTable({ fasteners: [kind('a', 1.2)], joints: [hole('lid', 'b', 1.6)] });
    expect(lost).toThrow(expect.objectContaining({ path: 'joints[0].fastener' }) as Error);
    const refused = (fastener: object) =>
      swapRequest.validate({ fasteners: [{ ...kind('a', 1.2), ...fastener }], joints: [] }).error?.message;
    expect(refused({ length: -1 })).toContain('fasteners[0].length');
    expect(refused({ length: 900 })).toContain('fasteners[0].length');
    const points = Array.from({ length: 500 }, (_, at) => ({ id: `p${at}`, depth: 2 }));
    const many = Array.from({ length: 500 }, (_, at) => kind(`k${at}`, 1));
    const huge = () => swapTable({ fasteners: many, joints: [{ id: 'j', fastener: 'k0', points }] });
    expect(huge).toThrow('pairs of a screw and a hole');
  });
});
