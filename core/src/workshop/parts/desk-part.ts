import { type CalendarDate, lastReturnDate } from '../../model/calendar/index.ts';
import { type DeviceMap, partById } from '../../model/device-map/index.ts';
import { boardVerdict, type RegistryAnswer, type PartVerdict } from '../../model/identity/index.ts';

export type PartCondition = 'good' | 'damaged' | 'wrong';
export type PartDecision = 'accept' | 'accept-anyway' | 'hold' | 'send-back';

/** What a register said, and whether it was a stand-in that said it. */
export interface Asked {
  readonly answer: RegistryAnswer;
  readonly where: string;
  readonly number: string;
  /** ISO 8601 */
  readonly at: string;
  readonly simulated: boolean;
}

/** A replacement part from its arrival to its decision. */
export interface DeskPart {
  readonly id: string;
  /** the part of the map that it is to replace */
  readonly mapPart: string;
  readonly source: string;
  readonly arrived: CalendarDate;
  readonly window_days: number;
  readonly price?: string;
  readonly variant?: string;
  readonly looked: {
    readonly condition: PartCondition;
    /** map parts that came with it */
    readonly includes: readonly string[];
    /** joints of the map that it has no place for */
    readonly lacks: readonly string[];
    readonly text: string;
  } | null;
  readonly numbers: readonly { readonly place: string; readonly value: string }[];
  readonly asked: readonly Asked[];
  readonly decision: {
    readonly decision: PartDecision;
    readonly text: string;
    readonly by: string;
    readonly at: string;
  } | null;
  readonly sentBack: { readonly date: CalendarDate; readonly text: string } | null;
}

/** The last day on which it may go back. */
export function returnBy(part: DeskPart): CalendarDate {
  return lastReturnDate(part.arrived, part.window_days);
}

/** May it be used, by what is known of it? A board also by its numbers and what the register answers. */
export function partVerdict(map: DeviceMap, part: DeskPart): PartVerdict {
  const { looked } = part;
  if (looked?.condition === 'damaged') return { verdict: 'send-back', reasons: ['It is damaged.', ...noteOf(part)] };
  if (looked?.condition === 'wrong') {
    return { verdict: 'send-back', reasons: ['It is the wrong variant or colour.', ...noteOf(part)] };
  }
  const board = isBoard(map, part)
    ? boardVerdict({ numbers: part.numbers, answer: part.asked.at(-1)?.answer })
    : ({ verdict: 'use', reasons: [] } as const);
  if (board.verdict === 'send-back' || looked) {
    return board.reasons.length > 0 ? board : { verdict: 'use', reasons: ['It is whole, and the right one.'] };
  }
  return { verdict: 'hold', reasons: ['Nobody has looked at it yet.', ...board.reasons] };
}

function noteOf(part: DeskPart): string[] {
  return part.looked?.text ? [part.looked.text] : [];
}

export function isBoard(map: DeviceMap, part: Pick<DeskPart, 'mapPart'>): boolean {
  return partById(map, part.mapPart)?.kind === 'board';
}

export function isAccepted(part: DeskPart): boolean {
  return (
    part.sentBack === null && (part.decision?.decision === 'accept' || part.decision?.decision === 'accept-anyway')
  );
}

/** The part that is to go in for a map part: the accepted one, else the last that is still here. */
export function chosenPart(parts: readonly DeskPart[], mapPart: string): DeskPart | undefined {
  const here = parts.filter((each) => each.mapPart === mapPart && each.sentBack === null);
  return here.findLast(isAccepted) ?? here.findLast((each) => each.decision?.decision !== 'send-back');
}
