import { OPEN, SEATED } from '../../planner/holds/index.ts';
import { type Entry, type Thing, thingKey } from '../record/index.ts';
import type { Candidates } from './candidates.ts';
import { type Certainty, lessSure } from './guesses.ts';
import type { Scene } from './scene.ts';

/** How far a part had to go, as far as that is known: open, off, or both with how sure each is. */
export function entriesAbout(
  scene: Scene,
  part: string,
  thing: Thing,
  candidates: Candidates,
  certainty: Certainty,
): readonly { readonly entry: Entry; readonly certainty: Certainty }[] {
  const state = scene.played.after(candidates.moment);
  const isOpen = scene.statusOf(part, state) === OPEN;
  // a part that stood and lay apart counts as off
  const isApart = scene.groupOf({ part }, state) !== scene.groupOf(thing, state);
  if (isOpen && !isApart) return [{ entry: { part, until: 'open' }, certainty }];
  const wasEnough = () => !scene.isTied(part);
  if (wasRefusedWhileOpen(scene, part, thing, candidates) || stoodOnPhotoBefore(scene, part, thing) || wasEnough())
    return [{ entry: { part, until: 'off' }, certainty }];
  const open = { entry: { part, until: 'open' }, certainty } as const;
  if (scene.part(part).kind === 'display') return [open];
  return [open, { entry: { part, until: 'off' }, certainty: lessSure(certainty, 'likely') }];
}

/** It was refused by the part while that stood open: told so, or the part is the only candidate since. */
function wasRefusedWhileOpen(scene: Scene, part: string, thing: Thing, candidates: Candidates): boolean {
  return refusalsOf(scene, thing, candidates.moment).some(({ at, by }) => {
    if (scene.statusOf(part, scene.played.after(at)) !== OPEN) return false;
    return by ? 'part' in by && by.part === part : isOnlyOneSince(scene, part, at, candidates);
  });
}

/** The refusals of a thing before it was done. */
export function refusalsOf(scene: Scene, thing: Thing, moment: number) {
  return scene.played.refusalsOf(thingKey(thing)).filter(({ at }) => at < moment);
}

function isOnlyOneSince(scene: Scene, part: string, at: number, { moment, byKey }: Candidates): boolean {
  const since = scene.played.steps.slice(at, moment);
  const done = new Set(since.flatMap(({ op, key }) => (op && byKey.has(key) ? [key] : [])));
  return done.size === 1 && done.has(thingKey({ part }));
}

/** It stood open on the photograph before the first that shows the thing, and only it was moved in between. */
function stoodOnPhotoBefore(scene: Scene, part: string, thing: Thing): boolean {
  const seen = scene.firstSeen(thing);
  const before = scene.photoBefore(thing);
  if (seen === undefined || before === undefined) return false;
  const moved = scene.movedIn(before, seen);
  const state = scene.played.after(before);
  return (
    scene.statusOf(part, state) === OPEN &&
    moved.size === 1 &&
    moved.has(part) &&
    scene.statusOf(part, scene.played.after(seen)) !== SEATED
  );
}
