import { Refusal, wrong } from '../refusal/index.ts';
import { addDays, differenceInCalendarDays, format, isValid, parseISO } from 'date-fns';
import Joi from 'joi';

/** A day of the workshop's calendar, `YYYY-MM-DD`. It has no hours, so that no change of summer time can move it. */
export type CalendarDate = string;

/** Years that a workshop has to do with: what is further off was mistyped. */
const DAY = /^(19[7-9]|2[01]\d)\d-\d{2}-\d{2}$/;

/** Takes only days that exist. */
export const calendarDate = Joi.string()
  .pattern(DAY)
  .custom((value: string, helpers) => (isValid(parseISO(value)) ? value : helpers.error('date.none')))
  .messages({
    'string.pattern.base': '{{#label}} must be a date from 1970 to 2199, YYYY-MM-DD',
    'date.none': '{{#label}} is no day of the calendar',
  });

/** The day it is in a time zone (IANA name) at an instant. */
export function todayIn(zone: string, at: Date): CalendarDate {
  const parts = new Intl.DateTimeFormat('en-GB', { timeZone: zone, year: 'numeric', month: '2-digit', day: '2-digit' });
  const byType = new Map(parts.formatToParts(at).map(({ type, value }) => [type, value]));
  return `${byType.get('year')}-${byType.get('month')}-${byType.get('day')}`;
}

export function isZone(zone: string): boolean {
  try {
    return Boolean(new Intl.DateTimeFormat('en-GB', { timeZone: zone }));
  } catch {
    return false;
  }
}

export function addedDays(date: CalendarDate, days: number): CalendarDate {
  return format(addDays(parseISO(date), days), 'yyyy-MM-dd');
}

/** Whole days from one date to another; negative once it has passed. */
export function daysLeft(from: CalendarDate, to: CalendarDate): number {
  return differenceInCalendarDays(parseISO(to), parseISO(from));
}

/**
 * The last day on which a part may go back.
 * @param window_days days after the day it arrived; 30 is usual (common practice)
 * @throws Refusal where the window is no whole number of days from 0
 */
export function lastReturnDate(arrived: CalendarDate, window_days: number): CalendarDate {
  if (!Number.isInteger(window_days) || window_days < 0 || window_days > 3650) {
    throw new Refusal(wrong('', 'The return window is a whole number of days, 0 to 3650.', 'Without one, enter 0.'));
  }
  return addedDays(arrived, window_days);
}

/** *12 days left*, *last day today*, *3 days over* */
export function dayWords(days: number): string {
  if (days === 0) return 'last day today';
  const count = Math.abs(days) === 1 ? '1 day' : `${Math.abs(days)} days`;
  return days > 0 ? `${count} left` : `${count} over`;
}
