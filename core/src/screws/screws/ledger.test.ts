import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { changed, tern5 } from '../../../test/maps.ts';
import {
  counts,
  EMPTY_LEDGER,
  findAgain,
  leaveOut,
  type Ledger,
  lose,
  missingFor,
  onMatByKind,
  putBack,
  type Screw,
  screwLetters,
  takenOut,
} from './index.ts';

const screws: Screw[] = Array.from({ length: 6 }, (_, n) => ({
  joint: `j${n % 2}`,
  point: `p${n}`,
  fastener: `f${n % 3}`,
}));
const none = new Set<string>();

describe('the screw ledger', () => {
  it('has every screw in just one place, whatever is done in whatever order', () => {
    const act = fc.tuple(fc.constantFrom('out', 'back', 'lose', 'find', 'leave'), fc.integer({ min: 0, max: 5 }));
    fc.assert(
      fc.property(fc.array(act, { maxLength: 40 }), (acts) => {
        let ledger: Ledger = EMPTY_LEDGER;
        for (const [what, n] of acts) {
          const screw = screws[n]!;
          const isThere = (list: readonly Screw[]) => list.includes(screw);
          if (what === 'out') ledger = takenOut(ledger, [screw]);
          if (what === 'back' && missingFor(ledger, [screw]).length === 0) ledger = putBack(ledger, [screw], none);
          if (what === 'lose' && isThere(ledger.onMat)) ledger = lose(ledger, screw);
          if (what === 'find' && isThere(ledger.lost)) ledger = findAgain(ledger, screw);
          if (what === 'leave') ledger = leaveOut(ledger);
          const { onMat, back, lost, out } = counts(ledger);
          const places = [ledger.onMat, ledger.back, ledger.lost, ledger.leftOut];
          for (const each of screws) expect(places.filter((list) => list.includes(each)).length).toBeLessThanOrEqual(1);
          expect(out).toBe(onMat + back + lost + ledger.leftOut.length);
        }
      }),
      { numRuns: 200, seed: 20_261_124 },
    );
  });

  it('does not find missing what is on the mat, and takes a new screw for a lost one', () => {
    const out = takenOut(EMPTY_LEDGER, screws);
    expect(missingFor(out, screws)).toEqual([]);
    const lost = lose(out, screws[0]!);
    expect(missingFor(lost, screws)).toEqual([screws[0]]);
    const back = putBack(lost, screws, new Set(['p0']));
    expect(counts(back)).toEqual({ out: 6, onMat: 0, back: 6, lost: 0 });
    expect(back.fresh).toEqual([screws[0]]);
    expect(onMatByKind(out).get('f0')).toBe(2);
  });
});

describe('letters and bars', () => {
  it('gives every kind its letter in the order of the map, and a bar as long as the screw is', () => {
    const letters = screwLetters(tern5());
    expect(letters.get('edge')).toMatchObject({ letter: 'A', share: 1, length_mm: 3.8 });
    expect(letters.get('lid-short')!.share).toBeCloseTo(1.4 / 3.8, 9);
    const many = changed(tern5(), (copy) => {
      copy.fasteners = Array.from({ length: 54 }, (_, n) => ({ ...copy.fasteners[0]!, id: `f${n}` }));
    });
    expect(['f25', 'f26', 'f53'].map((id) => screwLetters(many).get(id)!.letter)).toEqual(['Z', 'AA', 'BB']);
  });
});
