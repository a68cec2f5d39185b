import type { JobState } from '../../job/state/index.ts';
import type { Answer } from '../question/index.ts';

/** What can be said to every question, at the right end of the bar. A finished repair has nothing to stop. */
export function always({ stopped, ended, finished }: JobState): readonly Answer[] {
  const isHeld = stopped !== null || ended !== null;
  return [
    {
      id: 'undo',
      key: 'u',
      label: 'Undo',
      weight: 'quiet',
      gives: { kind: 'undo' },
      ...(isHeld ? { notNow: 'It is stopped' } : {}),
    },
    { id: 'wrong', key: 't', label: 'Something is wrong', weight: 'quiet', gives: { kind: 'ask', about: 'wrong' } },
    ...(finished
      ? []
      : [{ id: 'stop', key: 'x', label: 'Stop', weight: 'warning', gives: { kind: 'ask', about: 'stop' } } as const]),
  ];
}

/** Looked back, ahead and at the other face: by key, and by touch from *Something is wrong*. */
export const LOOKS: readonly Answer[] = [
  {
    id: 'look-back',
    key: 'ArrowLeft',
    also: 'PageUp',
    label: 'Look back',
    weight: 'quiet',
    gives: { kind: 'look', at: 'back' },
  },
  { id: 'look-ahead', key: 'ArrowRight', label: 'Look ahead', weight: 'quiet', gives: { kind: 'look', at: 'ahead' } },
  { id: 'other-face', key: 'f', label: 'Flip the drawing', weight: 'quiet', gives: { kind: 'look', at: 'other-face' } },
];

/** Keys that have a button, or a line to press, in the question itself. */
export const LOOK_KEYS: readonly Answer[] = [
  {
    id: 'here',
    key: 'Home',
    also: 'Escape',
    label: 'Back to the step in hand',
    weight: 'quiet',
    gives: { kind: 'look', at: 'here' },
  },
  { id: 'why', key: 'b', label: 'Why, at length', weight: 'quiet', gives: { kind: 'look', at: 'why' } },
];
