/** What to do, in the largest type, and what it is about. */
export interface OpWords {
  readonly title: string;
  readonly thing: string;
  readonly hint?: string;
}

/** Sentences, one after the other; undefined where there is none. */
export function joined(...sentences: readonly (string | undefined)[]): string | undefined {
  return sentences.filter(Boolean).join(' ') || undefined;
}
