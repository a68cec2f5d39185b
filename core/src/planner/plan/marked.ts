import { isSelfParting } from '../../model/device-map/index.ts';
import { assembled, carried, type DeviceState, type Mechanism, SEATED } from '../holds/index.ts';
import type { Op } from '../drafts/index.ts';

/**
 * Marks the operations of a plan with what a bench has to know: which part is the old one, where a part is pried first,
 * with which operation it is first moved, and what is easily overlooked and has to be off by then. A part that was begun
 * already is not marked again.
 */
export function marking(
  mechanism: Mechanism,
  start: DeviceState,
  replaced: ReadonlySet<number>,
): (ops: readonly Op[]) => Op[] {
  const { map, part, holding, joint } = mechanism;
  const moved = map.parts.flatMap(({ id }, number) => (start.status[number] === SEATED ? [] : [id]));
  const begun = map.parts.flatMap(({ id }, number) =>
    holding[number]!.some((each) => start.released[each] && !isSelfParting(map.joints[each]!)) ? [id] : [],
  );
  return (ops) => {
    const free = new Set(moved);
    const pried = new Set([...moved, ...begun]);
    const asked = new Set<string>();
    return ops.map((op) => {
      const isOld = op.kind === 'lift' && replaced.has(part.get(op.part!)!);
      const own = op.kind === 'open' || op.kind === 'lift' ? [op.part!] : [];
      const held = map.joints[joint.get(op.joint ?? '') ?? -1];
      // where a cut begins is a matter of its edges
      const isCut = held?.type === 'bond' && (held.segments ?? []).some(({ depth }) => depth !== undefined);
      const isPry = op.kind === 'release' && !isCut && (held?.type === 'bond' || held?.type === 'clip');
      const frees = own.filter((id) => !free.has(id));
      const pries = [...own, ...(isPry ? held.holds : [])].filter((id) => !pried.has(id));
      const asks = frees.flatMap((id) => overlookedAt(mechanism, part.get(id)!)).filter((id) => !asked.has(id));
      frees.forEach((id) => free.add(id));
      pries.forEach((id) => pried.add(id));
      asks.forEach((id) => asked.add(id));
      const some = (name: 'frees' | 'pries' | 'asks', ids: readonly string[]) =>
        ids.length > 0 ? { [name]: ids } : {};
      return {
        ...op,
        ...(isOld ? { isOld } : {}),
        ...some('frees', frees),
        ...some('pries', pries),
        ...some('asks', asks),
      };
    });
  };
}

/** What is easily overlooked and ties a part that is moved, by its plug, else by name: coax, overlooked parts, trays. */
function overlookedAt(mechanism: Mechanism, moved: number): string[] {
  const { map, touching, ends, partUnder } = mechanism;
  const along = carried(mechanism, assembled(mechanism), moved);
  const isOverlooked = (part: number) => !along.has(part) && map.parts[part]!.hazards?.includes('overlooked') === true;
  const plugs = [...new Set([...along].flatMap((part) => touching[part]!))].flatMap((number) => {
    const joint = map.joints[number]!;
    const others = ends[number]!.filter((part) => !along.has(part));
    if (isSelfParting(joint) || others.length === 0) return [];
    if (joint.type === 'connector') {
      return joint.style === 'coax' || ends[number]!.some(isOverlooked) ? [joint.id] : [];
    }
    return others.filter(isOverlooked).map((part) => map.parts[part]!.id);
  });
  const trays = partUnder[moved]!.flatMap(({ part }) =>
    part !== undefined && map.parts[part]!.kind === 'tray' ? [map.parts[part]!.id] : [],
  );
  return [...new Set([...plugs, ...trays])];
}
