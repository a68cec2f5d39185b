import { type DeviceMap, fastenerAt, type Joint } from '@nibrel/core/device-map';
import { jointKind, type Op, partName } from '@nibrel/core/plan';
import { plural } from '../app/format.ts';

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
      return { title: 'Open it', thing: part.name, hint: part.hint?.remove };
    case 'lift':
      // what swings open was told how when it was opened
      return { title: 'Lift it off', thing: part.name, hint: part.opens ? undefined : part.hint?.remove };
    case 'close':
      return { title: 'Close it', thing: part.name, hint: part.hint?.fit };
    default:
      return { title: op.isNew ? 'Fit the new one' : 'Fit it', thing: part.name + onto, hint: part.hint?.fit };
  }
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
      return { title: 'Take the film off', thing: part, hint: 'Wipe it and look through it.' };
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
      return { title: 'Scrape and wipe clean', thing: bond, hint: 'Alcohol on a lint-free cloth.' };
    case 'dry':
      return { title: 'Let it dry', thing: bond };
    case 'lay':
      return {
        title: 'Lay the new bond',
        thing: bond,
        hint: 'As the old one ran, gaps where they were. Liner off last.',
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
    default:
      return {
        title: op.id === 'test:after' ? 'Try everything' : 'Try it before sealing',
        thing: plural(op.functions?.length ?? 0, 'function'),
      };
  }
}

/** One line for lists: *Take out 4 screws · Connector lid* */
export function opLine(map: DeviceMap, op: Op): string {
  const { title, thing } = opWords(map, op);
  return `${title} · ${thing}`;
}
