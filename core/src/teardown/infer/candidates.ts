import { type Thing, thingKey } from '../record/index.ts';
import type { Scene } from './scene.ts';

/** Whatever was released, opened or lifted before a thing was, and may have lain over it. */
export interface Candidates {
  /** the line at which the thing was released, or first opened or lifted */
  readonly moment: number;
  /** by key, the first time that each was done */
  readonly byKey: ReadonlyMap<string, { readonly thing: Thing; readonly at: number }>;
}

export function candidatesOf(scene: Scene, thing: Thing): Candidates | null {
  const { steps, momentOf } = scene.played;
  const moment = momentOf(thingKey(thing));
  if (moment === undefined) return null;
  const own = thing.part === undefined ? NONE : scene.ownJoints(thing.part, steps[moment]!.before);
  const byKey = new Map<string, { readonly thing: Thing; readonly at: number }>();
  steps.slice(0, moment).forEach((step, at) => {
    if (byKey.has(step.key) || !step.op || step.key === thingKey(thing)) return;
    if (step.thing.joint !== undefined && own.has(step.thing.joint)) return;
    // what lay elsewhere then covered nothing of it
    if (scene.groupOf(step.thing, step.before) !== scene.groupOf(thing, step.before)) return;
    byKey.set(step.key, { thing: step.thing, at });
  });
  return { moment, byKey };
}

const NONE: ReadonlySet<string> = new Set();
