import {
  applied,
  assembled,
  carried,
  isMet,
  type Mechanism,
  mechanismOf,
  type StripOp,
  unmetFor,
} from '../../planner/holds/index.ts';
import { type Entry, type Teardown, type Thing, thingKey } from '../record/index.ts';
import { draftedMap, type Guessed } from './drafted-map.ts';
import { waitOf } from './evidence.ts';
import { certaintyOf, type Guess, type Guesses, isIn } from './guesses.ts';
import { playedLines } from './played.ts';

/** What lies under what, by the key of a thing: what is in the map, or other guesses that are wanted. */
export function underOf(guesses: Guesses, isWanted = isIn): ReadonlyMap<string, readonly Entry[]> {
  const under = new Map<string, Entry[]>();
  for (const guess of guesses.all().filter(isWanted)) {
    const key = thingKey(guess.thing);
    under.set(key, [...(under.get(key) ?? []), guess.entry]);
  }
  return under;
}

/**
 * Plays the record in the map that was made of it. A likely entry that forbids a step is dropped, and where only certain ones do,
 * those are: a map allows its own record.
 */
export function allowItsRecord(told: Teardown, hosts: Guessed['hosts'], guesses: Guesses): void {
  // each round drops one entry at least
  for (let rounds = guesses.all().length; rounds >= 0; rounds--) {
    const mechanism = mechanismOf(draftedMap(told, { hosts, under: underOf(guesses) }));
    const inTheWay = firstForbidding(mechanism, told, guesses);
    if (inTheWay.length === 0) return;
    const likely = inTheWay.filter((guess) => certaintyOf(guess) === 'likely');
    for (const guess of likely.length > 0 ? likely : inTheWay) guesses.drop(guess);
  }
}

/** The entries that forbid the first step of the record that is forbidden. */
function firstForbidding(mechanism: Mechanism, told: Teardown, guesses: Guesses): readonly Guess[] {
  let state = assembled(mechanism);
  for (const { op } of playedLines(mechanism, told.record).steps) {
    if (!op) continue;
    // whether it is dead is no matter of what lies under what
    if (unmetFor(mechanism, state, op, { live: NONE, isolation: false }).length > 0) {
      const inTheWay = concerned(mechanism, state, op).flatMap((thing) =>
        guesses.of(thing).filter((guess) => {
          const wait = isIn(guess) ? waitOf(mechanism, guess.entry) : null;
          return wait !== null && !isMet(mechanism, state, op, wait);
        }),
      );
      if (inTheWay.length > 0) return inTheWay;
    }
    state = applied(mechanism, state, op);
  }
  return [];
}

const NONE: ReadonlySet<number> = new Set();

/** The thing itself, and, of a part that moves, what it carries. */
function concerned(mechanism: Mechanism, state: ReturnType<typeof assembled>, op: StripOp): Thing[] {
  if (op.kind === 'release') return [{ joint: mechanism.map.joints[op.joint]!.id }];
  return [...carried(mechanism, state, op.part)].map((part) => ({ part: mechanism.map.parts[part]!.id }));
}
