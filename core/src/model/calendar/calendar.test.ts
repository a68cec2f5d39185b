import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addedDays, calendarDate, daysLeft, dayWords, isZone, lastReturnDate, todayIn } from './index.ts';

describe('calendar dates', () => {
  it('give the last day of return 30 days after the arrival (common practice)', () => {
    expect(lastReturnDate('2026-11-03', 30)).toBe('2026-12-03');
    expect(lastReturnDate('2026-12-15', 30)).toBe('2027-01-14');
    expect(lastReturnDate('2028-02-01', 30)).toBe('2028-03-02');
    expect(lastReturnDate('2026-11-03', 0)).toBe('2026-11-03');
  });

  it('are not moved by a change of summer time', () => {
    // both nights on which European clocks change in 2026
    expect(addedDays('2026-03-28', 1)).toBe('2026-03-29');
    expect(addedDays('2026-03-28', 2)).toBe('2026-03-30');
    expect(addedDays('2026-10-24', 2)).toBe('2026-10-26');
    expect(daysLeft('2026-03-28', '2026-03-30')).toBe(2);
    expect(daysLeft('2026-10-24', '2026-10-26')).toBe(2);
  });

  it('are days of the workshop, not of the server', () => {
    const late = new Date('2026-11-24T23:30:00Z');
    expect(todayIn('Europe/London', late)).toBe('2026-11-24');
    expect(todayIn('Europe/Athens', late)).toBe('2026-11-25');
    expect(todayIn('Pacific/Honolulu', late)).toBe('2026-11-24');
  });

  it('count forwards and backwards alike', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 20_000 }), fc.integer({ min: 0, max: 3650 }), (start, window) => {
        const from = addedDays('2000-01-01', start);
        expect(daysLeft(from, lastReturnDate(from, window))).toBe(window);
      }),
    );
  });

  it('refuse a window of −3 days and half days, with the cure', () => {
    expect(() => lastReturnDate('2026-11-03', -3)).toThrow(expect.objectContaining({ cure: 'Without one, enter 0.' }));
    expect(() => lastReturnDate('2026-11-03', 1.5)).toThrow('whole number');
  });

  it('refuse days that do not exist', () => {
    expect(calendarDate.validate('2026-02-29').error?.message).toContain('no day of the calendar');
    expect(calendarDate.validate('9999-12-31').error?.message).toContain('1970 to 2199');
    expect(calendarDate.validate('24.11.2026').error?.message).toContain('YYYY-MM-DD');
    expect(calendarDate.validate('2028-02-29').error).toBeUndefined();
    expect([isZone('Europe/London'), isZone('Pier/4')]).toEqual([true, false]);
  });

  it('say how many days are left', () => {
    expect([dayWords(12), dayWords(1), dayWords(0), dayWords(-3)]).toEqual([
      '12 days left',
      '1 day left',
      'last day today',
      '3 days over',
    ]);
  });
});
