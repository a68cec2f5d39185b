import Joi from 'joi';

export interface CheckedNumber {
  readonly place: string;
  readonly value: string;
  readonly kind: 'imei' | 'imeisv' | 'unknown';
  readonly valid: boolean;
  readonly reason?: string;
}

export interface Numbers {
  readonly numbers: readonly CheckedNumber[];
  /** the first 14 digits of all are the same */
  readonly agree: boolean;
}

/** docs/http.md, compute/identity. */
export const identityRequest = Joi.object({
  numbers: Joi.array()
    .min(1)
    .max(100)
    .items(
      Joi.object({
        place: Joi.string().allow('').max(100).required(),
        value: Joi.string().allow('').max(100).required(),
      }).unknown(true),
    )
    .required(),
}).unknown(true);

/**
 * The check digit of an equipment number's first 14 digits: every other digit doubled, from the second; the digits of
 * all summed; what is missing to the next ten (Luhn; 3GPP TS 23.003, annex B).
 */
export function checkDigit(first14: string): number {
  const sum = [...first14].reduce((total, digit, index) => {
    const value = index % 2 === 1 ? Number(digit) * 2 : Number(digit);
    return total + (value > 9 ? value - 9 : value);
  }, 0);
  return (10 - (sum % 10)) % 10;
}

/** Numbers read off label, tray, box, screen: what each is, whether it can be right, and whether they are the same. */
export function checkNumbers(numbers: readonly { readonly place: string; readonly value: string }[]): Numbers {
  const checked = numbers.map(({ place, value }): CheckedNumber => ({ place, value, ...judged(digitsOf(value)) }));
  const firsts = numbers.map(({ value }) => digitsOf(value).slice(0, 14));
  const agree = firsts.every((each) => /^\d{14}$/.test(each) && each === firsts[0]);
  return { numbers: checked, agree };
}

/** Spaces and hyphens are for the eye only. */
function digitsOf(value: string): string {
  return value.replaceAll(/[\s-]/g, '');
}

function judged(digits: string): Pick<CheckedNumber, 'kind' | 'valid' | 'reason'> {
  const unknown = (reason: string) => ({ kind: 'unknown', valid: false, reason }) as const;
  if (digits === '') return unknown('There is no number.');
  if (!/^[0-9]+$/.test(digits)) return unknown('It has something else than digits in it. Read it again.');
  if (digits.length === 16) return { kind: 'imeisv', valid: true };
  if (digits.length === 14) {
    return unknown(`It has 14 digits: the check digit is missing, it would be ${checkDigit(digits)}.`);
  }
  if (digits.length !== 15) return unknown(`It has ${digits.length} digits; 15 or 16 belong there.`);
  const expected = checkDigit(digits.slice(0, 14));
  if (Number(digits[14]) === expected) return { kind: 'imei', valid: true };
  return { kind: 'imei', valid: false, reason: `The check digit should be ${expected}. Read it again.` };
}
