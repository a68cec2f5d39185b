import type { Question } from './question.ts';

/** One of the questions of a stage, as its list shows them. */
export interface Turn {
  readonly question: Question;
  /** in the list: *Battery charge* */
  readonly name: string;
  /** what is known of it by now, in a few words */
  readonly said: string;
  readonly isDone: boolean;
}

/** The questions of a stage in their order; any can be jumped to. */
export type Turns = readonly Turn[];

/** The question whose turn it is: the one that was jumped to, else the first that is open; the last where none is. */
export function nextAsked(turns: Turns, jumped: string | null): Turn | undefined {
  return turns.find(({ question }) => question.id === jumped) ?? turns.find(isOpen) ?? turns.at(-1);
}

export function isOpen({ isDone }: Turn): boolean {
  return !isDone;
}
