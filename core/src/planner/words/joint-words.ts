import {
  type BondJoint,
  type ConnectorJoint,
  type DeviceMap,
  fastenerAt,
  isDecidedOnSight,
  type Joint,
  jointById,
  partById,
  renewalOf,
} from '../../model/device-map/index.ts';
import { capital, plural, lower } from './english.ts';
import { partName, thingName } from './thing-names.ts';
import { placeOfJoint, placeWords } from './places.ts';

/** What undoing and making a joint is called: what to do, and at what. No two joints of a map are called the same. */
export interface JointWords {
  readonly off: Said;
  readonly on: Said;
  /** what tells it from its like, to be said after its name; empty where nothing is like it */
  readonly which: string;
}

interface Said {
  readonly title: string;
  readonly thing: string;
}

const known = new WeakMap<DeviceMap, ReadonlyMap<string, JointWords>>();

export function jointWords(map: DeviceMap, id: string): JointWords {
  const all = known.get(map) ?? allOf(map);
  known.set(map, all);
  return all.get(id)!;
}

function allOf(map: DeviceMap): ReadonlyMap<string, JointWords> {
  const plain = map.joints.map((joint) => ({ joint, off: offOf(map, joint), on: onOf(map, joint) }));
  const isSaid = (a: Said, b: Said) => a.title === b.title && a.thing === b.thing;
  return new Map(
    plain.map((each) => {
      const like = plain
        .filter((other) => isSaid(other.off, each.off) || isSaid(other.on, each.on))
        .map(({ joint }) => joint);
      const which = like.length > 1 ? tellingApart(map, each.joint, like) : '';
      const said = ({ title, thing }: Said) => ({ title, thing: which ? `${thing}, ${which}` : thing });
      return [each.joint.id, { off: said(each.off), on: said(each.on), which }];
    }),
  );
}

/** By what it goes to, else by its screws, else by where it is, else by a number. */
function tellingApart(map: DeviceMap, joint: Joint, like: readonly Joint[]): string {
  const ways: readonly ((each: Joint) => string)[] = [
    (each) => `at ${partName(map, each.to)}`,
    (each) => lengthsOf(map, each),
    (each) => placeWords(map, placeOfJoint(map, each), each.face),
  ];
  const found = ways.find((way) => new Set(like.map(way)).size === like.length);
  return found ? found(joint) : `${like.indexOf(joint) + 1} of ${like.length}`;
}

/** *3.4 mm*, *stand-offs 2.5 mm* */
function lengthsOf(map: DeviceMap, joint: Joint): string {
  if (joint.type !== 'screw') return '';
  const kinds = [...new Set(joint.points.map((each) => fastenerAt(joint, each)))];
  return kinds
    .map((id) => {
      const { length, drive } = map.fasteners.find((each) => each.id === id)!;
      return `${/stand-off/i.test(drive) ? 'stand-offs ' : ''}${length} mm`;
    })
    .join(', ');
}

function held(map: DeviceMap, { holds }: Joint): string {
  return holds.map((id) => partName(map, id)).join(' and ');
}

function offOf(map: DeviceMap, joint: Joint): Said {
  const thing = held(map, joint);
  switch (joint.type) {
    case 'screw': {
      const screws = plural(joint.points.length, 'screw');
      return { title: isCaptive(map, joint) ? `Loosen ${screws}, captive` : `Take out ${screws}`, thing };
    }
    case 'connector':
      return joint.style === 'coax'
        ? { title: `${capital(coaxName(map, joint))} off`, thing: MOTION_OFF.coax }
        : { title: `Unplug the ${plugName(map, joint)}`, thing: MOTION_OFF[joint.style] };
    case 'bond':
      return { title: BOND_OFF[joint.style], thing };
    case 'clip':
      if (joint.slide) return { title: 'Slide it out of its hooks', thing };
      if (joint.eject) return { title: 'Push the tray out', thing };
      return { title: `Unclip ${(joint.points?.length ?? 1) === 1 ? 'it' : clips(joint.points!.length)}`, thing };
    case 'solder':
      return { title: 'Unsolder', thing };
    case 'hinge':
      return { title: 'Hinge', thing };
    case 'seat':
      return { title: 'Seat', thing };
  }
}

function onOf(map: DeviceMap, joint: Joint): Said {
  const thing = held(map, joint);
  switch (joint.type) {
    case 'screw':
      return {
        title: `${isCaptive(map, joint) ? 'Tighten' : 'Put in'} ${plural(joint.points.length, 'screw')}`,
        thing,
      };
    case 'connector':
      return joint.style === 'coax'
        ? { title: `${capital(coaxName(map, joint))} on`, thing: MOTION_ON.coax }
        : { title: `Plug in the ${plugName(map, joint)}`, thing: MOTION_ON[joint.style] };
    case 'bond':
      // only what may be kept is laid back
      return { title: joint.style === 'tape' && isKept(joint) ? 'Lay the tape back' : 'Press it on', thing };
    case 'clip':
      if (joint.slide) return { title: 'Hook it in', thing };
      if (joint.eject) return { title: 'Push the tray in', thing };
      return { title: `Press ${clips(joint.points?.length ?? 1)} home`, thing };
    case 'solder':
      return { title: 'Solder', thing };
    case 'hinge':
      return { title: 'Hinge', thing };
    case 'seat':
      return { title: 'Seat', thing };
  }
}

function isKept(bond: BondJoint): boolean {
  return isDecidedOnSight(bond) || renewalOf(bond) === 'reuse';
}

function clips(count: number): string {
  return count === 1 ? 'the clip' : `${count} clips`;
}

function isCaptive(map: DeviceMap, joint: Joint & { type: 'screw' }): boolean {
  return joint.points.every((each) => map.fasteners.find(({ id }) => id === fastenerAt(joint, each))?.captive ?? false);
}

/**
 * A plug by what it serves: the battery, a lead or flex by its name, a part by its own, and where one part has several
 * plugs each by its function.
 */
function plugName(map: DeviceMap, joint: ConnectorJoint): string {
  const parts = joint.holds.map((id) => partById(map, id)!);
  const cells = map.parts.filter((each) => each.kind === 'battery');
  if (cells.length === 1 && parts.some(({ id }) => id === cells[0]!.id)) return 'battery';
  const name = parts.map((each) => lower(each.name)).join(' and ');
  const own = map.joints.filter(
    (each) => each.type === 'connector' && !isLoose(each) && each.holds.join() === joint.holds.join(),
  );
  if (own.length < 2 || isRun(parts[0]?.kind)) return name;
  // by the first function that its neighbours do not serve as well
  const isShared = (id: string) =>
    own.some((each) => each !== joint && 'functions' in each && each.functions?.includes(id));
  const serves = joint.functions?.find((id) => !isShared(id));
  const said = map.functions.find(({ id }) => id === serves)?.name;
  return said === undefined ? name : `${lower(said)} flex`;
}

/** *Headset jack plug*, *left coax*: a plug as people name it. */
export function plugWords(map: DeviceMap, joint: ConnectorJoint): string {
  if (joint.style === 'coax') return coaxName(map, joint);
  const name = plugName(map, joint);
  return /(flex|lead|plug)$/.test(name) ? name : `${name} plug`;
}

/** A part, or a plug as people tell it from its neighbour, in the middle of a sentence. */
export function spokenName(map: DeviceMap, id: string): string {
  const joint = jointById(map, id);
  return joint?.type === 'connector' ? `the ${plugWords(map, joint)}` : thingName(map, id);
}

/** A coax is off or on, never what it hangs on: *left coax*, by its lead where it has one. */
function coaxName(map: DeviceMap, joint: ConnectorJoint): string {
  const ends = [...joint.holds, joint.to].map((id) => partById(map, id)!);
  const own = ends.find(({ kind }) => kind === 'lead' || kind === 'antenna') ?? ends[0]!;
  const plain = lower(own.name).replace(/ ?(lead|cable|coax)$/i, '');
  return `${plain.replace(/ antenna$/i, '')} coax`.trim();
}

function isLoose({ style }: ConnectorJoint): boolean {
  return style === 'spring' || style === 'blind';
}

/** A lead or flex of its own has two ends and is called by its name. */
function isRun(kind: string | undefined): boolean {
  return kind === 'lead' || kind === 'flex' || kind === 'antenna';
}

/** *Display* is a display; *USB module* stays as it is. */

const MOTION_OFF = {
  press: 'Lever it straight up at its edge',
  'zif-flip': 'Flip the latch up, draw the flex out',
  'zif-slide': 'Slide the latch out, draw the flex out',
  coax: 'Straight up, no twisting',
  plug: 'Draw it out by the plug',
  spring: 'Spring contact',
  blind: 'Blind plug',
} as const;

const MOTION_ON = {
  press: 'Line it up, press it home straight: it clicks',
  'zif-flip': 'Feed the flex in, latch down',
  'zif-slide': 'Feed the flex in, slide the latch home',
  coax: 'Line it up, press straight down: it snaps',
  plug: 'Push it in by the plug',
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
