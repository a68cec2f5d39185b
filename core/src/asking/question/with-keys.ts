import type { Answer, Keyless } from './question.ts';

/**
 * Each answer with its key: Space for the main one, which counts as the first, and digits for the others in their order.
 * What has a key already keeps it, and no digit is given twice.
 */
export function withKeys(answers: readonly Keyless[]): readonly Answer[] {
  const taken = new Set(answers.flatMap(({ key }) => (key === undefined ? [] : [key])));
  let digit = answers.some(({ weight }) => weight === 'main') ? 2 : 1;
  const nextDigit = () => {
    while (taken.has(String(digit))) digit++;
    return String(digit++);
  };
  return answers.map((answer) => ({ ...answer, key: answer.key ?? (answer.weight === 'main' ? ' ' : nextDigit()) }));
}

/** Those that a letter gives also while their question is not asked: digits belong to the question that is. */
export function byLetter(answers: readonly Answer[]): readonly Answer[] {
  return answers.filter(({ key }) => !/^\d$/.test(key));
}

/** What is chosen from, the first with digits from 1 on; what comes after the ninth has no key. */
export function asChoices(choices: readonly Omit<Answer, 'key' | 'weight'>[]): readonly Answer[] {
  return choices.map((choice, at) => ({ ...choice, key: at < 9 ? String(at + 1) : '', weight: 'plain' }));
}
