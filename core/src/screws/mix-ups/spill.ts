import type { DeviceMap } from '../../model/device-map/index.ts';
import { type Harm, harmOf, type Hurts } from './harm.ts';
import { holesOf } from './holes.ts';
import { type Ledger, matchScrews, type Screw } from '../screws/index.ts';

/** A screw that was picked up, as it was measured. */
export interface Loose {
  readonly id: string;
  readonly length_mm: number;
  readonly drive?: string | null;
  readonly sd_mm?: number;
}

/** A screw that was picked up, and where it belongs as far as can be told. */
export interface Returned {
  readonly loose: string;
  /** null: it belongs nowhere here */
  readonly hole: Screw | null;
  readonly p: number;
  /** all that it can be, the likeliest first; null: nowhere here */
  readonly kinds: readonly { readonly fastener: string | null; readonly p: number }[];
  readonly isAmbiguous: boolean;
  /** the worst that it does in its hole, if it is what else it can be; null: none either way */
  readonly harm: Harm | null;
}

export interface SpillSolved {
  readonly returned: readonly Returned[];
  /** screws that lay on the mat and were not picked up */
  readonly missing: readonly Screw[];
}

/** Less likely than this is not listed. */
const LISTED = 0.005;

/**
 * Sorts a spilled mat: the likeliest return of every screw that was picked up to what lay there, with exact chances. Screws of
 * a kind are as good in each other's holes.
 * @throws Refusal where more look alike than can be told exactly, or nothing can be placed
 */
export function solveSpill(
  map: DeviceMap,
  { onMat }: Pick<Ledger, 'onMat'>,
  loose: readonly Loose[],
  hurts: Hurts,
): SpillSolved {
  const classes = new Map<string, Screw[]>();
  for (const screw of onMat) {
    const id = `${screw.fastener} ${lengthOf(map, screw)}`;
    classes.set(id, [...(classes.get(id) ?? []), screw]);
  }
  const { best, probabilities, ambiguous } = matchScrews({
    classes: [...classes].map(([id, screws]) => ({
      id,
      drive: map.fasteners.find((each) => each.id === screws[0]!.fastener)?.drive ?? '',
      length: lengthOf(map, screws[0]!),
      count: screws.length,
    })),
    loose: loose.map(({ id, length_mm, drive = null, sd_mm }) => ({
      id,
      drive,
      length: length_mm,
      ...(sd_mm === undefined ? {} : { sd: sd_mm }),
    })),
  });
  const left = new Map([...classes].map(([id, screws]) => [id, [...screws]]));
  const returned = best.map(({ loose: id, class: of }): Returned => {
    const kinds = Object.entries(probabilities[id]!)
      .filter(([, p]) => p >= LISTED)
      .map(([each, p]) => ({ fastener: classes.get(each)?.[0]!.fastener ?? null, p }))
      .toSorted((a, b) => b.p - a.p);
    const hole = of === null ? null : left.get(of)!.shift()!;
    return {
      loose: id,
      hole,
      p: probabilities[id]![of ?? 'foreign']!,
      kinds,
      isAmbiguous: ambiguous.includes(id),
      harm: hole && worstIn(map, hole, kinds, hurts),
    };
  });
  return { returned, missing: [...left.values()].flat() };
}

function worstIn(map: DeviceMap, { joint, point }: Screw, kinds: Returned['kinds'], hurts: Hurts): Harm | null {
  const hole = holesOf(map, [joint]).find((each) => each.point.id === point);
  return kinds.reduce<Harm | null>((worst, { fastener }) => {
    const kind = map.fasteners.find(({ id }) => id === fastener);
    const harm = kind && hole ? harmOf(kind, hole.kind, hole.point, hurts) : null;
    return harm && harm.minutes > (worst?.minutes ?? 0) ? harm : worst;
  }, null);
}

function lengthOf(map: DeviceMap, { fastener, length_mm }: Screw): number {
  return length_mm ?? map.fasteners.find(({ id }) => id === fastener)?.length ?? 1;
}
