import type { Does, Said } from '../../bench/in-hand/index.ts';
import type { EventType, TroubleKind } from '../../job/events/index.ts';
import type { ShopEventData } from '../../workshop/shop/index.ts';

/**
 * One thing that is asked of whoever is at the bench, as plain data: buttons, keys, speech and tests all read it. It is
 * computed from the state of a job and holds as long as that state does.
 */
export interface Question {
  /** tells it from the question before it: *release:lid-screws*, *test:touch*, *left-open:part:lid* */
  readonly id: string;
  /** the stage of the work, and how far it is: *Strip · 42 to go* */
  readonly place: string;
  /** what is asked, or to be done, in the largest type */
  readonly title: string;
  /** what it is about */
  readonly detail: string;
  /** one line of how */
  readonly hint: string;
  /** with what, as a map names it; null where a hand does */
  readonly tool: { readonly name: string; readonly isDriver: boolean } | null;
  /** what is to be known before it is done, each with the harm that it names */
  readonly cautions: readonly Told[];
  /** one line of why it comes now */
  readonly why: string;
  /** more than one thing, in the order of the hand; numbered alike on the drawing */
  readonly list: readonly Line[];
  /** a word or figure that is wanted; null where none is */
  readonly field: AskedField | null;
  /** what runs down by itself: at the bench in place of a main answer; null where nothing is waited for */
  readonly wait: Wait | null;
  /** the main answer first, where there is one */
  readonly answers: readonly Answer[];
  /** one of many things is chosen: more than the bar has room for. The first have a digit, the others no key */
  readonly choices: readonly Answer[];
}

/** A caution. */
export interface Told {
  readonly text: string;
  /** it was read in full before, in this stage: then it is only a mark */
  readonly isKnown: boolean;
}

/** Something that is waited for. */
export interface Wait {
  readonly label: string;
  /** until it is over; null where nobody knows */
  readonly left_s: number | null;
  /** 0 to 1, how much of it is over; null where nobody knows */
  readonly share: number | null;
}

/** One of the things that a question is about. */
export interface Line {
  /** the operation, function or thing that it stands for */
  readonly id: string;
  readonly text: string;
  readonly more: string;
  /** the joint or part where its number stands on the drawing; null where nothing is drawn for it */
  readonly at: string | null;
  readonly isDone: boolean;
  /** what a press on it gives; null where it only tells */
  readonly gives: Gives | null;
}

/** What an answer weighs: the main one is on Space and widest; a warning is as large as any. */
export type Weight = 'main' | 'plain' | 'warning' | 'quiet';

/** One answer that can be given now, or that can't, with why. */
export interface Answer {
  /** tells it from the others of its question */
  readonly id: string;
  /** as `KeyboardEvent.key` has it: a space for the main answer, else a digit or a letter */
  readonly key: string;
  /** another key that gives it as well */
  readonly also?: string;
  readonly label: string;
  readonly weight: Weight;
  readonly gives: Gives;
  /** why it can't be given now; left out where it can */
  readonly notNow?: string;
  /** what was typed goes into its first event by this name */
  readonly takes?: Takes;
}

/**
 * Where the value of the question's field goes: a field of the data of the answer's first event (*screws.0.length* one within it), times a
 * factor; the reason of a mark.
 */
export interface Takes {
  readonly name: string;
  readonly factor?: number;
}

/** What an answer does. */
export type Gives =
  | (Extract<Does, { kind: 'say' }> & {
      readonly then?: Page;
      /** what is told next of a device that is taken apart without a map */
      readonly next?: Telling;
    })
  /** what of it is told now; in the record directly before a line of it, or at its end again */
  | { readonly kind: 'tell'; readonly telling: Telling }
  | { readonly kind: 'insert'; readonly before: string | null }
  | { readonly kind: 'go'; readonly to: Page }
  /** a part at the parts desk, by its id */
  | { readonly kind: 'desk'; readonly part: string }
  /** something is asked beside the work: a sheet of its own */
  | { readonly kind: 'ask'; readonly about: Sheet; readonly trouble?: TroubleKind }
  /** a question of its own follows, in the same frame */
  | { readonly kind: 'then'; readonly question: Question }
  /** noted on this page until it is recorded together with the rest */
  | { readonly kind: 'mark'; readonly mark: Mark; readonly items: readonly string[]; readonly reason?: string }
  /** the workshop is told */
  | { readonly kind: 'shop'; readonly type: 'tool'; readonly data: ShopEventData['tool'] }
  /** chosen while a repair is taken in */
  | { readonly kind: 'pick'; readonly pick: Pick; readonly id: string }
  | { readonly kind: 'undo' }
  | { readonly kind: 'picture'; readonly of: 'step' | 'mat' }
  /** at what was done, at what comes, at what is in hand, at the other face, or why at length */
  | { readonly kind: 'look'; readonly at: 'back' | 'ahead' | 'here' | 'other-face' | 'why' }
  /** looking ahead: all is done until there */
  | { readonly kind: 'until' }
  | { readonly kind: 'nothing' };

/** What of a device is being told that is taken apart without a map. */
export type Telling =
  | { readonly at: 'root' }
  | { readonly at: 'screws'; readonly letter: string | null }
  | { readonly at: 'drive' }
  | { readonly at: 'plug'; readonly style: 'press' | 'zif-flip' | 'coax' }
  | { readonly at: 'glue' }
  | { readonly at: 'off'; readonly to: 'open' | 'off' }
  | { readonly at: 'holds'; readonly joint: string }
  | { readonly at: 'stuck' }
  | { readonly at: 'stuck-by'; readonly part: string }
  | { readonly at: 'more' }
  /** was it in sight on the photograph before? */
  | { readonly at: 'seen'; readonly joint?: string; readonly part?: string; readonly photo: string }
  /** where the four corners of the device are on a photograph */
  | { readonly at: 'corners'; readonly photo: string }
  /** what was pressed of what may have held it, by the keys of entries; what nobody knows, by the ids of questions */
  | { readonly at: 'what-held'; readonly pressed: readonly string[]; readonly unknown: readonly string[] }
  | { readonly at: 'earlier' }
  | { readonly at: 'look' }
  | { readonly at: 'look-at'; readonly part: string }
  | { readonly at: 'measure'; readonly screw: string };

/** What is chosen of a repair that does not exist yet: its device, a part of it, what is done with that, one part less. */
export type Pick = 'device' | 'unmapped' | 'part' | 'full' | 'ask' | 'drop' | 'more' | 'take-in';

/** What a page notes of a thing: it is done, it is gone on without, it is passed over for now, it has come after all. */
type Mark = 'done' | 'without' | 'passed' | 'here';

/** The pages of a repair. */
export type Page = 'bench' | 'intake' | 'prepare' | 'way' | 'screws' | 'record' | 'hand-over';

/** What can be asked beside the work. */
export type Sheet =
  | 'wrong'
  | 'wet'
  | 'transplant'
  | 'person'
  | 'note'
  | 'trouble'
  | 'stop'
  | 'lead'
  | 'target'
  | 'keys'
  | 'other'
  | 'missing'
  | 'not-mapped'
  | 'closing'
  | 'held'
  | 'leaving'
  | 'trial'
  | 'flush'
  | 'while-open'
  | 'what-it-takes'
  | 'schools';

/** A word or figure that is wanted. */
export interface AskedField {
  readonly label: string;
  readonly kind: 'text' | 'figure';
  /** what it is counted in, as it stands behind the figure */
  readonly unit?: string;
  readonly least?: number;
  readonly most?: number;
  /** no fractions */
  readonly isWhole?: boolean;
  /** what stands in it before anything is typed */
  readonly start?: string;
  /** what is said where it is missing or wrong */
  readonly cure: string;
}

/** In events: the part that arrives with them, before it has an id. */
export const NEW_PART = 'new part';

/** An answer before it has its key. */
export type Keyless = Omit<Answer, 'key'> & { readonly key?: string };

/** What an event says, as an answer that gives nothing else. */
export function saying<Type extends EventType>(type: Type, data: (Said & { type: Type })['data']): Gives {
  return { kind: 'say', events: [{ type, data } as Said] };
}
