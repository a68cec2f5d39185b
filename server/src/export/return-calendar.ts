import { addedDays, type CalendarDate } from '@nibrel/core/model/calendar';
import { createEvent } from 'ics';

interface Returnable {
  readonly id: string;
  readonly name: string;
  readonly mapName: string;
  readonly jobTitle: string;
  readonly source: string;
  readonly returnBy: CalendarDate;
}

/** The last day of return as a whole day of a calendar (RFC 5545), with no hours that a time zone could move. */
export function returnCalendar({ id, name, mapName, jobTitle, source, returnBy }: Returnable): string {
  const parts = (date: CalendarDate) => date.split('-').map(Number) as [number, number, number];
  const { error, value } = createEvent({
    uid: `${id}@nibrel`,
    productId: 'nibrel/parts-desk',
    title: `Last day to return: ${name}, ${mapName}`,
    description: `For ${jobTitle}. From ${source}.`,
    start: parts(returnBy),
    // the day after, which a whole day ends before
    end: parts(addedDays(returnBy, 1)),
    busyStatus: 'FREE',
    alarms: [{ action: 'display', description: 'Last day to return a part', trigger: { days: 2, before: true } }],
  });
  if (error) throw error;
  return value!;
}
