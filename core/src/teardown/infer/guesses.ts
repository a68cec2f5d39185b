import { type Entry, entryKey, type Thing, thingKey } from '../record/index.ts';

/** How sure an entry is. */
export type Certainty = 'certain' | 'likely' | 'open';

/** The rule that an entry comes from (docs/map-from-teardown.md). */
export type Rule = 'answer' | 'refused' | 'sight' | 'outline' | 'same-part' | 'last-off' | 'kept-order' | 'candidate';

const SURENESS: Readonly<Record<Certainty, number>> = { certain: 2, likely: 1, open: 0 };

function surer(a: Certainty, b: Certainty): Certainty {
  return SURENESS[a] >= SURENESS[b] ? a : b;
}

export function lessSure(a: Certainty, b: Certainty): Certainty {
  return SURENESS[a] <= SURENESS[b] ? a : b;
}

export interface Reason {
  readonly why: Rule;
  readonly certainty: Certainty;
}

/** An entry that a thing may have, with all that speaks for it. */
export interface Guess {
  readonly thing: Thing;
  readonly entry: Entry;
  readonly reasons: readonly Reason[];
  /** it forbade a step of the record: it is not in the map */
  readonly isDropped: boolean;
}

/** Every guess of a device, by thing and entry. */
export class Guesses {
  readonly #byThing = new Map<string, Map<string, Guess>>();
  add(thing: Thing, entry: Entry, reason: Reason): void {
    const own = this.#of(thing);
    const key = entryKey(entry);
    const before = own.get(key);
    own.set(key, {
      thing,
      entry: plain(entry),
      reasons: [...(before?.reasons ?? []), reason],
      isDropped: before?.isDropped ?? false,
    });
  }

  /** A later refusal is certain also where something else was pressed. */
  addCertain(thing: Thing, entry: Entry): void {
    const own = this.#of(thing);
    const key = entryKey(entry);
    const reasons = [...(own.get(key)?.reasons ?? []), { why: 'refused', certainty: 'certain' } as const];
    own.set(key, { thing, entry: plain(entry), reasons, isDropped: false });
  }

  /** What was asked about and not pressed is no entry. */
  remove(thing: Thing, entry: Entry): void {
    this.#of(thing).delete(entryKey(entry));
  }

  drop(guess: Guess): void {
    this.#of(guess.thing).set(entryKey(guess.entry), { ...guess, isDropped: true });
  }

  of(thing: Thing): readonly Guess[] {
    return [...(this.#byThing.get(thingKey(thing))?.values() ?? [])];
  }

  all(): readonly Guess[] {
    return [...this.#byThing.values()].flatMap((own) => [...own.values()]);
  }

  #of(thing: Thing): Map<string, Guess> {
    const key = thingKey(thing);
    const own = this.#byThing.get(key) ?? new Map<string, Guess>();
    this.#byThing.set(key, own);
    return own;
  }
}

export function certaintyOf({ reasons }: Guess): Certainty {
  return reasons.map(({ certainty }) => certainty).reduce(surer);
}

/** The rule that makes it as sure as it is. */
export function whyOf(guess: Guess): Rule {
  const certainty = certaintyOf(guess);
  return guess.reasons.find((each) => each.certainty === certainty)!.why;
}

export function isIn(guess: Guess): boolean {
  return !guess.isDropped && certaintyOf(guess) !== 'open';
}

/** Without a note, which is no part of what it says. */
function plain(entry: Entry): Entry {
  return entry.joint === undefined ? { part: entry.part, until: entry.until } : { joint: entry.joint };
}
