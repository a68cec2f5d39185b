import { isOuter, jointById, partById } from '../../model/device-map/index.ts';
import { assembled, carried, type Mechanism } from '../holds/index.ts';
import type { Op } from '../drafts/index.ts';

/**
 * How what swings open is kept: it stands on its block while a plug ties it to the device and work goes on beneath; what
 * has no block lies in place until it is pressed down. What nothing ties is neither: it comes off, or goes on, in one.
 */
export function withPostures(mechanism: Mechanism, ops: readonly Op[]): Op[] {
  const kept = new Map<string, Op['posture']>();
  return ops.map((op, at) => {
    if (op.name === 'liner-off' && isDownBefore(mechanism, ops.slice(0, at), op)) return { ...op, posture: 'waits' };
    const part = partById(mechanism.map, op.part);
    if (!part) return op;
    const until = (kinds: readonly Op['kind'][]) => {
      const end = ops.findIndex((each, later) => later > at && each.part === part.id && kinds.includes(each.kind));
      return ops.slice(at + 1, end < 0 ? undefined : end);
    };
    const inPosture = (posture: Op['posture']): Op => {
      kept.set(part.id, posture);
      return posture ? { ...op, posture } : op;
    };
    switch (op.kind) {
      case 'open': {
        const stands = isOuter(part) && part.opens && ties(mechanism, part.id).size > 0;
        return inPosture(stands && until(['lift', 'close']).some(isWork) ? 'stands' : undefined);
      }
      case 'fit': {
        const beneath = isOuter(part) && op.staysOpen ? until(['close']) : [];
        const isPlugged = beneath.some(({ kind, joint }) => kind === 'make' && ties(mechanism, part.id).has(joint!));
        return inPosture(isPlugged ? (part.opens ? 'stands' : 'waits') : undefined);
      }
      case 'close': {
        if (kept.has(part.id)) return inPosture(kept.get(part.id));
        // it was open before this plan was made
        const stood = isOuter(part) && part.opens && ties(mechanism, part.id).size > 0;
        return inPosture(stood ? 'stands' : 'waits');
      }
      default:
        return op;
    }
  });
}

/** Does a part lie on its liner by then, closed before its bond is made? */
function isDownBefore({ map }: Mechanism, before: readonly Op[], { joint: id }: Op): boolean {
  const held = jointById(map, id)?.holds ?? [];
  return before.some(
    ({ kind, part, staysOpen }) => (kind === 'close' || (kind === 'fit' && !staysOpen)) && held.includes(part!),
  );
}

function isWork({ kind }: Op): boolean {
  return kind !== 'procedure';
}

/** Plugs, solder and hinges that tie a part, with what it carries, to the rest. */
function ties(mechanism: Mechanism, id: string): ReadonlySet<string> {
  const { map, part, touching, ends, tether, selfParting } = mechanism;
  const along = carried(mechanism, assembled(mechanism), part.get(id)!);
  const joints = [...along].flatMap((each) => touching[each]!);
  const isTie = (joint: number) => tether[joint] && !selfParting[joint] && ends[joint]!.some((end) => !along.has(end));
  return new Set(joints.filter(isTie).map((joint) => map.joints[joint]!.id));
}
