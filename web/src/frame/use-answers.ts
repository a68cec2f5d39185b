import type { Answer } from '@nibrel/core/asking/question';
import { useKeys } from '../app/keys.ts';

/** The keys of answers, each as it stands on its button; a pedal's PageDown is the main one. What can't be given is not. */
export function useAnswers(answers: readonly Answer[], give: (answer: Answer) => void, active = true): void {
  const keys: Record<string, () => void> = {};
  for (const answer of answers) {
    for (const key of [answer.key, answer.also, ...(answer.key === ' ' ? ['PageDown'] : [])]) {
      if (key && answer.notNow === undefined) keys[key] ??= () => give(answer);
    }
  }
  useKeys(keys, active);
}
