export {
  addedDays,
  type CalendarDate,
  calendarDate,
  daysLeft,
  dayWords,
  isZone,
  lastReturnDate,
  todayIn,
} from './calendar.ts';
export { instant, isInstant } from './instant.ts';
