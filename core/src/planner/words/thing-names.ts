import { type DeviceMap, type Joint, jointById } from '../../model/device-map/index.ts';
import { lower } from './english.ts';
import { placeWords } from './places.ts';

/** Names for the eye: a map gives parts a name and joints only an id. */

const BONDS = {
  perimeter: 'seal',
  pad: 'adhesive pad',
  tabs: 'pull tabs',
  strap: 'strap',
  tape: 'tape',
  thermal: 'thermal material',
  gasket: 'gasket',
} as const;

const CONNECTORS = {
  press: 'press connector',
  'zif-flip': 'ZIF latch (flip)',
  'zif-slide': 'ZIF latch (slide)',
  coax: 'coaxial snap',
  plug: 'plug',
  spring: 'spring contact',
  blind: 'blind plug',
} as const;

/** The name of a part; where several are called the same, with the place of each. */
export function partName(map: DeviceMap, id: string): string {
  const names = known.get(map) ?? namesOf(map);
  known.set(map, names);
  return names.get(id) ?? id;
}

const known = new WeakMap<DeviceMap, ReadonlyMap<string, string>>();

function namesOf(map: DeviceMap): ReadonlyMap<string, string> {
  return new Map(
    map.parts.map((part) => {
      const { id, name } = part;
      const like = map.parts.filter((each) => each.name === name);
      if (like.length === 1) return [id, name];
      const place = ({ box, face }: (typeof like)[number]) =>
        placeWords(map, { x: box.x + box.w / 2, y: box.y + box.h / 2 }, face);
      const own = place(part);
      const isAlone = like.filter((each) => place(each) === own).length === 1;
      return [id, isAlone ? `${name}, ${own}` : `${name} ${like.findIndex((each) => each.id === id) + 1}`];
    }),
  );
}

/** *Camera and Lamp flex*: what a joint holds, by its id or itself; an id that the map has not stays as it is. */
export function heldName(map: DeviceMap, joint: string | Pick<Joint, 'holds'>): string {
  const found = typeof joint === 'string' ? jointById(map, joint) : joint;
  return found ? found.holds.map((id) => partName(map, id)).join(' and ') : (joint as string);
}

/** *display seal*, *camera and lamp flex adhesive pad*: a bond in the middle of a sentence. */
export function bondName(map: DeviceMap, joint: Joint): string {
  return `${joint.holds.map((id) => lower(partName(map, id))).join(' and ')} ${jointKind(joint)}`;
}

/** *Connector lid: 3 screws*, *Display: press connector to Main board* */
export function jointName(map: DeviceMap, joint: Joint): string {
  return `${heldName(map, joint)}: ${jointKind(joint)}${joint.type === 'connector' ? ` to ${partName(map, joint.to)}` : ''}`;
}

export function jointKind(joint: Joint): string {
  switch (joint.type) {
    case 'screw':
      return joint.points.length === 1 ? '1 screw' : `${joint.points.length} screws`;
    case 'connector':
      return CONNECTORS[joint.style];
    case 'bond':
      return BONDS[joint.style];
    case 'clip': {
      const count = joint.points?.length ?? 1;
      return joint.eject ? 'tray lock' : count === 1 ? 'clip' : `${count} clips`;
    }
    case 'solder':
      return 'solder';
    case 'hinge':
    case 'seat':
      return joint.type;
  }
}

/** The name of a function; an id that the map has not stays as it is. */
export function functionName({ functions }: Pick<DeviceMap, 'functions'>, id: string): string {
  return functions.find((each) => each.id === id)?.name ?? id;
}

/** The name of a part or joint by its id. */
export function thingName(map: DeviceMap, id: string): string {
  const joint = jointById(map, id);
  return joint ? jointName(map, joint) : partName(map, id);
}
