import {
  type DeviceMap,
  isOuter,
  type Joint,
  jointById,
  type Part,
  partById,
  seenEdge,
  seenWay,
} from '../../model/device-map/index.ts';
import type { Op } from '../drafts/index.ts';
import { jointWords } from './joint-words.ts';
import { procedureWords } from './procedure-words.ts';
import { joined, type OpWords } from './sentences.ts';
import { toKnow } from './to-know.ts';
import { capital } from './english.ts';
import { partName } from './thing-names.ts';

export function opWords(map: DeviceMap, op: Op): OpWords {
  const joint = jointById(map, op.joint);
  if (op.kind === 'procedure') return procedureWords(map, op);
  if (joint) return withHint(map, op, joint);
  const part = partById(map, op.part)!;
  const name = partName(map, part.id);
  const onto = op.onto ? `, onto ${partName(map, op.onto)}` : '';
  switch (op.kind) {
    case 'open':
      return { title: 'Open it', thing: name, hint: joined(...openingWords(map, op, part), ...toKnow(map, op)) };
    case 'lift':
      return {
        title: op.isOld ? 'Lift the old one off' : 'Lift it off',
        thing: name,
        hint: joined(...toKnow(map, op)),
      };
    case 'close':
      return {
        title: isOuter(part) ? 'Close it' : 'Push it home',
        thing: name,
        hint: joined(...closingWords(map, op, part), ...toKnow(map, op), op.posture && part.hint?.fit),
      };
    default: {
      const which = op.isNew ? 'the new one' : 'it';
      const title =
        op.posture === 'stands'
          ? `Stand ${which} up`
          : op.posture === 'waits'
            ? `Lay ${which} in place`
            : `Fit ${which}`;
      return { title, thing: name + onto, hint: joined(...toKnow(map, op), fittingWords(op, part)) };
    }
  }
}

/** The hinge that it swings on, or the side that stays down, and how far. */
function openingWords({ joints }: DeviceMap, { posture }: Op, { id, opens, face }: Part): string[] {
  const hinge = joints.find((each) => each.type === 'hinge' && each.holds.includes(id));
  const swings = hinge?.type === 'hinge' ? [`It swings on its hinge at the ${seenEdge(hinge.edge, face)} edge.`] : [];
  if (!opens) return swings;
  const gap = opens.gap ? `, ${opens.gap} mm at most while it is tethered` : '';
  const stands = posture === 'stands' && opens.angle ? `; then it may stand at ${opens.angle}°, against a block` : '';
  return [...swings, `The ${seenEdge(opens.edge, face)} edge stays down: open it toward there${gap}${stands}.`];
}

/** What stays open is not lowered yet: how it closes is said when it closes. */
function fittingWords({ posture }: Op, { opens, face, hint }: Part): string | undefined {
  if (posture === 'stands' && opens) {
    const angle = opens.angle ? `, ${opens.angle}°` : '';
    return `On its ${seenEdge(opens.edge, face)} edge${angle}, against a block; do not lower it.`;
  }
  return posture === 'waits' ? 'It is plugged in and lies loose: do not press it down yet.' : hint?.fit;
}

/** The edge that stayed down goes down first. */
function closingWords(map: DeviceMap, { posture }: Op, part: Part): string[] {
  const { id, opens, face } = part;
  const hooked = map.joints.some((each) => each.type === 'clip' && each.slide && each.holds.includes(id));
  return [
    // what the ledger counts as standing on a block
    ...(posture === 'stands' ? ['Block away.'] : []),
    ...(opens && hooked ? [`Its ${seenEdge(opens.edge, face)} edge down first, then lower the rest.`] : []),
    ...(isOuter(part) ? ['If it resists: a bent clip, a flex beneath, a screw left. Lift it again.'] : []),
  ];
}

function withHint(map: DeviceMap, op: Op, joint: Joint): OpWords {
  const isOff = op.kind === 'release';
  const { off, on } = jointWords(map, joint.id);
  const own = isOff ? joint.hint?.release : joint.hint?.make;
  const hint = joined(slideHint(joint, isOff), ...toKnow(map, op), own ?? (isOff ? joint.needs?.join(' ') : undefined));
  return { ...(isOff ? off : on), ...(hint ? { hint } : {}) };
}

/** Out of its hooks, and back into them the other way. */
function slideHint(joint: Joint, isOff: boolean): string {
  if (joint.type !== 'clip' || !joint.slide) return '';
  const { dx, dy } = seenWay(joint.slide, joint.face);
  return isOff ? `${capital(slideWords({ dx, dy }))}, then lift.` : `Slide it ${slideWords({ dx: -dx, dy: -dy })}.`;
}

/** *4 mm to the right* */
export function slideWords({ dx, dy }: { readonly dx: number; readonly dy: number }): string {
  const ways = [
    ...(dx === 0 ? [] : [`${Math.abs(dx)} mm ${dx > 0 ? 'to the right' : 'to the left'}`]),
    ...(dy === 0 ? [] : [`${Math.abs(dy)} mm ${dy > 0 ? 'down' : 'up'}`]),
  ];
  return ways.join(' and ');
}

const GATES: readonly string[] = ['agree', 'run-down', 'charge-up', 'prepare'];

/** Is it settled in the preparation, before the device is touched? */
export function isGate(op: Op): boolean {
  return GATES.includes(op.name ?? '');
}

/** One line for lists: *Take out 4 screws · Connector lid* */
export function opLine(map: DeviceMap, op: Op): string {
  const { title, thing } = opWords(map, op);
  return `${title} · ${thing}`;
}
