import { describe, expect, it } from 'vitest';
import { changed, tern5 } from '../../../test/maps.ts';
import { planRepair } from '../../planner/plan/index.ts';
import { isForSealing, kitFor, usedBy } from './index.ts';

const budget = { now: () => performance.now(), limitMs: 800 };
const board = planRepair({ map: tern5(), targets: [{ replace: 'lower-board' }] }, budget);

describe('the kit of a plan', () => {
  it('never asks for what is part of a person', () => {
    const plan = { tools: ['fingernail', 'thumb', 'handle', 'nail file', 'pick'], consumables: [] };
    // a file is a tool, whatever it is for
    expect(kitFor(tern5(), plan, new Set(), []).tools.map(({ tool }) => tool)).toEqual(['handle', 'nail file', 'pick']);
  });

  it('shows what is missing with what could stand in, what is there first, and what that risks', () => {
    const owned = new Set(board.tools.filter((each) => each !== 'stand-off 2.5' && each !== 'T3'));
    const kit = kitFor(tern5(), board, new Set([...owned, 'fine tweezers']), []);
    expect(
      kit.tools
        .filter((each) => !each.owned)
        .map((each) => each.tool)
        .toSorted(),
    ).toEqual(['T3', 'stand-off 2.5']);
    const missing = kit.tools.find((each) => each.tool === 'stand-off 2.5')!;
    expect(missing.substitutes.map((each) => [each.tool, each.owned])).toEqual([
      ['fine tweezers', true],
      ['slot 1.5', false],
    ]);
    expect(missing.substitutes[1]!.risk).toContain('slips');
    expect(kit.tools.find((each) => each.tool === 'T3')!.substitutes).toEqual([]);
  });

  it("takes the map's own stand-ins before the usual ones", () => {
    const map = changed(tern5(), (copy) => {
      copy.fasteners.find((each) => each.id === 'board-long')!.alsoDrives = ['slot 1.2'];
    });
    const kit = kitFor(map, board, new Set(), []);
    expect(kit.tools.find((each) => each.tool === 'T3')!.substitutes[0]).toMatchObject({ tool: 'slot 1.2' });
  });

  it('counts supplies against the shelf, seals by device and tape by length', () => {
    const seal = 'precut-seal:tern-5:front-seal';
    const stock = [
      { id: 's', name: 'Tern 5 front seal', unit: 'piece', key: seal, lowAt: 1, left: 1, low: true } as const,
    ];
    const supplies = kitFor(tern5(), board, new Set(), stock).supplies;
    expect(supplies.find((each) => each.key === seal)).toMatchObject({ quantity: 1, left: 1, enough: true });
    const display = planRepair({ map: tern5(), targets: [{ replace: 'display' }] }, budget);
    const tape = kitFor(tern5(), display, new Set(), []).supplies.find((each) => each.key === 'tape')!;
    expect(tape).toMatchObject({ unit: 'mm', left: null, enough: false });
    expect(tape.quantity).toBeGreaterThan(0);
    expect(
      [seal, tape.key, 'thread-locker', 'single-use-screw:tern-5:short'].map((key) => isForSealing({ key })),
    ).toEqual([true, true, false, false]);
  });

  it('counts as used only what was done', () => {
    const lay = { kind: 'procedure', name: 'lay', joint: 'front-seal' } as const;
    const tape = { kind: 'procedure', name: 'tape', part: 'display' } as const;
    expect(usedBy(tern5(), [])).toEqual([]);
    const used = usedBy(tern5(), [lay, tape, { kind: 'lift', part: 'board-shield' }]);
    expect(used.map((each) => each.key)).toEqual(['precut-seal:tern-5:front-seal', 'clear-tape']);
    // 69 mm of width: two strips of 48 mm with 10 mm of overlap, 146 mm long
    expect(used[1]!.quantity).toBe(2 * 146);
  });
});
