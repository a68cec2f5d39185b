import { type CalendarDate, daysLeft } from '../../model/calendar/index.ts';
import type { DeviceMap } from '../../model/device-map/index.ts';
import type { PartVerdict } from '../../model/identity/index.ts';
import { type DeskPart, isAccepted, partVerdict, returnBy } from './desk-part.ts';

/** Where a part stands at the desk; *too late*: it should go back, but its window is over, so the lead decides. */
type Standing = 'sent-back' | 'accepted' | 'accepted-anyway' | 'send-back' | 'too-late' | 'hold' | 'use';

/** What is to be thought of a part, and until when. */
export type DeskVerdict = PartVerdict & {
  readonly standing: Standing;
  readonly accepted: boolean;
  readonly returnBy: CalendarDate;
  /** fewer than none: over */
  readonly daysLeft: number;
  /** something has to be done about it soon */
  readonly isUrgent: boolean;
};

/** What is not decided yet presses in its last days (guess). */
const LAST_DAYS = 5;

export function deskVerdict(map: DeviceMap, part: DeskPart, today: CalendarDate): DeskVerdict {
  const verdict = partVerdict(map, part);
  const left = daysLeft(today, returnBy(part));
  const standing = standingOf(part, verdict, left);
  const isUrgent = standing === 'send-back' || standing === 'too-late' || (standing === 'hold' && left < LAST_DAYS);
  return { ...verdict, standing, accepted: isAccepted(part), returnBy: returnBy(part), daysLeft: left, isUrgent };
}

function standingOf(part: DeskPart, { verdict }: PartVerdict, left: number): Standing {
  if (part.sentBack) return 'sent-back';
  if (isAccepted(part)) return part.decision?.decision === 'accept-anyway' ? 'accepted-anyway' : 'accepted';
  if (verdict !== 'send-back') return verdict;
  return left < 0 ? 'too-late' : 'send-back';
}

const RANKS: Readonly<Record<Standing, number>> = {
  'too-late': 0,
  'send-back': 0,
  hold: 1,
  use: 2,
  accepted: 3,
  'accepted-anyway': 3,
  'sent-back': 4,
};

/** The most pressing first: what has to go back, by the days left; then what is held, what is good, what is gone. */
export function byUrgency(
  a: Pick<DeskVerdict, 'standing' | 'daysLeft'>,
  b: Pick<DeskVerdict, 'standing' | 'daysLeft'>,
): number {
  return RANKS[a.standing] - RANKS[b.standing] || a.daysLeft - b.daysLeft;
}
