import fc from 'fast-check';
import highsLoader from 'highs';
import { describe, expect, it } from 'vitest';
import { bondOf, tern5 } from '../../../test/maps.ts';
import { beadVolume_uL, cutFrom, type Roll, type Strip, stripsOfBond, tapeFor, tapeRequest } from './index.ts';

const strips = (...lengths: number[]): Strip[] => lengths.map((length_mm, at) => ({ id: `s${at}`, length_mm }));
const rolls = (...lengths: number[]): Roll[] => lengths.map((length_mm, at) => ({ id: `r${at}`, length_mm }));

/** Least waste as a mixed-integer model in CPLEX LP format: x strip in roll, y roll is cut, k what is left of it is kept. */
function leastWasteModel(all: readonly Strip[], from: readonly Roll[], useful_mm: number): string {
  const x = (strip: number, roll: number) => `x_${strip}_${roll}`;
  const used = (roll: number, sign: string) =>
    all.map(({ length_mm }, strip) => `${sign} ${length_mm} ${x(strip, roll)}`).join(' ');
  const lines = [
    ...all.map((_, strip) => `${from.map((_roll, roll) => x(strip, roll)).join(' + ')} = 1`),
    ...from.flatMap(({ length_mm }, roll) => [
      `${used(roll, '+')} - ${length_mm} y_${roll} <= 0`,
      // what is kept is long enough
      `${used(roll, '+')} + ${useful_mm} k_${roll} <= ${length_mm}`,
      // the rest of a roll that is cut is waste, unless it is kept
      `w_${roll} - ${length_mm} y_${roll} ${used(roll, '+')} + ${length_mm} k_${roll} >= 0`,
    ]),
  ];
  const binaries = [
    ...all.flatMap((_, strip) => from.map((_roll, roll) => x(strip, roll))),
    ...from.flatMap((_, roll) => [`y_${roll}`, `k_${roll}`]),
  ];
  return `Minimize\n obj: ${from.map((_, roll) => `w_${roll}`).join(' + ')}\nSubject To\n${lines.map((line, at) => ` c${at}: ${line}`).join('\n')}\nBinary\n ${binaries.join(' ')}\nEnd\n`;
}

describe('strips of tape', () => {
  it('keep the gaps where they were, and lie along every segment of a bond', () => {
    const edge = {
      id: 'top',
      length_mm: 70,
      gaps: [
        { from_mm: 50, to_mm: 52 },
        { from_mm: 0, to_mm: 8 },
      ],
    };
    const { strips: cut, length_mm } = tapeFor({ edges: [edge], rolls: [] });
    expect(cut).toEqual([
      { id: 'top 1', length_mm: 42 },
      { id: 'top 2', length_mm: 18 },
    ]);
    expect(length_mm).toBe(60);
    const seal = bondOf(tern5(), 'front-seal');
    expect(stripsOfBond(seal).map(({ id }) => id)).toEqual(seal.segments!.map(({ id }) => id));
    expect(stripsOfBond({ ...seal, segments: [] })).toEqual([]);
  });

  it('as a bead: 100 mm of 1 mm is 78.5 µl (the volume of a cylinder)', () => {
    expect(beadVolume_uL(100, 1)).toBeCloseTo(78.54, 2);
    expect(tapeFor({ edges: [{ id: 'a', length_mm: 100 }], rolls: [], bead_mm: 1 }).bead_uL).toBeCloseTo(78.54, 2);
  });

  it('are refused with gaps that are larger than the edge, upside down or none, in words', () => {
    const problem = (gaps: object[]) =>
      tapeRequest.validate({ edges: [{ id: 'a', length_mm: 40, gaps }], rolls: [] }).error?.message;
    expect(problem([{ from_mm: 10, to_mm: 60 }])).toContain('only 40 mm long');
    expect(problem([{ from_mm: 10, to_mm: 5 }])).toContain('to_mm');
    expect(problem([])).toBeUndefined();
    expect(tapeRequest.validate({ edges: [], rolls: [] }).error).toBeDefined();
    // a gap that is the whole edge leaves nothing to cut
    expect(tapeFor({ edges: [{ id: 'a', length_mm: 40, gaps: [{ from_mm: 0, to_mm: 40 }] }], rolls: [] })).toEqual({
      strips: [],
      length_mm: 0,
      cutting: { rolls: [], waste_mm: 0, optimal: true },
    });
  });
});

describe('strips cut from the rolls on the shelf', () => {
  it('take the offcut that they use up, and leave the rest of a long roll on the shelf', () => {
    const found = cutFrom(strips(60, 60, 130), rolls(9400, 255, 200))!;
    expect(found).toMatchObject({ waste_mm: 0, optimal: true });
    // all from the long roll wastes nothing either, and opens one roll only
    expect(found.rolls.map(({ roll }) => roll)).toEqual(['r0']);
    expect(cutFrom(strips(60, 60, 130), rolls(255, 200))).toMatchObject({ waste_mm: 5, rolls: [{ roll: 'r0' }] });
  });

  it('are none where no roll is long enough, or all of them are not', () => {
    expect(cutFrom(strips(300), rolls(255, 200))).toBeNull();
    expect(cutFrom(strips(150, 150), rolls(255))).toBeNull();
    expect(cutFrom(strips(1), [])).toBeNull();
  });

  it('beyond twelve are cut longest first, without proof, and all the same all of them', () => {
    const many = strips(...Array.from({ length: 20 }, (_, at) => 20 + at));
    const found = cutFrom(many, rolls(700, 9400))!;
    expect(found.optimal).toBe(false);
    expect(found.rolls.flatMap((each) => each.strips)).toHaveLength(20);
    expect(cutFrom(many, rolls(100, 90))).toBeNull();
  });

  it('waste no more than the optimum of HiGHS, on every case tried', async () => {
    const highs = await highsLoader();
    const given = fc.sample(
      fc.tuple(
        fc.array(fc.integer({ min: 10, max: 160 }), { minLength: 1, maxLength: 8 }),
        fc.array(fc.integer({ min: 60, max: 500 }), { minLength: 1, maxLength: 4 }),
        fc.integer({ min: 20, max: 150 }),
      ),
      { numRuns: 40, seed: 13 },
    );
    let solved = 0;
    for (const [lengths, from, useful_mm] of given) {
      const [all, shelf] = [strips(...lengths), rolls(...from)];
      const model = highs.solve(leastWasteModel(all, shelf, useful_mm));
      const found = cutFrom(all, shelf, useful_mm);
      expect(found === null).toBe(model.Status !== 'Optimal');
      if (!found) continue;
      solved++;
      expect(found.waste_mm).toBeCloseTo(model.ObjectiveValue, 6);
      const cut = found.rolls.flatMap((each) => each.strips);
      expect(new Set(cut).size).toBe(all.length);
    }
    expect(solved).toBeGreaterThan(15);
  });
});
