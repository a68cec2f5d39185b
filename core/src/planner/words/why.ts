import type { DeviceMap } from '../../model/device-map/index.ts';
import type { Op } from '../drafts/index.ts';
import { heldName, jointKind, partName } from './thing-names.ts';

/**
 * Why an operation is done, in one short sentence, as one technician says it to another. The long form stands in the
 * operation itself.
 * @param serves what it is done for, where that is ahead as well
 */
export function whyNow(map: DeviceMap, op: Op, serves: Op | undefined): string {
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

function whyProcedure({ joints }: DeviceMap, { name, part, joint: id }: Op): string {
  const bond = joints.find((each) => each.id === id);
  const isPaste = bond?.type === 'bond' && bond.style === 'thermal';
  if (isPaste && (name === 'clean' || name === 'wipe' || name === 'dry' || name === 'lay')) return PASTE[name];
  if (name === 'film-off' && part === undefined) return 'What was put on comes off.';
  // a lens, not the face that a bond is laid on
  if (name === 'wipe' && part !== undefined) return 'It is covered next.';
  return PROCEDURES[name!];
}

function whyReleased(map: DeviceMap, op: Op, serves: Op | undefined): string {
  const joint = map.joints.find(({ id }) => id === op.joint);
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
  const joint = map.joints.find(({ id }) => id === op.joint)!;
  const held = heldName(map, joint);
  if (joint.type !== 'connector') return `It holds ${held}.`;
  const serves = (joint.functions ?? []).flatMap((id) => map.functions.find((each) => each.id === id)?.name ?? []);
  const what = serves.length > 0 ? serves.join(', ') : held;
  // a latch and a plug are pushed home without one
  return joint.style === 'press' || joint.style === 'coax' ? `${what}: listen for its click.` : `For ${what}.`;
}

/** What an operation is in the way of, with what the map notes of it. */
function inTheWay(map: DeviceMap, how: string, op: Op, { joint: id, part }: Op): string {
  const joint = map.joints.find((each) => each.id === id);
  const thing = joint ?? map.parts.find((each) => each.id === part);
  const own = thing?.under?.find((entry) => ('part' in entry ? entry.part === op.part : entry.joint === op.joint));
  const note = own?.note ? ` ${own.note}` : '';
  if (joint) {
    const held = joint.holds.map((each) => partName(map, each)).join(' and ');
    return `${how} the ${jointKind(joint)} of ${held}.${note}`;
  }
  return part === undefined ? 'It comes off.' : `${how} ${partName(map, part)}.${note}`;
}

/** What carries heat does not have to stick. */
const PASTE = {
  clean: 'Old paste beneath the new keeps the heat in.',
  wipe: 'A clean face takes the heat over.',
  dry: 'Alcohol thins the new paste.',
  lay: 'Without it the heat stays where it arises.',
} as const;

const PROCEDURES: Readonly<Record<NonNullable<Op['name']>, string>> = {
  compare: 'What stayed on the old part is missed when it is closed.',
  'bend-aside': 'A flex that springs back makes it live again.',
  'press-home': 'A plug that is not seated explains it.',
  renew: 'The old one is spent.',
  transplant: 'The pack keeps its own board.',
  agree: 'Nothing is opened that the owner has not agreed to.',
  'run-down': 'A cell that is nearly empty burns less.',
  'charge-up': 'A test needs power.',
  prepare: 'A tool that is missing half way costs the job.',
  tape: 'It holds the splinters.',
  'tape-off': 'What was put on comes off.',
  brush: 'Crumbs break the next panel.',
  true: 'A panel that is forced breaks a week later.',
  look: 'What was cut too deep is seen now.',
  wash: 'Liquid goes on eating.',
  'air-dry': 'Wet, it shorts.',
  try: 'Then it is decided.',
  'power-off': 'Nothing is opened while it runs.',
  film: 'It keeps the glass whole and clean.',
  'film-off': 'Left on, it would be sealed in.',
  heat: 'Soft first: no force on glass.',
  soak: 'It lets go by itself, given time.',
  vent: 'Vapour and heat never meet.',
  clean: 'Old adhesive keeps the new from sticking.',
  wipe: 'A clean face sticks.',
  dry: 'Wet, it does not stick.',
  lay: 'It goes on while the frame is bare.',
  'liner-off': 'Straight before it goes down.',
  press: 'It bonds under pressure.',
  cure: 'It bonds with time.',
  count: 'A screw that lies inside shorts it.',
  'power-on': 'The first start, while it can still be reached.',
  test: 'Before anybody else finds out.',
  'read-battery': 'A cell that is not what it says is not sealed in.',
  charge: 'A reset refuses to run on a cell that is nearly empty.',
  reset: 'A board brings its own accounts and settings.',
  inspect: 'What fails here is renewed, not sealed in.',
  'take-up': 'All that came off goes onto it.',
  'take-off': 'It lies over what comes next.',
  'put-back': 'It was there.',
  tack: 'What still sticks is kept.',
};
