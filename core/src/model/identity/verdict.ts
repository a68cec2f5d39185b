import { checkNumbers } from './number.ts';

/** What a register of barred and locked equipment may answer. */
export const REGISTRY_ANSWERS = ['clear', 'barred', 'locked', 'unknown', 'not-reachable'] as const;
export type RegistryAnswer = (typeof REGISTRY_ANSWERS)[number];

export interface BoardFacts {
  readonly numbers: readonly { readonly place: string; readonly value: string }[];
  /** the last answer; none where nobody has asked yet */
  readonly answer?: RegistryAnswer;
}

export interface PartVerdict {
  readonly verdict: 'use' | 'send-back' | 'hold';
  /** why, the weightiest first */
  readonly reasons: readonly string[];
}

/** Fewest places that a board's number is to be read in before it can be trusted (common practice). */
const FEWEST_PLACES = 2;

/**
 * May this board be used? Barred, locked and contradicting ones go back; what is not known yet is held. A bar or a lock
 * is a reason to send it back, never something to get around.
 */
export function boardVerdict({ numbers, answer }: BoardFacts): PartVerdict {
  const { numbers: checked, agree } = checkNumbers(numbers);
  const back: string[] = [];
  const hold: string[] = [];
  if (answer === 'barred') back.push('The register answers: barred by a network.');
  if (answer === 'locked') back.push('The register answers: locked to an account or a network.');
  const wrong = checked.filter((each) => !each.valid);
  for (const each of wrong) hold.push(`${each.place}: ${each.reason}`);
  if (numbers.length > 1 && wrong.length === 0 && !agree) {
    back.push(`The numbers disagree: ${checked.map((each) => `${each.place} ${each.value}`).join(', ')}.`);
  }
  if (numbers.length < FEWEST_PLACES) hold.push('Read its number in two places: label, tray, box or screen.');
  if (answer === undefined) hold.push('The register was not asked yet.');
  if (answer === 'unknown') hold.push('The register does not know this number. Ask the seller, or another register.');
  if (answer === 'not-reachable') hold.push('The register did not answer. Ask again.');
  if (back.length > 0) return { verdict: 'send-back', reasons: [...back, ...hold] };
  if (hold.length > 0) return { verdict: 'hold', reasons: hold };
  return { verdict: 'use', reasons: ['Its numbers are valid and agree, and the register answers: clear.'] };
}
