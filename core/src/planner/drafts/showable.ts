import type { Mechanism } from '../holds/index.ts';
import type { Op } from './op.ts';

/**
 * Those of some functions that the device can show while something is not back yet. What a function needs is said by the
 * map (`needs`), else it is a battery, a display, and whatever serves it.
 * @param later what is still to be done: *back shut* is not asked while the back is off
 */
export function showable(
  mechanism: Mechanism,
  functions: readonly string[],
  later: readonly Pick<Op, 'kind' | 'joint' | 'part'>[],
): string[] {
  const of = (kind: Op['kind']) => new Set(later.flatMap((op) => (op.kind === kind ? [op.joint ?? op.part!] : [])));
  const [off, open, released] = [of('fit'), of('close'), of('make')];
  const { map } = mechanism;
  const isSeated = (id: string) => !off.has(id) && !open.has(id);
  const displays = map.parts.filter((each) => each.kind === 'display');
  return functions.filter((id) => {
    const serving = servingOf(mechanism, id);
    // what stands open on its own flex is tried on it; what parts by itself is joined only when it is seated
    const isThere = (part: string) => (serving.parts.has(part) ? !off.has(part) : isSeated(part));
    const plugged = [...serving.plugs].every((joint) => !released.has(joint));
    const needs = map.functions.find((each) => each.id === id)?.needs;
    if (needs) return plugged && needs.every((each) => !released.has(each) && isThere(each));
    const shown = displays.length === 0 || displays.some((each) => !off.has(each.id));
    const powered = !map.battery || !off.has(map.battery.part);
    return plugged && shown && powered && [...serving.parts].every(isThere) && [...serving.carriers].every(isSeated);
  });
}

/** What serves a function: parts, plugs that are made, and the parts that carry a contact which parts by itself. */
function servingOf({ map, selfParting, held }: Mechanism, id: string) {
  const joints = map.joints.flatMap((joint, number) =>
    'functions' in joint && joint.functions?.includes(id) ? [number] : [],
  );
  const plugs = joints.filter((each) => !selfParting[each]);
  const partsOf = (of: readonly number[]) => of.flatMap((each) => held[each]!.map((part) => map.parts[part]!.id));
  const own = map.parts.filter((each) => each.functions?.includes(id)).map((each) => each.id);
  const carriers = new Set(partsOf(joints.filter((each) => selfParting[each])));
  return {
    plugs: new Set(plugs.map((each) => map.joints[each]!.id)),
    parts: new Set([...own, ...partsOf(plugs)].filter((each) => !carriers.has(each))),
    carriers,
  };
}
