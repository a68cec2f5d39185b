/**
 * The placing of greatest weight of things into bins that hold so many each, or nowhere: one thing after another along the
 * shortest path of moves that makes room for it (a transportation problem, exact).
 * @param logs per thing the logarithm of its weight in each bin
 * @param nowhere that of belonging nowhere
 * @returns per thing its bin, null for nowhere; null where not all can be placed
 */
export function bestPlacing(
  logs: readonly (readonly number[])[],
  counts: readonly number[],
  nowhere: number,
): (number | null)[] | null {
  // nowhere is a bin that holds all of them
  const bins = [...counts, logs.length];
  const cost = logs.map((row) => [...row, nowhere].map((log) => -log));
  const held: number[][] = bins.map(() => []);
  for (let thing = 0; thing < logs.length; thing++) {
    const path = shortest(thing, cost, held, bins);
    if (!path) return null;
    for (const { from, to, moved } of path) {
      if (from !== null) held[from]!.splice(held[from]!.indexOf(moved), 1);
      held[to]!.push(moved);
    }
  }
  const placing: (number | null)[] = logs.map(() => null);
  held.forEach((things, bin) => things.forEach((thing) => (placing[thing] = bin < counts.length ? bin : null)));
  return placing;
}

interface Move {
  /** null: it was not placed yet */
  readonly from: number | null;
  readonly to: number;
  readonly moved: number;
}

/** By Bellman and Ford over the bins: moving a thing on may save. The moves, from the bin with room back to the new thing. */
function shortest(
  thing: number,
  cost: readonly (readonly number[])[],
  held: readonly (readonly number[])[],
  bins: readonly number[],
): Move[] | null {
  const reach = cost[thing]!.slice();
  const by: (Move | null)[] = bins.map((_, to) => ({ from: null, to, moved: thing }));
  for (let round = 0, isBetter = true; isBetter && round < bins.length; round++) {
    isBetter = false;
    for (let from = 0; from < bins.length; from++) {
      if (!Number.isFinite(reach[from]!)) continue;
      for (let to = 0; to < bins.length; to++) {
        const moved = cheapestMove(held[from]!, cost, from, to);
        if (to === from || moved === null) continue;
        const through = reach[from]! + cost[moved]![to]! - cost[moved]![from]!;
        // no way round saves anything: where one seems to, it is a matter of rounding
        if (through >= reach[to]! - 1e-12 || leadsBack(by, from, to)) continue;
        [reach[to], by[to], isBetter] = [through, { from, to, moved }, true];
      }
    }
  }
  let end = -1;
  bins.forEach((room, bin) => {
    const isOpen = held[bin]!.length < room && Number.isFinite(reach[bin]!);
    if (isOpen && (end < 0 || reach[bin]! < reach[end]!)) end = bin;
  });
  if (end < 0) return null;
  const path: Move[] = [];
  for (let at: number | null = end; at !== null; at = by[at]!.from) path.push(by[at]!);
  return path;
}

/** Does the way to one bin come through another already? */
function leadsBack(by: readonly (Move | null)[], from: number, through: number): boolean {
  for (let at: number | null = from; at !== null; at = by[at]!.from) if (at === through) return true;
  return false;
}

function cheapestMove(
  things: readonly number[],
  cost: readonly (readonly number[])[],
  from: number,
  to: number,
): number | null {
  let best: number | null = null;
  let least = Number.POSITIVE_INFINITY;
  for (const thing of things) {
    const more = cost[thing]![to]! - cost[thing]![from]!;
    if (more < least) [best, least] = [thing, more];
  }
  return best;
}
