import { type DeviceMap, fastenerAt, type Joint, type Part, renewalOf } from '../device-map/index.ts';
import { type Op, TEST_AFTER } from '../drafts/index.ts';
import { capital, plural } from './english.ts';
import { jointKind, partName } from './names.ts';

/** What to do, in the largest type, and what it is about. */
export interface OpWords {
  readonly title: string;
  readonly thing: string;
  readonly hint?: string;
}

export function opWords(map: DeviceMap, op: Op): OpWords {
  const joint = map.joints.find((each) => each.id === op.joint);
  if (op.kind === 'procedure') return procedureWords(map, op, joint);
  if (joint) return jointWords(map, op, joint);
  const part = map.parts.find((each) => each.id === op.part)!;
  const onto = op.onto ? `, onto ${partName(map, op.onto)}` : '';
  switch (op.kind) {
    case 'open':
      return {
        title: 'Open it',
        thing: part.name,
        hint: [openingWords(part), part.hint?.remove].filter(Boolean).join(' '),
      };
    case 'lift':
      // what swings open was told how when it was opened
      return { title: 'Lift it off', thing: part.name, hint: part.opens ? undefined : part.hint?.remove };
    case 'close':
      return { title: 'Close it', thing: part.name, hint: part.hint?.fit };
    default:
      return { title: op.isNew ? 'Fit the new one' : 'Fit it', thing: part.name + onto, hint: part.hint?.fit };
  }
}

/** The side that stays down, and how far. */
function openingWords({ opens }: Part): string {
  if (!opens) return '';
  const gap = opens.gap ? `, ${opens.gap} mm at most while it is tethered` : '';
  return `The ${opens.edge} edge stays down: open it toward there${gap}${opens.angle ? `; then it may stand at ${opens.angle}°` : ''}.`;
}

/** *4 mm to the right* */
export function slideWords({ dx, dy }: { readonly dx: number; readonly dy: number }): string {
  const ways = [
    ...(dx === 0 ? [] : [`${Math.abs(dx)} mm ${dx > 0 ? 'to the right' : 'to the left'}`]),
    ...(dy === 0 ? [] : [`${Math.abs(dy)} mm ${dy > 0 ? 'down' : 'up'}`]),
  ];
  return ways.join(' and ');
}

function jointWords(map: DeviceMap, op: Op, joint: Joint): OpWords {
  const thing = joint.holds.map((id) => partName(map, id)).join(' and ');
  const off = op.kind === 'release';
  const hint = off ? joint.hint?.release : joint.hint?.make;
  const said = (title: string) => ({ title, thing, hint: hint ?? joint.needs?.join(' ') });
  switch (joint.type) {
    case 'screw': {
      const captive = joint.points.every((each) => isCaptive(map, fastenerAt(joint, each)));
      const screws = plural(joint.points.length, 'screw');
      if (captive) return said(off ? `Loosen ${screws}, captive` : `Tighten ${screws}`);
      return said(off ? `Take out ${screws}` : `Put in ${screws}`);
    }
    case 'connector':
      return said(`${off ? CONNECTOR_OFF[joint.style] : CONNECTOR_ON[joint.style]}`);
    case 'bond':
      return said(off ? BOND_OFF[joint.style] : BOND_ON[joint.style]);
    case 'clip':
      if (off && joint.slide)
        return {
          ...said('Slide it out of its hooks'),
          hint: [`${capital(slideWords(joint.slide))}, then lift.`, hint].filter(Boolean).join(' '),
        };
      if (joint.eject) return said(off ? 'Push the tray out' : 'Push the tray in');
      return said(`${off ? 'Unclip' : 'Press home'} ${jointKind(joint)}`);
    case 'solder':
      return said(off ? 'Unsolder' : 'Solder');
    default:
      return said(jointKind(joint));
  }
}

const CONNECTOR_OFF = {
  press: 'Lever up the press connector',
  'zif-flip': 'Flip the latch, draw the flex out',
  'zif-slide': 'Slide the latch, draw the flex out',
  coax: 'Lift the coaxial snap straight up',
  plug: 'Draw out the plug',
  spring: 'Spring contact',
  blind: 'Blind plug',
} as const;

const CONNECTOR_ON = {
  press: 'Press the connector home',
  'zif-flip': 'Feed the flex in, close the latch',
  'zif-slide': 'Feed the flex in, slide the latch',
  coax: 'Press the coaxial snap home',
  plug: 'Push in the plug',
  spring: 'Spring contact',
  blind: 'Blind plug',
} as const;

const BOND_OFF = {
  perimeter: 'Cut the seal',
  pad: 'Lift the adhesive pad',
  tabs: 'Pull the tabs out',
  strap: 'Pull the straps up',
  tape: 'Peel the tape',
  thermal: 'Thermal material',
  gasket: 'Gasket',
} as const;

const BOND_ON = {
  perimeter: 'Bring the seal down',
  pad: 'Bring the pad down',
  tabs: 'Bring the adhesive down',
  strap: 'Bring the adhesive down',
  tape: 'Lay the tape back',
  thermal: 'Thermal material',
  gasket: 'Gasket',
} as const;

function isCaptive(map: DeviceMap, fastener: string): boolean {
  return map.fasteners.find((each) => each.id === fastener)?.captive ?? false;
}

function procedureWords(map: DeviceMap, op: Op, joint: Joint | undefined): OpWords {
  const part = op.part ? partName(map, op.part) : '';
  const bond = joint ? `${joint.holds.map((id) => partName(map, id)).join(' and ')}, ${jointKind(joint)}` : '';
  switch (op.name) {
    case 'power-off':
      return { title: 'Switch it off', thing: 'All the way, not to sleep', hint: map.procedures?.powerOff };
    case 'film':
      return part
        ? { title: 'Cover it with film', thing: part, hint: 'It stays covered while it is bare.' }
        : { title: 'Lay film over the glass', thing: 'Screen, windows and lenses' };
    case 'film-off':
      return part
        ? { title: 'Take the film off', thing: part, hint: 'Wipe it and look through it.' }
        : { title: 'Take the film off the glass', thing: 'Screen, windows and lenses' };
    case 'heat':
      return { title: 'Heat it', thing: bond, hint: op.tool ? `With the ${op.tool}.` : undefined };
    case 'soak':
      return {
        title: 'Let solvent soak in',
        thing: bond,
        hint: 'A few drops of high-strength alcohol along the bond.',
      };
    case 'vent':
      return { title: 'Air the bench', thing: 'Before any heat comes near it again' };
    case 'clean':
      return { title: 'Scrape off the old adhesive', thing: bond };
    case 'wipe':
      if (part)
        return { title: 'Wipe it and look through it', thing: part, hint: 'Once it is covered, dust stays in.' };
      return { title: 'Wipe it clean', thing: bond, hint: 'Alcohol on a lint-free cloth.' };
    case 'dry':
      return { title: 'Let it dry', thing: bond };
    case 'lay':
      return { ...layingWords(joint), thing: bond };
    case 'liner-off':
      return { title: 'Liner off', thing: bond, hint: 'Fingers off the adhesive; close it straight after.' };
    case 'tack':
      return {
        title: 'See whether it still sticks',
        thing: bond,
        hint: 'If it does, it stays. If not: scrape, wipe, stick on new tape.',
      };
    case 'press':
      return { title: 'Press it', thing: bond, hint: 'Flush all round; resistance means something is in the way.' };
    case 'cure':
      return { title: 'Let it cure', thing: bond };
    case 'count':
      return {
        title: 'Count',
        thing: part || 'Screws, films, liners, picks',
        hint: 'Nothing is left over that should be in. A look for metal at magnets.',
      };
    case 'renew':
      return {
        title: 'Put a new piece on',
        thing: part,
        hint: 'It is for one use: the old one stays on the old part.',
      };
    case 'power-on':
      return { title: 'Start it', thing: 'The first time', hint: map.procedures?.firstStart };
    case 'agree':
      return { title: 'Tell the owner', thing: 'And let the owner agree, before it is opened' };
    case 'run-down':
      return { title: 'Run the battery down', thing: 'Before a bond near the cell is cut' };
    case 'charge-up':
      return { title: 'Charge the battery', thing: 'Enough to try the result' };
    case 'prepare':
      return { title: 'Prepare the bench', thing: 'Kit, cautions, new parts' };
    case 'tape':
      return {
        title: 'Tape the cracks',
        thing: part,
        hint: 'Clear tape over the whole face, each strip over the last. It holds the splinters and gives a cup a surface.',
      };
    case 'tape-off':
      return { title: 'Take the tape off', thing: part, hint: 'Slowly, flat along the glass.' };
    case 'brush':
      return {
        title: 'Brush the crumbs out',
        thing: `The frame under ${part}`,
        hint: 'Glass crumbs out of every corner and off the rim, eyes covered. Lenses, pins and contacts are not touched.',
      };
    case 'true':
      return {
        title: 'Look at the rim, and true it',
        thing: `Where ${part} lies`,
        hint: 'A straight edge along each side; bend it back a little at a time. The panel has to drop in by itself.',
      };
    case 'look':
      return { title: 'Look before going on', thing: bond, hint: 'A lamp and a glass: cuts, dents, torn traces.' };
    case 'wash':
      return {
        title: 'Wash out the liquid',
        thing: 'Contact cleaner or high-strength alcohol',
        hint: 'Brush it out from under shields. Mark where corrosion is seen: it goes into the record.',
      };
    case 'air-dry':
      return {
        title: 'Let it dry',
        thing: 'In warm moving air',
        hint: 'Not on a plate and not by hot air: a cell was wet too.',
      };
    case 'try':
      return { title: 'Try it', thing: 'With a battery known to be good', hint: 'Then decide about the board.' };
    case 'transplant':
      return {
        title: 'Replace the cell inside',
        thing: part,
        hint: 'Only as the lead has allowed. Its checks are recorded here.',
      };
    default:
      return {
        title: op.id === TEST_AFTER ? 'Try everything' : 'Try it before sealing',
        thing: plural(op.functions?.length ?? 0, 'function'),
      };
  }
}

function layingWords(joint: Joint | undefined): Pick<OpWords, 'title' | 'hint'> {
  const renewal = joint?.type === 'bond' ? renewalOf(joint) : 'precut';
  if (renewal === 'liquid') return { title: 'Lay the new adhesive', hint: 'Thin and even; nothing where it was not.' };
  const what = joint?.type === 'bond' && joint.style === 'perimeter' ? 'seal' : 'adhesive';
  return { title: `Stick on the new ${what}, liner stays`, hint: 'As the old one ran, gaps where they were.' };
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
