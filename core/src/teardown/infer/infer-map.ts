import type { DeviceMap } from '../../model/device-map/index.ts';
import { type Entry, type Teardown, type Thing, thingKey } from '../record/index.ts';
import { draftedMap, releasedJoints } from './drafted-map.ts';
import { guessesOf } from './evidence.ts';
import { type Certainty, certaintyOf, isIn, type Rule, whyOf } from './guesses.ts';
import { guessedHosts } from './hosts.ts';
import { allowItsRecord, underOf } from './own-record.ts';
import { type Question, questionsOf } from './what-held-it.ts';
import { keepOrder } from './kept-order.ts';
import { learnt, type Refuted } from './repairs.ts';
import { Scene } from './scene.ts';
import { checkDraft, checkTold } from './told-check.ts';

/** A map from one teardown, with how sure it is of each entry, and what to ask next. */
export interface InferredMap {
  readonly map: DeviceMap;
  readonly hosts: readonly { readonly joint: string; readonly to: string; readonly certainty: Certainty }[];
  readonly guesses: readonly (Thing & {
    readonly entry: Entry;
    readonly certainty: Certainty;
    /** is it in the map? */
    readonly in: boolean;
    /** the rule that makes it as sure as it is */
    readonly why: Rule;
    /** every rule that speaks for it */
    readonly reasons: readonly Rule[];
  })[];
  readonly questions: readonly Question[];
  readonly refuted: readonly Refuted[];
}

/**
 * Makes a device map of what was done, seen, pressed and refused (docs/map-from-teardown.md): nothing is called
 * certain that a device could gainsay, and the map allows its own record. The same body gives the same answer.
 * @throws Refusal naming the field, where something is named that is not there
 */
export function inferMap(told: Teardown): InferredMap {
  const { questions, ...inferred } = mapInferred(told);
  return { ...inferred, questions: questions() };
}

/** The same, with what to ask next only where that is wanted: it takes longer than the map. */
export function mapInferred(
  told: Teardown,
  { keepsOrder = false, hasOpen = true }: { readonly keepsOrder?: boolean; readonly hasOpen?: boolean } = {},
): Omit<InferredMap, 'questions'> & { questions(): InferredMap['questions'] } {
  checkTold(told);
  checkDraft(draftedMap(told, { hosts: new Map(), under: new Map() }));
  const hosts = guessedHosts(told);
  const scene = new Scene(told, hosts);
  const guesses = guessesOf(scene);
  const refuted = learnt(scene, guesses);
  if (keepsOrder) keepOrder(scene, guesses);
  allowItsRecord(told, hosts, guesses);
  const map = draftedMap(told, { hosts, under: underOf(guesses) });
  const isTold = new Set([
    ...told.hinges.map(({ id }) => id),
    ...[...releasedJoints(told).values()].flatMap(({ joint, to }) => (to === undefined ? [] : [joint])),
  ]);
  const moment = ({ thing }: { readonly thing: Thing }) => scene.played.momentOf(thingKey(thing)) ?? Infinity;
  return {
    map,
    hosts: map.joints.map(({ id, to }) => ({ joint: id, to, certainty: isTold.has(id) ? 'certain' : 'likely' })),
    guesses: guesses
      .all()
      .filter((guess) => hasOpen || certaintyOf(guess) !== 'open')
      .map((guess) => ({ guess, at: moment(guess) }))
      .toSorted((a, b) => a.at - b.at)
      .map(({ guess }) => ({
        ...guess.thing,
        entry: guess.entry,
        certainty: certaintyOf(guess),
        in: isIn(guess),
        why: whyOf(guess),
        reasons: [...new Set(guess.reasons.map(({ why }) => why))],
      })),
    questions: () => questionsOf(scene, hosts, guesses),
    refuted,
  };
}
