import { dayWords } from '@nibrel/core/model/calendar';
import type { PartLine } from '@nibrel/core/api';
import { day } from '../app/format.ts';

/** Where a part stands, in the fewest words. */
export function verdictWords(part: PartLine): { readonly word: string; readonly more: string } {
  const by = `by ${day(part.returnBy)}, ${dayWords(part.daysLeft)}`;
  switch (part.standing) {
    case 'sent-back':
      return { word: 'Sent back', more: day(part.sentBack!.date) };
    case 'accepted':
      return { word: 'Accepted', more: `may go back ${by}` };
    case 'accepted-anyway':
      return { word: 'Accepted all the same', more: `may go back ${by}` };
    case 'too-late':
      return { word: 'Hold', more: `to go back, but ${dayWords(part.daysLeft)}: the lead decides` };
    case 'send-back':
      return { word: 'Send back', more: by };
    case 'hold':
      return { word: 'Hold', more: `may go back ${by}` };
    case 'use':
      return { word: 'Use', more: `may go back ${by}` };
  }
}
