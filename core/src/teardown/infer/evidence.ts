import type { PartKind } from '../../model/device-map/index.ts';
import { isMet, type Mechanism, type Wait } from '../../planner/holds/index.ts';
import { type Entry, type Thing, thingKey, thingOf } from '../record/index.ts';
import { type Candidates, candidatesOf } from './candidates.ts';
import { hidByPlug, isInDoubt } from './in-doubt.ts';
import { type Certainty, Guesses, type Rule } from './guesses.ts';
import type { PlayedLines } from './played.ts';
import type { Scene } from './scene.ts';
import { entriesAbout, refusalsOf } from './how-far.ts';

/** All that a record says of what lies under what, by the rules of docs/map-from-teardown.md. */
export function guessesOf(scene: Scene): Guesses {
  const guesses = new Guesses();
  for (const thing of thingsDone(scene)) {
    const candidates = candidatesOf(scene, thing);
    if (!candidates) continue;
    const say = (about: Thing, certainty: Certainty, why: Rule) => {
      const entries =
        about.joint === undefined
          ? entriesAbout(scene, about.part, thing, candidates, certainty)
          : [{ entry: { joint: about.joint } as Entry, certainty }];
      for (const each of entries) {
        if (heldAt(scene.mechanism, scene.played, each.entry, candidates.moment))
          guesses.add(thing, each.entry, { why, certainty: each.certainty });
      }
    };
    for (const { thing: each } of candidates.byKey.values()) say(each, 'open', 'candidate');
    ofRefusals(scene, guesses, thing, candidates, say);
    ofSight(scene, thing, candidates, say);
    ofOutlines(scene, thing, candidates, say);
    ofSamePart(scene, thing, candidates, say);
    ofLastOff(scene, thing, candidates, say);
  }
  ofAnswers(scene, guesses);
  return guesses;
}

type Say = (about: Thing, certainty: Certainty, why: Rule) => void;

/** Every joint that was released and every part that was moved, in the order of the record. */
function thingsDone({ played }: Scene): readonly Thing[] {
  const byKey = new Map(played.steps.flatMap(({ op, key, thing }) => (op ? [[key, thing] as const] : [])));
  return [...byKey.values()];
}

/** An entry that did not hold when a thing was done is none of it. */
export function heldAt(mechanism: Mechanism, played: PlayedLines, entry: Entry, moment: number): boolean {
  const op = played.steps[moment]?.op;
  const wait = waitOf(mechanism, entry);
  return !op || !wait ? false : isMet(mechanism, played.after(moment), op, wait);
}

export function waitOf(mechanism: Mechanism, entry: Entry): Wait | null {
  if (entry.joint !== undefined) {
    const joint = mechanism.joint.get(entry.joint);
    return joint === undefined ? null : { joint };
  }
  const part = mechanism.part.get(entry.part);
  return part === undefined ? null : { part, until: entry.until };
}

/** What was told is certain; what was not is what alone was done since. */
function ofRefusals(scene: Scene, guesses: Guesses, thing: Thing, { moment, byKey }: Candidates, say: Say): void {
  for (const { at, by } of refusalsOf(scene, thing, moment)) {
    if (by) {
      if ('part' in by && by.until !== undefined) {
        const entry = { part: by.part, until: by.until };
        if (heldAt(scene.mechanism, scene.played, entry, moment))
          guesses.add(thing, entry, { why: 'refused', certainty: 'certain' });
      } else if (scene.has(by as Thing)) say(by as Thing, 'certain', 'refused');
      continue;
    }
    const since = scene.played.steps.slice(at, moment).filter(({ op }) => op);
    const done = new Set(since.filter(({ key }) => byKey.has(key)).map(({ key }) => key));
    // a joint of its own may have been all that held it
    const own = thing.part === undefined ? new Set<string>() : scene.ownJoints(thing.part, scene.played.after(at));
    const isOwn = since.some(({ thing: each }) => each.joint !== undefined && own.has(each.joint));
    if (done.size !== 1 || isOwn) continue;
    const only = byKey.get([...done][0]!)!.thing;
    const isDoubtful = only.part !== undefined && isInDoubt(scene, only.part, thing, { from: at, to: moment });
    say(only, isDoubtful ? 'likely' : 'certain', 'refused');
  }
}

/** What came into sight when a part was moved lay beneath it. */
function ofSight(scene: Scene, thing: Thing, { moment, byKey }: Candidates, say: Say): void {
  const seen = scene.firstSeen(thing);
  const before = scene.photoBefore(thing);
  if (seen === undefined || before === undefined || seen > moment) return;
  const stretch = { from: before, to: seen };
  const moved = [...scene.movedIn(before, seen)];
  const known = moved.filter((part) => byKey.has(thingKey({ part })));
  if (moved.length === 1) {
    const [part] = known;
    if (part === undefined) return;
    const isDoubtful = isInDoubt(scene, part, thing, stretch) || hidByPlug(scene, part, thing, stretch);
    return say({ part }, isDoubtful ? 'likely' : 'certain', 'sight');
  }
  const over = known.filter((part) => scene.covers(part, thing));
  const last = known.toSorted((a, b) => lastMove(scene, b, seen) - lastMove(scene, a, seen)).slice(0, 1);
  for (const part of over.length > 0 ? over : last) say({ part }, 'likely', 'sight');
}

function lastMove({ played }: Scene, part: string, before: number): number {
  return played.steps.findLastIndex(({ op, thing }, at) => at < before && op && thing.part === part);
}

/** What is drawn over it, on the same face and not deeper, and was never seen through. */
function ofOutlines(scene: Scene, thing: Thing, { byKey }: Candidates, say: Say): void {
  for (const { thing: other } of byKey.values()) {
    if (other.part === undefined) continue;
    const { face, layer } = scene.part(other.part);
    if (face !== scene.faceOf(thing) || layer > scene.layerOf(thing)) continue;
    if (!scene.covers(other.part, thing) || scene.wasSeenWhileStood(thing, other.part)) continue;
    say(other, 'likely', 'outline');
  }
}

/** The screws of a part come out before its glue is cut and its clips are undone. */
function ofSamePart(scene: Scene, thing: Thing, { byKey }: Candidates, say: Say): void {
  const own = thing.joint === undefined ? undefined : scene.joint(thing.joint);
  if (own?.type !== 'bond' && own?.type !== 'clip') return;
  for (const { thing: other } of byKey.values()) {
    const joint = other.joint === undefined ? undefined : scene.joint(other.joint);
    if (joint?.type === 'screw' && joint.holds.some((id) => own.holds.includes(id))) say(other, 'likely', 'same-part');
  }
}

/** What closes over a plug. */
const LIDS: ReadonlySet<PartKind> = new Set(['bracket', 'shield', 'plate', 'board', 'display', 'cover', 'shell']);

function tiedBy(scene: Scene, joint: string): readonly string[] {
  const { holds, to } = scene.joint(joint);
  return [...holds, to];
}

/** Of what nobody said where it lies, what came off last before it is likely to have lain over it. */
function ofLastOff(scene: Scene, thing: Thing, { moment, byKey }: Candidates, say: Say): void {
  if (!scene.isUnplaced(thing)) return;
  const own = thing.joint === undefined ? [thing.part] : tiedBy(scene, thing.joint);
  const tie = thing.joint === undefined ? undefined : scene.joint(thing.joint);
  // a guess must not have the battery plugged in before what only lay beside its plug
  const isLive = tie?.type === 'connector' && Boolean(tie.isolates);
  const last = scene.played.steps.slice(0, moment).findLast(({ key, op, before, thing: { part } }) => {
    if (!op || part === undefined || !byKey.has(key)) return false;
    if (isLive && !LIDS.has(scene.part(part).kind)) return false;
    const along = scene.along(part, before);
    // what it rode on lay beneath it
    return !own.some((id) => along.has(id));
  });
  if (last) say(last.thing, 'likely', 'last-off');
}

/** What was pressed is certain, and what was offered beside it is no entry. */
function ofAnswers(scene: Scene, guesses: Guesses): void {
  for (const answer of scene.told.answers) {
    const thing = thingOf(answer);
    if (!scene.has(thing)) continue;
    for (const option of answer.options) guesses.remove(thing, option);
    const moment = scene.played.momentOf(thingKey(thing));
    for (const entry of answer.by) {
      if (moment === undefined || heldAt(scene.mechanism, scene.played, entry, moment))
        guesses.add(thing, entry, { why: 'answer', certainty: 'certain' });
    }
  }
}
