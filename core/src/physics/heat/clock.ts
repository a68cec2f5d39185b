import { type Reach } from '../../model/sources/index.ts';
import { valueAt } from './series.ts';
import type { Foresight } from './foresee.ts';

/** Where a warming stands at a moment, as foreseen. */
export interface HeatClock {
  readonly bond_C: Reach;
  /** until the bond is soft by the slow end; 0 once it is, null where it never will be in the time foreseen */
  readonly toSoft_s: number | null;
  /** the same as is likely */
  readonly toLikely_s: number | null;
  /** until the fast end reaches the first limit; null where it never does */
  readonly toLimit: {
    readonly seconds: number;
    readonly what: string;
    readonly max_C: number;
    /** so many seconds after the bond is soft by the same end; below 0 before that; null where it is never soft by it */
    readonly afterSoft_s: number | null;
  } | null;
}

/** @param foresight of a warming that goes on for longer than anybody will warm */
export function heatClock(foresight: Foresight, at_s: number): HeatClock {
  const { ready, limit } = foresight;
  return {
    bond_C: reachAt(foresight, 'bond', at_s),
    toSoft_s: left(ready.late, at_s),
    toLikely_s: left(ready.likely, at_s),
    toLimit: limit && {
      ...limit,
      seconds: Math.max(0, limit.seconds - at_s),
      afterSoft_s: ready.early === null ? null : limit.seconds - ready.early,
    },
  };
}

function left(ready_s: number | null, at_s: number): number | null {
  return ready_s === null ? null : Math.max(0, ready_s - at_s);
}

/** Of one place: what it has at a moment, at least and at most. */
export function reachAt({ times_s, bands }: Foresight, id: string, at_s: number): Reach {
  const band = bands.find((each) => each.id === id)!;
  const [a, b, likely] = (['low', 'high', 'likely'] as const).map((end) => valueAt(times_s, band[end], at_s));
  return { low: Math.min(a!, b!), likely: likely!, high: Math.max(a!, b!) };
}

/** Seconds until it is likely to have fallen below a temperature; null where that is later than is looked at. */
export function likelyBelow_s({ times_s, bands }: Foresight, temp_C: number, at_s: number): number | null {
  const bond = bands[0]!;
  const index = times_s.findIndex((time, n) => time >= at_s && bond.likely[n]! < temp_C);
  return index < 0 ? null : Math.max(0, times_s[index]! - at_s);
}

/** Seconds until a bond that is no longer warmed falls below a temperature, by the end that is warm longest; 0 if it has. */
export function untilBelow_s({ times_s, bands }: Foresight, temp_C: number, at_s: number): number | null {
  const bond = bands[0]!;
  const index = times_s.findIndex((time, n) => time >= at_s && Math.max(bond.low[n]!, bond.high[n]!) < temp_C);
  return index < 0 ? null : Math.max(0, times_s[index]! - at_s);
}
