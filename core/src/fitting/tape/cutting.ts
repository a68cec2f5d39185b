import type { Strip } from './strips.ts';

/** A roll or an offcut on the shelf. */
export interface Roll {
  readonly id: string;
  readonly length_mm: number;
}

interface CutRoll {
  readonly roll: string;
  /** ids of the strips cut from it */
  readonly strips: readonly string[];
  readonly left_mm: number;
  /** what is left is too short to be used: it is waste */
  readonly isWaste: boolean;
}

export interface Cutting {
  readonly rolls: readonly CutRoll[];
  readonly waste_mm: number;
  /** proven: no other way of cutting wastes less */
  readonly optimal: boolean;
}

/** What is left of a roll and shorter than this is of no use (guess). */
const USEFUL_MM = 150;

/** With more strips it is cut longest first, without proof. */
const MOST_PROVEN = 12;

/**
 * Strips cut from rolls with the least waste: of every roll that is cut, what is left and too short to be used. Equal waste goes
 * to fewer rolls. Exact for up to twelve strips, over every way of sharing them out
 * (one-dimensional cutting stock with rolls of given lengths). Null where they can't be cut from these rolls.
 */
export function cutFrom(strips: readonly Strip[], rolls: readonly Roll[], useful_mm = USEFUL_MM): Cutting | null {
  // a strip that no roll is long enough for can't be had from them
  const most = Math.max(0, ...rolls.map(({ length_mm }) => length_mm));
  if (strips.some(({ length_mm }) => length_mm > most)) return null;
  return strips.length <= MOST_PROVEN ? leastWaste(strips, rolls, useful_mm) : longestFirst(strips, rolls, useful_mm);
}

/** Rolls one after the other: the least waste for every set of strips that they give together. */
function leastWaste(strips: readonly Strip[], rolls: readonly Roll[], useful_mm: number): Cutting | null {
  const lengths = lengthsOf(strips);
  const every = lengths.length - 1;
  // the shortest first: of equal ways the one that uses them up is found first
  const ordered = rolls.toSorted((a, b) => a.length_mm - b.length_mm || (a.id < b.id ? -1 : 1));
  let least = new Float64Array(lengths.length).fill(Number.POSITIVE_INFINITY);
  least[0] = 0;
  /** for each roll and each set of strips that it and those before give: the strips cut from it */
  const taken = ordered.map(({ length_mm }) => {
    const next = new Float64Array(lengths.length).fill(Number.POSITIVE_INFINITY);
    const from = new Int32Array(lengths.length);
    for (let done = 0; done <= every; done++) {
      const before = least[done]!;
      if (before === Number.POSITIVE_INFINITY) continue;
      const open = every ^ done;
      // every set of the open strips, the empty one last
      for (let set = open; ; set = (set - 1) & open) {
        const left = length_mm - lengths[set]!;
        const cost = set === 0 ? before : before + wasteOf(left, useful_mm) + PER_ROLL_mm;
        if (left >= 0 && cost < next[done | set]! - PER_ROLL_mm / 2) {
          next[done | set] = cost;
          from[done | set] = set;
        }
        if (set === 0) break;
      }
    }
    least = next;
    return from;
  });
  if (least[every] === Number.POSITIVE_INFINITY) return null;
  const sets: number[] = [];
  let open = every;
  for (const from of taken.toReversed()) {
    sets.unshift(from[open]!);
    open ^= from[open]!;
  }
  const cut = ordered.map((roll, index) => ({
    ...roll,
    strips: strips.filter((_, strip) => (sets[index]! >> strip) & 1),
  }));
  return cuttingOf(cut, useful_mm, true);
}

/** So little more for another roll that is cut into: less than any waste that is seen, and enough to tell equal ways apart. */
const PER_ROLL_mm = 1e-4;

/** The length of every set of strips, by its bits. */
function lengthsOf(strips: readonly Strip[]): Float64Array {
  const lengths = new Float64Array(2 ** strips.length);
  for (let set = 1; set < lengths.length; set++) {
    const lowest = 31 - Math.clz32(set & -set);
    lengths[set] = lengths[set & (set - 1)]! + strips[lowest]!.length_mm;
  }
  return lengths;
}

/** The longest strip first, from the roll that it leaves least of. */
function longestFirst(strips: readonly Strip[], rolls: readonly Roll[], useful_mm: number): Cutting | null {
  const open = rolls.map(({ id, length_mm }) => ({ id, length_mm, left: length_mm, strips: [] as Strip[] }));
  for (const strip of strips.toSorted((a, b) => b.length_mm - a.length_mm)) {
    const roll = open.filter(({ left }) => left >= strip.length_mm).toSorted((a, b) => a.left - b.left)[0];
    if (!roll) return null;
    roll.left -= strip.length_mm;
    roll.strips.push(strip);
  }
  return cuttingOf(open, useful_mm, false);
}

function cuttingOf(
  cut: readonly { readonly id: string; readonly length_mm: number; readonly strips: readonly Strip[] }[],
  useful_mm: number,
  optimal: boolean,
): Cutting {
  const rolls = cut
    .filter(({ strips }) => strips.length > 0)
    .map(({ id, length_mm, strips }): CutRoll => {
      const left_mm = length_mm - strips.reduce((sum, strip) => sum + strip.length_mm, 0);
      return { roll: id, strips: strips.map((strip) => strip.id), left_mm, isWaste: wasteOf(left_mm, useful_mm) > 0 };
    });
  const waste_mm = rolls.reduce((sum, { left_mm }) => sum + wasteOf(left_mm, useful_mm), 0);
  return { rolls, waste_mm, optimal };
}

function wasteOf(left_mm: number, useful_mm: number): number {
  return left_mm < useful_mm ? left_mm : 0;
}
