import { isOuter, isSelfParting, type Joint, renewalOf } from '../../model/device-map/index.ts';
import type { Mechanism } from '../holds/index.ts';
import type { Precedence } from '../search/index.ts';
import { type Draft, orderOf } from './draft.ts';
import { opId } from './op-id.ts';
import type { WayUp } from './way-up.ts';

/** Is it glued again with new adhesive, so that opening it once more spends that? */
export function isGluedAnew(joint: Joint): boolean {
  return joint.type === 'bond' && !isSelfParting(joint) && renewalOf(joint) !== 'reuse' && joint.style !== 'tape';
}

/** A part that is glued shut, and whether it is tried before. */
export interface PressedDown {
  readonly part: string;
  /** the operations that bring it down for good */
  readonly down: readonly string[];
  /** can it be tried before that? */
  readonly isTried: boolean;
}

/**
 * What is glued shut before the last closings. It is tried before that, unless its own plugs, or what brings the device to
 * life, come only after.
 */
export function pressedDown(
  { map, touching, tether, joint: numberOfJoint, part: numberOf }: Mechanism,
  drafts: readonly Draft[],
  path: Precedence,
  way: WayUp,
): PressedDown[] {
  const ordered = orderOf(drafts);
  const ids = new Set<string>(drafts.map(({ op }) => op.id));
  const undone = new Set(path.ops.flatMap((op) => (op.kind === 'release' ? [op.joint] : [])));
  return map.parts.filter(isOuter).flatMap(({ id }) => {
    const bonds = map.joints.filter(
      (each) => undone.has(numberOfJoint.get(each.id)!) && isGluedAnew(each) && each.holds.includes(id),
    );
    const made = bonds.map((each) => opId('make', each.id));
    if (made.every((each) => way.outerClosings.has(each))) return [];
    const peeled = bonds.map((each) => opId('liner-off', each.id));
    const down = [...peeled, opId('close', id), ...made].filter((each) => ids.has(each));
    const plugs = touching[numberOf.get(id)!]!.filter((joint) => tether[joint]);
    const waits = [...way.endsOfDead, ...plugs.map((joint) => opId('make', map.joints[joint]!.id))];
    const isLate = down.length === 0 || waits.some((each) => down.some((closing) => ordered.get(each)?.has(closing)));
    return [{ part: id, down, isTried: !isLate }];
  });
}
