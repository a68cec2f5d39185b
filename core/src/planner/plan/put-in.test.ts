import { describe, expect, it } from 'vitest';
import { demoMaps, gannetWorks, tern5 } from '../../../test/maps.ts';
import { plan } from '../../../test/played-plans.ts';
import type { Op } from '../drafts/index.ts';

const ids = (ops: readonly Op[]) => ops.map(({ id }) => id as string);

describe('what a careful hand looks at', () => {
  it('bends the flex of a battery aside, straight after it is unplugged, unless the battery comes off next', () => {
    const board = ids(plan(gannetWorks(), [{ remove: 'board' }], {}).strip);
    expect(board[board.indexOf('release:cell-plug') + 1]).toBe('bend-aside:cell-plug');
    expect(ids(plan(tern5(), [{ remove: 'cell' }], {}).strip).filter((id) => id.startsWith('bend-aside'))).toHaveLength(
      1,
    );
    for (const map of demoMaps()) {
      for (const each of ids(plan(map, [{ full: true }], {}).rebuild)) expect(each).not.toContain('bend-aside');
    }
  });

  it('compares old and new once all has moved over, before adhesive of the new one is laid', () => {
    const { rebuild } = plan(gannetWorks(), [{ replace: 'board' }], {});
    const order = ids(rebuild);
    const at = order.indexOf('compare:board');
    expect(at).toBeGreaterThan(order.indexOf('make:earpiece-wires'));
    expect(rebuild.slice(at).some(({ stage }) => stage === 'move')).toBe(false);
    expect(at).toBeLessThan(order.indexOf('clean:board-paste'));
    expect(ids(plan(gannetWorks(), [{ replace: 'cell' }], {}).rebuild).some((id) => id.startsWith('compare'))).toBe(
      false,
    );
  });
});
