import Joi from 'joi';

const FORM = /^(\d{4})-(\d{2})-(\d{2})T(\d{2}):(\d{2})(?::(\d{2})(?:\.\d{1,9})?)?(?:Z|[+-](\d{2}):(\d{2}))$/;

/** Can every engine read it, and does each read the same? (ECMA-262, date time string format, with its zone) */
export function isInstant(text: string): boolean {
  const found = FORM.exec(text);
  if (!found) return false;
  const [year, month, day, hour, minute, second = 0, zoneHour = 0, zoneMinute = 0] = found
    .slice(1)
    .map((each) => (each === undefined ? undefined : Number(each))) as [number, number, number, number, number];
  if (year < 1970 || year > 2199 || month < 1 || month > 12 || day < 1) return false;
  const days = new Date(Date.UTC(year, month, 0)).getUTCDate();
  return day <= days && hour < 24 && minute < 60 && second < 60 && zoneHour < 24 && zoneMinute < 60;
}

/** A moment as a field of an event. */
export const instant = Joi.string()
  .max(40)
  .custom((value: string, helpers) => (isInstant(value) ? value : helpers.error('instant.none')))
  .messages({ 'instant.none': '{{#label}} is no moment that can be read; write it as 2026-11-24T08:00:00Z' });
