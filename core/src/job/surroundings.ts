import type { Role } from '../shop/index.ts';

/** Drops of solvent that were put to a bond, and when. */
export interface Drops {
  /** ISO 8601 */
  readonly at: string;
  readonly drops: number;
}

/** What goes on at a bench: sources that are on, solvent that was not aired yet. */
export interface BenchUse {
  /** the repair whose source is on there, by its title; null: none */
  readonly sourceOn: string | null;
  readonly drops: readonly Drops[];
  /** ISO 8601, when it was last aired; null: never */
  readonly airedAt: string | null;
}

export const IDLE: BenchUse = { sourceOn: null, drops: [], airedAt: null };

/**
 * What a new event is judged by besides its own job: who is who, the other repairs at the same bench, what time it is.
 */
export interface Surroundings {
  roleOf(name: string): Role;
  /** is anybody a lead? */
  readonly hasLead: boolean;
  /** what other repairs do at a bench */
  othersAt(bench: string): BenchUse;
  /** milliseconds since 1970; null: not known */
  readonly now: number | null;
}

/**
 * For the page, which does not know these things: nothing is refused for them there, because the server knows and
 * judges again.
 */
export const UNKNOWN: Surroundings = { roleOf: () => 'lead', hasLead: true, othersAt: () => IDLE, now: null };

/** The bench where none is named: the only one of a workshop that has one. */
export const ONLY_BENCH = 'bench';

/** Clocks of tablets run a little fast, so an event may be dated this far ahead of the server's own. */
const AHEAD_ms = 60_000;

/**
 * Why the moment of an event can't be taken. Airing and cooling are counted by it, so a date in the future would
 * shorten them.
 */
export function tooFarAhead(at: string, now: number | null): string | null {
  if (now === null || Date.parse(at) <= now + AHEAD_ms) return null;
  return `at: ${at} is more than 60 s ahead of this server's clock. Set the clock of the device that sent it.`;
}
