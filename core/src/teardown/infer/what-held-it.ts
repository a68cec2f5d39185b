import type { DeviceMap } from '../../model/device-map/index.ts';
import {
  assembled,
  liveJoints,
  type Mechanism,
  mechanismOf,
  planRules,
  type StripOp,
} from '../../planner/holds/index.ts';
import { goalOf, hasOp, leastSets, noWork, type Target, type WorkSet } from '../../planner/search/index.ts';
import { type Entry, entryKey, type Thing, thingKey, thingOf } from '../record/index.ts';
import { draftedMap, type Guessed } from './drafted-map.ts';
import { certaintyOf, type Guess, type Guesses, isIn } from './guesses.ts';
import { away_mm } from './outlines.ts';
import { underOf } from './own-record.ts';
import type { Scene } from './scene.ts';

/** *What held it?*, with what may have. */
export type Question = Thing & {
  readonly id: string;
  readonly ask: 'held';
  readonly options: readonly Entry[];
  /** single-part plans that it belongs to */
  readonly plans: number;
  /** how much an answer would tell */
  readonly weight: number;
};

const MOST_OPTIONS = 8;
/** What an option tells of a plan (docs/map-from-teardown.md). */
const LIKELY = 0.5;
const OPEN_ANY = 0.01;
const OPEN_OVER = 0.12;
const OPEN_OVER_DEEPER = 0.05;
const NEAR = 0.03;
const NEAR_MM = 12;
const SEEN_BEFORE = 0.4;

/** What to ask next, the most telling first; what tells nothing is not asked. */
export function questionsOf(scene: Scene, hosts: Guessed['hosts'], guesses: Guesses): readonly Question[] {
  const plans = new SinglePartPlans(scene, hosts, guesses);
  const answered = new Set(scene.told.answers.map((each) => thingKey(thingOf(each))));
  const things = new Map(guesses.all().map(({ thing }) => [thingKey(thing), thing]));
  const questions = [...things.values()].flatMap((thing): Question[] => {
    if (answered.has(thingKey(thing))) return [];
    const offered = optionsOf(scene, plans, thing, guesses.of(thing));
    const own = plans.with(thing);
    const weight = own.reduce(
      (sum, part) => sum + offered.reduce((all, guess) => all + tells(scene, plans, part, thing, guess), 0),
      0,
    );
    if (weight <= 0) return [];
    const options = offered.map(({ entry }) => entry);
    return [
      {
        ...thing,
        id: `held ${thingKey(thing)}`,
        ask: 'held',
        options,
        plans: own.length,
        weight: Math.round(weight * 1000) / 1000,
      },
    ];
  });
  return questions.toSorted((a, b) => b.weight - a.weight);
}

/** Likely ones first, then the nearest. */
function optionsOf(scene: Scene, plans: SinglePartPlans, thing: Thing, own: readonly Guess[]): readonly Guess[] {
  const needed = plans.neededForCertain(thing);
  const far = ({ entry }: Guess) => nearness(scene, thing, entry);
  return own
    .filter((guess) => certaintyOf(guess) !== 'certain' && !(needed && hasOp(needed, plans.opOf(guess.entry))))
    .toSorted((a, b) => Number(isLikely(b)) - Number(isLikely(a)) || far(a) - far(b))
    .slice(0, MOST_OPTIONS);
}

function isLikely(guess: Guess): boolean {
  return certaintyOf(guess) === 'likely';
}

/** What an option tells of the plan for one part. */
function tells(scene: Scene, plans: SinglePartPlans, part: string, thing: Thing, guess: Guess): number {
  if (isLikely(guess)) return isIn(guess) && plans.isShorterWithout(part, guess) ? LIKELY : 0;
  if (plans.has(part, guess.entry)) return 0;
  const { entry } = guess;
  const about = entry.part;
  const covers = about !== undefined && scene.covers(about, thing);
  const isDeeper = about !== undefined && scene.part(about).layer > scene.layerOf(thing);
  const weight = covers ? (isDeeper ? OPEN_OVER_DEEPER : OPEN_OVER) : OPEN_ANY;
  const near = nearness(scene, thing, entry) <= NEAR_MM ? NEAR : 0;
  const seen = about !== undefined && scene.wasSeenWhileStood(thing, about) ? SEEN_BEFORE : 1;
  return (weight + near) * seen;
}

/** From a thing to what may have held it, mm. */
function nearness(scene: Scene, thing: Thing, entry: Entry): number {
  const points = scene.pointsOf(thing);
  const { x, y, w, h } = scene.boxOf(thing);
  const around = points.length > 0 ? points : [{ x: x + w / 2, y: y + h / 2 }];
  if (entry.joint === undefined) return away_mm(scene.part(entry.part), around);
  const places = scene.pointsOf({ joint: entry.joint });
  return Math.min(...places.flatMap((a) => around.map((b) => Math.hypot(a.x - b.x, a.y - b.y))), Infinity);
}

/** The least set of work for every single part, in the map as it is and without one of its entries. */
class SinglePartPlans {
  readonly #scene: Scene;
  readonly #hosts: Guessed['hosts'];
  readonly #guesses: Guesses;
  readonly #mechanism: Mechanism;
  readonly #sets: ReadonlyMap<string, WorkSet>;
  readonly #certain: Mechanism;
  readonly #shorter = new Map<string, ReadonlyMap<string, WorkSet>>();

  constructor(scene: Scene, hosts: Guessed['hosts'], guesses: Guesses) {
    this.#scene = scene;
    this.#hosts = hosts;
    this.#guesses = guesses;
    this.#mechanism = mechanismOf(this.#map((guess) => isIn(guess)));
    this.#certain = mechanismOf(this.#map((guess) => isIn(guess) && certaintyOf(guess) === 'certain'));
    this.#sets = this.#setsIn(
      this.#mechanism,
      scene.told.parts.flatMap(({ id, base }) => (base ? [] : [id])),
    );
  }

  /** The parts whose plans a thing belongs to. */
  with(thing: Thing): readonly string[] {
    const op = this.#opFor(thing);
    return [...this.#sets].flatMap(([part, set]) => (hasOp(set, op) ? [part] : []));
  }

  has(part: string, entry: Entry): boolean {
    return hasOp(this.#sets.get(part)!, this.opOf(entry));
  }

  isShorterWithout(part: string, guess: Guess): boolean {
    // what the plan does not do anyway makes it no longer
    if (!this.has(part, guess.entry)) return false;
    const key = `${thingKey(guess.thing)} ${entryKey(guess.entry)}`;
    const known =
      this.#shorter.get(key) ??
      this.#setsIn(mechanismOf(this.#map((each) => isIn(each) && !isSame(each, guess))), this.with(guess.thing));
    this.#shorter.set(key, known);
    const without = known.get(part);
    return without !== undefined && without.weight < this.#sets.get(part)!.weight;
  }

  /** What the certain entries make necessary for a thing; null where that can't be worked out. */
  neededForCertain(thing: Thing): WorkSet | null {
    const target: Target = { reach: thing.joint ?? thing.part! };
    return this.#least(this.#certain, target);
  }

  opOf(entry: Entry): StripOp {
    return entry.joint === undefined
      ? { kind: entry.until === 'off' ? 'lift' : 'open', part: this.#mechanism.part.get(entry.part)! }
      : { kind: 'release', joint: this.#mechanism.joint.get(entry.joint)! };
  }

  #opFor({ joint, part }: Thing): StripOp {
    return joint === undefined
      ? { kind: 'open', part: this.#mechanism.part.get(part)! }
      : { kind: 'release', joint: this.#mechanism.joint.get(joint)! };
  }

  #map(isWanted: (guess: Guess) => boolean): DeviceMap {
    return draftedMap(this.#scene.told, { hosts: this.#hosts, under: underOf(this.#guesses, isWanted) });
  }

  #setsIn(mechanism: Mechanism, parts: readonly string[]): ReadonlyMap<string, WorkSet> {
    return new Map(
      parts.flatMap((part): [string, WorkSet][] => {
        const set = this.#least(mechanism, { remove: part });
        return set ? [[part, set]] : [];
      }),
    );
  }

  #least(mechanism: Mechanism, target: Target): WorkSet | null {
    const start = assembled(mechanism);
    const rules = planRules(liveJoints(mechanism, start));
    return leastSets(mechanism, start, goalOf(mechanism, start, [target], rules), rules, noWork(mechanism))[0] ?? null;
  }
}

function isSame(a: Guess, b: Guess): boolean {
  return thingKey(a.thing) === thingKey(b.thing) && entryKey(a.entry) === entryKey(b.entry);
}
