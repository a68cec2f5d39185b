/** *about 20 to 30 min*: what is not known to the minute is not told to the minute. */
export function about(low_s: number, high_s: number): string {
  if (high_s <= 0) return 'nothing';
  if (high_s <= 60) return 'about a minute';
  // in steps of a minute where it is short, else of five or ten
  const step = high_s < 600 ? 1 : high_s < 3600 ? 5 : 10;
  const lowStep = low_s < 600 ? 1 : step;
  const low = Math.max(1, Math.floor(low_s / 60 / lowStep) * lowStep);
  const high = Math.ceil(high_s / 60 / step) * step;
  if (low === high) return `about ${hours(high)}`;
  return high < 60 ? `about ${low} to ${high} min` : `about ${hours(low)} to ${hours(high)}`;
}

/** *40 min*, *1 h*, *1 h 10* */
function hours(minutes: number): string {
  if (minutes < 60) return `${minutes} min`;
  const rest = minutes % 60;
  return `${Math.floor(minutes / 60)} h${rest === 0 ? '' : ` ${String(rest).padStart(2, '0')}`}`;
}

const TIME = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' });
const DAY = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', year: 'numeric' });

/** A moment that can't be read is shown as *no time*, so that one bad event does not take the whole record down. */
function shown(format: Intl.DateTimeFormat, at: string | number | Date): string {
  const moment = new Date(at);
  return Number.isNaN(moment.getTime()) ? 'no time' : format.format(moment);
}

export function clock(at: string | number | Date): string {
  return shown(TIME, at);
}

export function day(at: string | number | Date): string {
  return shown(DAY, at);
}

/** *28 Nov 2026, 14:05*: told apart from a moment of another day. */
export function dayAndClock(at: string | number | Date): string {
  return `${day(at)}, ${clock(at)}`;
}

/** An id of the map as words: *upper-left* as *upper left* */
export function spaced(id: string): string {
  return id.replaceAll('-', ' ');
}

/** A number as people type it, with a comma or a point; null where it is none. */
export function decimal(typed: string): number | null {
  const text = typed.trim().replace(',', '.');
  return /^-?\d+(\.\d+)?$/.test(text) ? Number(text) : null;
}
