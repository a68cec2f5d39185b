import type { TemperatureUnit } from '../../model/units/index.ts';
import { type Problem, wrong } from '../../model/refusal/index.ts';
import type { Role } from '../../workshop/shop/index.ts';
import { AHEAD_ms, type BenchEvent, EVENTS, type Job } from '../events/index.ts';

/** Drops of solvent that were put to a bond, and since when they count. */
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
  /** has a lead shown the secret that nobody else has, or does nobody else work here? */
  isConfirmed(name: string): boolean;
  /** what other repairs do at a bench */
  othersAt(bench: string): BenchUse;
  /** milliseconds since 1970; null: not known */
  readonly now: number | null;
  /** may an instrument be one that only stands in for a real one? Only in a demonstration */
  readonly hasStandIns: boolean;
  /** what the bench reads temperatures in: a refusal names them so */
  readonly unit: TemperatureUnit;
}

/**
 * For the page, which does not know these things: nothing is refused for them there, because the server knows and
 * judges again.
 */
export const UNKNOWN: Surroundings = {
  roleOf: () => 'lead',
  hasLead: true,
  isConfirmed: () => true,
  othersAt: () => IDLE,
  now: null,
  hasStandIns: true,
  unit: 'C',
};

/** The bench where none is named: the only one of a workshop that has one. */
export const ONLY_BENCH = 'bench';

/**
 * Why the moment of an event can't be taken: what is dated ahead has not happened, and nothing of a repair happened
 * before it was taken in.
 */
export function notAtThatTime(
  { at, type }: Pick<BenchEvent, 'at' | 'type'>,
  { createdAt }: Pick<Job, 'createdAt'>,
  now: number | null,
): Problem | null {
  if (now === null) return null;
  // a repair that was taken in while the server's clock was ahead was taken in by now
  const takenIn = Math.min(Date.parse(createdAt), now);
  const isInTime = EVENTS[type].beforeJob || Date.parse(at) >= takenIn - AHEAD_ms;
  return tooFarAhead(at, now) ?? (isInTime ? null : beforeItsJob(at, takenIn));
}

function beforeItsJob(at: string, takenIn: number): Problem {
  return wrong(
    'at',
    `${at} is before this repair was taken in, ${new Date(takenIn).toISOString()}.`,
    'Set the clock of the device that sent it.',
  );
}

/** Why the moment of an event can't be taken, where it is in the future. */
export function tooFarAhead(at: string, now: number | null): Problem | null {
  if (now === null || Date.parse(at) <= now + AHEAD_ms) return null;
  return wrong(
    'at',
    `${at} is more than 60 s ahead of this server's clock.`,
    'Set the clock of the device that sent it.',
  );
}
