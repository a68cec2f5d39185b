import { thingKey, type Thing } from '../record/index.ts';
import type { Scene } from './scene.ts';

/** Lines of the record, from one up to another. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
}

/**
 * May something else than this part, which moved in these lines, have been over the thing? It may have left from beneath what
 * stayed, or what went along on the part may have lain over it.
 */
export function isInDoubt(scene: Scene, part: string, thing: Thing, { from, to }: Stretch): boolean {
  const at = scene.played.steps.findIndex(
    ({ op, thing: moved }, line) => line >= from && line < to && op && moved.part === part,
  );
  if (at < 0) return true;
  const before = scene.played.after(at);
  const along = scene.along(part, before);
  return (
    wentAlong(scene, part, thing, along) ||
    isCoveredByWhatStayed(scene, part, thing, along, to) ||
    wentWithAnother(scene, part, thing, along, from)
  );
}

/** It went along on the part, and lies on that part's face or on an edge. */
function wentAlong(scene: Scene, part: string, thing: Thing, along: ReadonlySet<string>): boolean {
  const host = thing.joint === undefined ? thing.part : scene.joint(thing.joint).to;
  const face = scene.faceOf(thing);
  return along.has(host) && host !== undefined && (face === 'edge' || face === scene.part(part).face);
}

/** A part of the same face that stayed covers it. */
function isCoveredByWhatStayed(
  scene: Scene,
  part: string,
  thing: Thing,
  along: ReadonlySet<string>,
  to: number,
): boolean {
  const face = scene.faceOf(thing);
  const own = ownParts(scene, thing);
  const after = scene.played.after(to);
  return scene.told.parts.some(
    (each) =>
      !each.base &&
      each.id !== part &&
      each.face === face &&
      each.layer <= scene.layerOf(thing) &&
      !own.has(each.id) &&
      !along.has(each.id) &&
      scene.stands(each.id, after) &&
      scene.covers(each.id, thing),
  );
}

/** Another part that had been seen before went along, and may have covered it as well. */
function wentWithAnother(scene: Scene, part: string, thing: Thing, along: ReadonlySet<string>, from: number): boolean {
  const held = new Set(thing.joint === undefined ? [thing.part] : scene.joint(thing.joint).holds);
  const coversIt = scene.covers(part, thing);
  return [...along].some((other) => {
    if (other === part || held.has(other)) return false;
    const seen = scene.firstSeen({ part: other });
    if (seen === undefined || seen > from) return false;
    return !(coversIt && !scene.covers(other, thing));
  });
}

/** A plug that was released between two photographs may have been what hid it. */
export function hidByPlug(scene: Scene, part: string, thing: Thing, { from, to }: Stretch): boolean {
  const own = new Set(
    thing.joint === undefined
      ? scene.mechanism.map.joints.flatMap(({ id, holds }) =>
          holds.includes(thing.part) ? [thingKey({ joint: id })] : [],
        )
      : [thingKey(thing)],
  );
  const isPulled = scene.played.steps
    .slice(from, to)
    .some(
      ({ op, thing: { joint }, key }) =>
        op && joint !== undefined && scene.joint(joint).type === 'connector' && !own.has(key),
    );
  if (!isPulled) return false;
  const { kind } = scene.part(part);
  return !(scene.covers(part, thing) && kind !== 'flex' && kind !== 'lead');
}

/** What a thing is, holds and is held to. */
function ownParts(scene: Scene, thing: Thing): ReadonlySet<string> {
  if (thing.joint === undefined) return new Set([thing.part]);
  const { holds, to } = scene.joint(thing.joint);
  return new Set([...holds, to]);
}
