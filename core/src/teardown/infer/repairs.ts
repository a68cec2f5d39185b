import { OPEN } from '../../planner/holds/index.ts';
import { type Entry, entryKey, type HeldBy, type Thing, thingKey } from '../record/index.ts';
import { heldAt } from './evidence.ts';
import type { Guesses } from './guesses.ts';
import { type PlayedLines, playedLines } from './played.ts';
import type { Scene } from './scene.ts';

/** An entry that a later repair gainsaid. */
export type Refuted = Thing & { readonly entry: Entry };

/** What later repairs add, and what they gainsay: first every refusal of all of them, then every entry that did not hold. */
export function learnt(scene: Scene, guesses: Guesses): readonly Refuted[] {
  const { mechanism } = scene;
  const repairs = scene.told.repairs.map((lines) => playedLines(mechanism, lines));
  for (const repair of repairs) ofRefusals(scene, guesses, repair);
  const refuted = new Map<string, Refuted>();
  for (const repair of repairs) {
    const done = new Map(repair.steps.flatMap(({ op, key, thing }) => (op ? [[key, thing] as const] : [])));
    for (const thing of done.values()) {
      const moment = repair.momentOf(thingKey(thing))!;
      for (const guess of guesses.of(thing)) {
        if (heldAt(mechanism, repair, guess.entry, moment)) continue;
        guesses.remove(thing, guess.entry);
        refuted.set(`${thingKey(thing)} ${entryKey(guess.entry)}`, { ...thing, entry: guess.entry });
      }
    }
  }
  return [...refuted.values()];
}

function ofRefusals(scene: Scene, guesses: Guesses, repair: PlayedLines): void {
  repair.steps.forEach((step, at) => {
    if (!step.isRefused || !scene.has(step.thing)) return;
    const moment = momentAfter(repair, step.key, at);
    const by = step.by ?? (moment === undefined ? null : onlyOneSince(scene, repair, step.thing, at, moment));
    if (!by || !scene.has(by as Thing)) return;
    for (const entry of entriesOf(scene, repair, by, at, moment)) {
      const holds = [
        moment === undefined || heldAt(scene.mechanism, repair, entry, moment),
        heldInRecord(scene, step.thing, entry),
      ];
      if (holds.every(Boolean)) guesses.addCertain(step.thing, entry);
    }
  });
}

function momentAfter(repair: PlayedLines, key: string, at: number): number | undefined {
  const line = repair.steps.findIndex((step, number) => number > at && step.op !== null && step.key === key);
  return line < 0 ? undefined : line;
}

/** Where nobody told by what: all that was done since, if it is one thing and no joint of its own. */
function onlyOneSince(scene: Scene, repair: PlayedLines, thing: Thing, at: number, moment: number): HeldBy | null {
  const since = repair.steps.slice(at, moment).filter(({ op }) => op);
  const keys = new Set(since.map(({ key }) => key));
  if (keys.size !== 1) return null;
  const only = since[0]!.thing;
  const own = thing.part === undefined ? undefined : scene.ownJoints(thing.part, repair.after(at));
  if (only.joint !== undefined) return own?.has(only.joint) ? null : { joint: only.joint };
  return { part: only.part };
}

/** Open where the part was open when the thing was done; off where it refused while it stood open, or where nothing ties it. */
function entriesOf(
  scene: Scene,
  repair: PlayedLines,
  by: HeldBy,
  at: number,
  moment: number | undefined,
): readonly Entry[] {
  if (!('part' in by)) return [{ joint: by.joint }];
  const { part, until } = by;
  if (until !== undefined) return [{ part, until }];
  if (moment !== undefined && scene.statusOf(part, repair.after(moment)) === OPEN) return [{ part, until: 'open' }];
  const stoodOpen = scene.statusOf(part, repair.after(at)) === OPEN;
  return [{ part, until: stoodOpen || !scene.isTied(part) ? 'off' : 'open' }];
}

function heldInRecord(scene: Scene, thing: Thing, entry: Entry): boolean {
  const moment = scene.played.momentOf(thingKey(thing));
  return moment === undefined || heldAt(scene.mechanism, scene.played, entry, moment);
}
