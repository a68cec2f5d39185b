import { describe, expect, it } from 'vitest';
import { bondOf, changed, petrelGlass, shearwater11, tern5 } from '../../../test/maps.ts';
import { pickCard } from './index.ts';

describe('the pick card', () => {
  it('has every depth once, the edges in their turn, and what lies behind them', () => {
    const card = pickCard(shearwater11(), bondOf(shearwater11(), 'front-bond'))!;
    expect(card.marks.map(({ depth }) => depth)).toEqual([1.5, 2, 3, 8]);
    expect(card.marks.find(({ depth }) => depth === 2)!.edges).toEqual(['lower-right', 'lower-left', 'upper-right']);
    expect(card.edges.map(({ id, turn }) => [id, turn])).toEqual([
      ['bottom', 1],
      ['lower-right', 2],
      ['lower-left', 3],
      ['upper-right', 4],
      ['top', 5],
      ['upper-left', 6],
    ]);
    expect(card.edges[5]!.near).toBe('Display: press connector to Main board');
    expect(card.keepOuts.map(({ name }) => name)).toEqual(
      expect.arrayContaining(['Left cell', 'Right cell', 'Pen holder', 'Front camera']),
    );
    expect(card).toMatchObject({ toward: 'left', mirrored: false, bar_mm: 50 });
  });

  it('puts last what is not cut, without a depth, and mirrors a back', () => {
    const map = changed(petrelGlass(), (copy) => {
      const bond = copy.joints.find((each) => each.id === 'back-bond')!;
      if (bond.type === 'bond') Reflect.deleteProperty(bond.segments![0]!, 'depth');
    });
    const card = pickCard(map, bondOf(map, 'back-bond'))!;
    expect(card.edges.at(-1)).toMatchObject({ id: 'right', turn: null, depth: null });
    expect(card.edges.slice(0, -1).map(({ turn }) => turn)).toEqual([1, 2, 3]);
    expect(card.mirrored).toBe(true);
  });

  it('is none for a bond that is not cut', () => {
    expect(pickCard(tern5(), bondOf(tern5(), 'cell-straps'))).toBeNull();
    expect(pickCard(tern5(), bondOf(tern5(), 'window-glue'))).toBeNull();
  });
});
