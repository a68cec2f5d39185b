/** Something that may be at fault once it is back, and what it takes to get at it again. */
export interface Doubt {
  /** the chance that it is at fault, before anything is tried */
  readonly p: number;
  /** the first place at which a trial can show it */
  readonly shows: number;
  /** seconds to get at it again and back, from a place */
  undo_s(at: number): number;
}

/** Where a device could be tried on its way back: places are counted from 1, in their order. */
export interface TryProblem {
  readonly doubts: readonly Doubt[];
  /** the places at which it is tried in any case; the last of them is the end */
  readonly fixed: readonly number[];
  /** places between them at which it could be tried as well */
  readonly places: readonly number[];
  /** seconds of a trial at a place, with power on and off, of all that could not be shown at the one before (0: none before) */
  test_s(before: number, at: number): number;
}

/** Where to try, with the seconds that are to be expected: of trying, and of undoing what turns out to be at fault. */
export interface BestTries {
  readonly at: readonly number[];
  readonly expected_s: number;
}

/** Ways that differ by no more than rounding are alike: of them the one with the later trials, since more is done by then anyhow. */
const ALIKE_S = 1e-9;

/** Seconds to be expected where it is tried at these places, in their order. */
export function expectedOf(problem: TryProblem, at: readonly number[]): number {
  return at.reduce((sum, place, index) => sum + stretch(problem, at[index - 1] ?? 0, place), 0);
}

/** Trying at a place after another: the trial, and each doubt that it is the first to show, by its chance and what it undoes. */
function stretch({ doubts, test_s }: TryProblem, before: number, at: number): number {
  const found = doubts.filter(({ shows }) => shows > before && shows <= at);
  return test_s(before, at) + found.reduce((sum, { p, undo_s }) => sum + p * undo_s(at), 0);
}

/**
 * The places at which a device is tried so that the time to be expected is least: chance of a fault times the time to undo,
 * against the time to try. Exact: the cost of a stretch between two trials depends on those two alone, so that the best way to a
 * place is the best way to the trial before it and the stretch between (a shortest path).
 */
export function bestTries(problem: TryProblem): BestTries {
  const fixed = new Set(problem.fixed);
  const places = [...new Set([...problem.places, ...fixed])].filter((at) => at > 0).toSorted((a, b) => a - b);
  const best = new Map<number, BestTries>([[0, { at: [], expected_s: 0 }]]);
  places.forEach((at, index) => {
    // every place back to the last at which it is tried in any case
    const lastFixed = places.slice(0, index).findLastIndex((each) => fixed.has(each));
    const froms = [...(lastFixed < 0 ? [0] : []), ...places.slice(Math.max(0, lastFixed), index)].toReversed();
    const ways = froms.map((from): BestTries => {
      const way = best.get(from)!;
      return { at: [...way.at, at], expected_s: way.expected_s + stretch(problem, from, at) };
    });
    best.set(
      at,
      ways.reduce((a, b) => (b.expected_s < a.expected_s - ALIKE_S ? b : a)),
    );
  });
  return best.get(places.at(-1) ?? 0)!;
}
