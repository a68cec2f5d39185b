import { leansOn } from './guess-words.ts';
import { type DeviceMap, jointById, partById } from '../../model/device-map/index.ts';
import type { Op } from '../drafts/index.ts';
import { whyProcedure } from './procedure-words.ts';
import { heldName, jointKind, partName } from './thing-names.ts';

/**
 * Why an operation is done, in one short sentence, as one technician says it to another. The long form stands in the
 * operation itself.
 * @param serves what it is done for, where that is ahead as well
 */
export function whyNow(map: DeviceMap, op: Op, serves: Op | undefined): string {
  return [whyAsMapped(map, op, serves), leansOn(map, op)].filter(Boolean).join(' ');
}

function whyAsMapped(map: DeviceMap, op: Op, serves: Op | undefined): string {
  switch (op.kind) {
    case 'procedure':
      return whyProcedure(map, op);
    case 'release':
      return whyReleased(map, op, serves);
    case 'open':
    case 'lift':
      return whyOff(map, op, serves);
    case 'fit':
      return op.isNew ? 'The new one goes in.' : op.stage === 'move' ? 'It moves over.' : 'It goes back where it was.';
    case 'close':
      return 'All beneath it is back.';
    case 'make':
      return whyMade(map, op);
  }
}

function whyReleased(map: DeviceMap, op: Op, serves: Op | undefined): string {
  const joint = jointById(map, op.joint);
  if (op.lead)
    return op.lead.nth < op.lead.of ? `${op.lead.nth} of ${op.lead.of} leads: still live.` : 'Dead from here on.';
  if (!joint) return '';
  if (!serves) return `It holds ${heldName(map, joint)}.`;
  const holds = serves.part !== undefined && joint.holds.includes(serves.part);
  // what a part carries is unplugged for it as well
  const isTether = (joint.type === 'connector' || joint.type === 'solder') && serves.kind === 'lift';
  if (!holds && !isTether) return inTheWay(map, 'It is in the way of', op, serves);
  const name = partName(map, serves.part!);
  return isTether ? `${name} still hangs on it.` : `It holds ${name}.`;
}

function whyOff(map: DeviceMap, op: Op, serves: Op | undefined): string {
  if (op.isOld) return 'A new one goes in for it.';
  if (op.stage === 'move') return 'It moves over to the new part.';
  // what is opened to be lifted lies over nothing
  if (!serves || serves.part === op.part) return 'It comes off.';
  return inTheWay(map, 'It lies over', op, serves);
}

function whyMade(map: DeviceMap, op: Op): string {
  const joint = jointById(map, op.joint)!;
  const held = heldName(map, joint);
  if (joint.type !== 'connector') return `It holds ${held}.`;
  const serves = (joint.functions ?? []).flatMap((id) => map.functions.find((each) => each.id === id)?.name ?? []);
  const what = serves.length > 0 ? serves.join(', ') : held;
  // a latch and a plug are pushed home without one
  return joint.style === 'press' || joint.style === 'coax' ? `${what}: listen for its click.` : `For ${what}.`;
}

/** What an operation is in the way of, with what the map notes of it. */
function inTheWay(map: DeviceMap, how: string, op: Op, { joint: id, part }: Op): string {
  const joint = jointById(map, id);
  const thing = joint ?? partById(map, part);
  const own = thing?.under?.find((entry) => ('part' in entry ? entry.part === op.part : entry.joint === op.joint));
  const note = own?.note ? ` ${own.note}` : '';
  if (joint) {
    const held = joint.holds.map((each) => partName(map, each)).join(' and ');
    return `${how} the ${jointKind(joint)} of ${held}.${note}`;
  }
  return part === undefined ? 'It comes off.' : `${how} ${partName(map, part)}.${note}`;
}
