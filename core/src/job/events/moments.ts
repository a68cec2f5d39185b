import { differenceInSeconds } from 'date-fns';
import type { BenchEvent } from './events.ts';

type Told = Pick<BenchEvent, 'at' | 'receivedAt'>;

/**
 * When an event counts from, for what guards a person (vapour, hot bonds): the later of when it is told to have been and
 * when the server received it, so that nothing is safer for having been dated back. ISO 8601.
 */
export function countsFrom({ at, receivedAt }: Told): string {
  return receivedAt !== undefined && Date.parse(receivedAt) > Date.parse(at) ? receivedAt : at;
}

/** So far apart told and received are shown: longer than a tablet is away from its server in a room (guess). */
const LATE_s = 600;

/** How long after it is told to have been the server received it, seconds, where that is shown; 0 where it need not be. */
export function lateBy_s({ at, receivedAt }: Told): number {
  if (receivedAt === undefined) return 0;
  const seconds = differenceInSeconds(new Date(receivedAt), new Date(at));
  return Math.abs(seconds) > LATE_s ? seconds : 0;
}

/**
 * When each of some events was told to have been, ms; none later than the server received anything that followed. So a
 * clock that was wrong for a moment, the server's too, dates nothing into the future for good.
 */
export function toldBy(events: readonly Told[]): number[] {
  const told: number[] = [];
  let bound = Number.POSITIVE_INFINITY;
  for (const { at, receivedAt } of events.toReversed()) {
    if (receivedAt !== undefined) bound = Math.min(bound, Date.parse(receivedAt));
    told.push(Math.min(Date.parse(at), bound + AHEAD_ms));
  }
  return told.toReversed();
}

/** Clocks of tablets run a little fast, or slow: an event may be dated so far ahead of the server's own clock. */
export const AHEAD_ms = 60_000;
