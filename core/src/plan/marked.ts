import { isSelfParting } from '../device-map/index.ts';
import { type DeviceState, type Mechanism, SEATED } from '../holds/index.ts';
import type { Op } from '../drafts/index.ts';

/**
 * Marks the operations of a plan with what a bench has to know: which part is the old one, and with which operation a part
 * is freed first, so that what is to be known of it is said in time. A part that was begun already is not marked again.
 */
export function marking(
  { map, part, holding, joint }: Mechanism,
  start: DeviceState,
  replaced: ReadonlySet<number>,
): (ops: readonly Op[]) => Op[] {
  const begun = new Set(
    map.parts.flatMap(({ id }, number) => {
      const undone = holding[number]!.some((each) => start.released[each] && !isSelfParting(map.joints[each]!));
      return undone || start.status[number] !== SEATED ? [id] : [];
    }),
  );
  return (ops) => {
    const free = new Set(begun);
    return ops.map((op) => {
      const isOld = op.kind === 'lift' && replaced.has(part.get(op.part!)!);
      const about =
        op.kind === 'release'
          ? map.joints[joint.get(op.joint!)!]!.holds
          : op.kind === 'open' || op.kind === 'lift'
            ? [op.part!]
            : [];
      const frees = about.filter((id) => !free.has(id));
      frees.forEach((id) => free.add(id));
      return { ...op, ...(isOld ? { isOld } : {}), ...(frees.length > 0 ? { frees } : {}) };
    });
  };
}
