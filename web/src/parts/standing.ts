import { dayWords } from '@nibrel/core/calendar';
import type { PartLine } from '../app/client.ts';
import { day } from '../app/format.ts';

/** Where a part stands, in the fewest words. */
export function standingOf(part: PartLine): {
  readonly word: string;
  readonly more: string;
  readonly isUrgent: boolean;
} {
  const by = `by ${day(part.returnBy)}, ${dayWords(part.daysLeft)}`;
  if (part.sentBack) return { word: 'Sent back', more: day(part.sentBack.date), isUrgent: false };
  if (part.accepted) {
    const word = part.decision?.decision === 'accept-anyway' ? 'Accepted all the same' : 'Accepted';
    return { word, more: `may go back ${by}`, isUrgent: false };
  }
  if (part.verdict === 'send-back') {
    if (part.daysLeft < 0)
      return { word: 'Hold', more: `to go back, but ${dayWords(part.daysLeft)}: the lead decides`, isUrgent: true };
    return { word: 'Send back', more: by, isUrgent: true };
  }
  if (part.verdict === 'hold') return { word: 'Hold', more: `may go back ${by}`, isUrgent: part.daysLeft < 5 };
  return { word: 'Use', more: `may go back ${by}`, isUrgent: false };
}

/** The most pressing first: what has to go back, by the days left; then what is held, what is good, what is gone. */
export function byUrgency(a: PartLine, b: PartLine): number {
  const rank = (part: PartLine) =>
    part.sentBack ? 4 : part.accepted ? 3 : part.verdict === 'send-back' ? 0 : part.verdict === 'hold' ? 1 : 2;
  return rank(a) - rank(b) || a.daysLeft - b.daysLeft;
}
