import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { boardVerdict, checkDigit, checkNumbers } from './index.ts';

const one = (value: string) => checkNumbers([{ place: 'label', value }]).numbers[0]!;

describe('equipment numbers', () => {
  it('have the check digit of 3GPP TS 23.003, annex B: 26053179 311383 has 7 (from memory)', () => {
    expect(checkDigit('26053179311383')).toBe(7);
    expect(one('26053179 311383-7')).toMatchObject({ kind: 'imei', valid: true });
    expect(one('260531793113838')).toMatchObject({ kind: 'imei', valid: false });
    expect(one('260531793113838').reason).toContain('should be 7');
  });

  it('with 16 digits have none; with 14, letters, or none at all they are unknown, and say why', () => {
    expect(one('2605317931138301')).toEqual({ place: 'label', value: '2605317931138301', kind: 'imeisv', valid: true });
    expect(one('26053179311383')).toMatchObject({ kind: 'unknown', valid: false });
    expect(one('26053179311383').reason).toContain('it would be 7');
    expect(one('2605317931138O7').reason).toContain('something else than digits');
    expect(one('٢٦٠٥٣١٧٩٣١١٣٨٣٧').reason).toContain('something else than digits');
    expect(one('').reason).toContain('no number');
    expect(one('12').reason).toContain('2 digits');
  });

  it('catch every single wrong digit and every swap of neighbours but 0 and 9', () => {
    const digits = fc.array(fc.integer({ min: 0, max: 9 }), { minLength: 14, maxLength: 14 });
    fc.assert(
      fc.property(digits, fc.integer({ min: 0, max: 13 }), fc.integer({ min: 1, max: 9 }), (first, at, by) => {
        const right = `${first.join('')}${checkDigit(first.join(''))}`;
        expect(one(right).valid).toBe(true);
        const wrong = [...right];
        wrong[at] = String((Number(wrong[at]) + by) % 10);
        expect(one(wrong.join('')).valid).toBe(false);
        const [a, b] = [right[at]!, right[at + 1]!];
        if (a === b || new Set([a, b, '0', '9']).size === 2) return;
        const swapped = `${right.slice(0, at)}${b}${a}${right.slice(at + 2)}`;
        expect(one(swapped).valid).toBe(false);
      }),
    );
  });

  it('agree by their first 14 digits, an IMEISV with its IMEI too', () => {
    const agree = (...values: string[]) => checkNumbers(values.map((value) => ({ place: 'x', value }))).agree;
    expect(agree('260531793113837', '26053179-311383-01')).toBe(true);
    expect(agree('260531793113837', '26053179 311383')).toBe(true);
    expect(agree('260531793113837', '260531793113845')).toBe(false);
    expect(agree('260531793113837', 'smudged')).toBe(false);
    expect(agree('123', '123')).toBe(false);
  });
});

describe('a board', () => {
  const numbers = [
    { place: 'label', value: '260531793113837' },
    { place: 'tray', value: '260531793113837' },
  ];
  it('is used only where its numbers agree and the register says clear', () => {
    expect(boardVerdict({ numbers, answer: 'clear' }).verdict).toBe('use');
  });
  it('goes back where it is barred, locked, or its numbers disagree', () => {
    expect(boardVerdict({ numbers, answer: 'barred' }).verdict).toBe('send-back');
    expect(boardVerdict({ numbers, answer: 'locked' }).verdict).toBe('send-back');
    const other = [numbers[0]!, { place: 'screen', value: '490154203237518' }];
    expect(boardVerdict({ numbers: other, answer: 'clear' })).toMatchObject({ verdict: 'send-back' });
  });
  it('is held where something is not known, and says what', () => {
    const held = (facts: Parameters<typeof boardVerdict>[0]) => boardVerdict(facts);
    expect(held({ numbers }).reasons).toEqual(['The register was not asked yet.']);
    expect(held({ numbers, answer: 'unknown' }).verdict).toBe('hold');
    expect(held({ numbers, answer: 'not-reachable' }).reasons[0]).toContain('Ask again');
    expect(held({ numbers: numbers.slice(0, 1), answer: 'clear' }).reasons[0]).toContain('two places');
    expect(held({ numbers: [numbers[0]!, { place: 'tray', value: '26053179' }], answer: 'clear' }).verdict).toBe(
      'hold',
    );
  });
});
