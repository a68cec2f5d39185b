import { describe, expect, it } from 'vitest';
import { isSameName, nameKey, nameProblem } from './names.ts';

describe('names', () => {
  it.each([
    ['bench A', 'Bench a'],
    ['bench A', '  bench\u00a0 A '],
    ['bench A', 'ＢＥＮＣＨ　Ａ'],
    ['Zoë', 'Zoe\u0308'],
    ['STRASSE', 'straße'],
    ['SN 0042', 'sn0042'],
  ])('takes %j and %j for one', (a, b) => {
    expect(isSameName(a, b)).toBe(true);
    expect(nameKey(nameKey(a))).toBe(nameKey(a));
  });

  it('keeps apart what differs', () => {
    expect(isSameName('bench A', 'bench B')).toBe(false);
    expect(isSameName('Maren', 'Marén')).toBe(false);
  });

  it.each([
    'Mar\u200ben',
    'Mar\u00aden',
    'Maren\u202e',
    'Ma\u0000ren',
    'Mar\ufe0fen',
    '\u2060Maren',
    'Ma\nren',
    'Mar\u3164en',
  ])('refuses %j, of which something is not seen', (name) => expect(nameProblem(name)).toContain('nobody sees'));

  it('refuses letters of two scripts in one name, and takes any one of them', () => {
    expect(nameProblem('M\u0430ren')).toContain('Latin, Cyrillic');
    expect(nameProblem('M\u03b1ren')).toContain('Greek');
    for (const name of [
      'Maren',
      'Мария',
      'Zoë Müller-Ørsted',
      '山田ひろし',
      '김민수',
      "O'Neill 2",
      'Ποσειδών',
      'مريم',
    ]) {
      expect(nameProblem(name), name).toBeNull();
    }
    expect(nameProblem('   ')).toBe('is empty');
  });
});
