import Joi from 'joi';

/**
 * What names of people, benches and devices are compared by: *bench a* and *Bench A* are one. Compatibility
 * forms, case and spaces don't count (Unicode Standard Annex 15, NFKC).
 */
export function nameKey(name: string): string {
  return name.normalize('NFKC').toUpperCase().toLowerCase().normalize('NFKC').replace(/\s+/gu, '');
}

export function isSameName(a: string, b: string): boolean {
  return nameKey(a) === nameKey(b);
}

/** Not seen on any screen, or moving what stands beside it. */
const HIDDEN: readonly RegExp[] = [
  /[\p{Cc}\p{Cf}\p{Cs}\p{Co}\p{Cn}\p{Zl}\p{Zp}]/u,
  // variation selectors, the grapheme joiner, and fillers that are letters by their class
  /[\u{FE00}-\u{FE0F}]|[\u{E0100}-\u{E01EF}]|\u{34F}|[\u{115F}\u{1160}\u{3164}\u{FFA0}\u{2800}]/u,
];

/** Scripts that one name may mix: Latin with those of Japanese, Chinese, Korean (Unicode Technical Standard 39, 5.2, highly restrictive). */
const TOGETHER: readonly (readonly string[])[] = [
  ['Latin', 'Han', 'Hiragana', 'Katakana'],
  ['Latin', 'Han', 'Bopomofo'],
  ['Latin', 'Han', 'Hangul'],
];

const SCRIPTS = [
  'Latin',
  'Greek',
  'Cyrillic',
  'Armenian',
  'Hebrew',
  'Arabic',
  'Devanagari',
  'Bengali',
  'Gurmukhi',
  'Gujarati',
  'Tamil',
  'Telugu',
  'Kannada',
  'Malayalam',
  'Sinhala',
  'Thai',
  'Lao',
  'Tibetan',
  'Myanmar',
  'Georgian',
  'Hangul',
  'Ethiopic',
  'Cherokee',
  'Khmer',
  'Mongolian',
  'Hiragana',
  'Katakana',
  'Bopomofo',
  'Han',
  'Coptic',
  'Lisu',
] as const;
const OF_SCRIPT = SCRIPTS.map((script) => [script, new RegExp(`\\p{Script=${script}}`, 'u')] as const);
const SHARED = /[\p{Script=Common}\p{Script=Inherited}]/u;

/** Letters of these scripts, or of none that is known here. */
function scriptsOf(name: string): ReadonlySet<string> {
  const found = [...name].flatMap((letter) => {
    if (SHARED.test(letter)) return [];
    return [OF_SCRIPT.find(([, pattern]) => pattern.test(letter))?.[0] ?? 'another'];
  });
  return new Set(found);
}

/** Why a name can't be taken: it looks like another one, or can't be seen whole. Null where it can. */
export function nameProblem(name: string): string | null {
  if (HIDDEN.some((each) => each.test(name))) return 'has characters that nobody sees; type it anew';
  if (nameKey(name) === '') return 'is empty';
  const scripts = scriptsOf(name.normalize('NFKC'));
  const isOne = scripts.size <= 1 || TOGETHER.some((set) => [...scripts].every((each) => set.includes(each)));
  return isOne ? null : `mixes letters of several scripts (${[...scripts].join(', ')}), so it may look like another`;
}

/** A name of so many characters at most, as a field of what is sent. */
export function nameSchema(most: number): Joi.StringSchema {
  return Joi.string()
    .min(1)
    .max(most)
    .custom((value: string, helpers) => {
      const problem = nameProblem(value);
      return problem === null ? value : helpers.error('name.unclear', { problem });
    })
    .messages({ 'name.unclear': '{{#label}} {{#problem}}' });
}
