import { Refusal, wrong } from '../../model/refusal/index.ts';
import { type DeviceMap, type Joint, type UnderEntry, isSelfParting, isTether } from '../../model/device-map/index.ts';

/** An `under` entry with its ids looked up. */
export type Wait =
  { readonly part: number; readonly until: 'open' | 'off' } | { readonly joint: number; readonly part?: undefined };

/**
 * A device map prepared for asking what holds what: parts and joints by number, with their ties both ways.
 * Build it once for a checked map; it never changes.
 */
export interface Mechanism {
  readonly map: DeviceMap;
  readonly part: ReadonlyMap<string, number>;
  readonly joint: ReadonlyMap<string, number>;
  readonly base: number;
  /** joint → the parts it holds; joint → the part they are held to; joint → all of these */
  readonly held: readonly (readonly number[])[];
  readonly to: readonly number[];
  readonly ends: readonly (readonly number[])[];
  /** part → the joints that hold it; part → every joint with an end on it */
  readonly holding: readonly (readonly number[])[];
  readonly touching: readonly (readonly number[])[];
  readonly jointUnder: readonly (readonly Wait[])[];
  readonly partUnder: readonly (readonly Wait[])[];
  readonly selfParting: readonly boolean[];
  readonly tether: readonly boolean[];
  /** joint → false where it has no release operation (hinges and what parts by itself) */
  readonly releasable: readonly boolean[];
  readonly isolation: Isolation;
}

/** What makes the device dead. `battery` is −1 where there is none: then nothing asks for isolation. */
interface Isolation {
  readonly battery: number;
  readonly cells: readonly number[];
  readonly alone: readonly number[];
  readonly jointly: readonly number[];
  /** joint → true where it is released only while the device is dead */
  readonly asked: readonly boolean[];
}

/** @param map a map that `checkDeviceMap` accepts; unknown ids throw a Refusal that names them. */
export function mechanismOf(map: DeviceMap): Mechanism {
  const part = new Map(map.parts.map((each, index) => [each.id, index]));
  const joint = new Map(map.joints.map((each, index) => [each.id, index]));
  const partAt = (id: string) => lookUp(part, id, 'part');
  const wait = (entry: UnderEntry): Wait =>
    'joint' in entry && entry.joint !== undefined
      ? { joint: lookUp(joint, entry.joint, 'joint') }
      : { part: partAt((entry as { part: string }).part), until: (entry as { until: 'open' | 'off' }).until };

  const held = map.joints.map((each) => each.holds.map(partAt));
  const to = map.joints.map((each) => partAt(each.to));
  const ends = held.map((parts, index) => [...parts, to[index]!]);
  const holding: number[][] = map.parts.map(() => []);
  const touching: number[][] = map.parts.map(() => []);
  held.forEach((parts, index) => parts.forEach((each) => holding[each]!.push(index)));
  ends.forEach((parts, index) => new Set(parts).forEach((each) => touching[each]!.push(index)));
  const selfParting = map.joints.map(isSelfParting);

  return {
    map,
    part,
    joint,
    base: map.parts.findIndex((each) => each.base),
    held,
    to,
    ends,
    holding,
    touching,
    jointUnder: map.joints.map((each) => (each.under ?? []).map(wait)),
    partUnder: map.parts.map((each) => (each.under ?? []).map(wait)),
    selfParting,
    tether: map.joints.map(isTether),
    releasable: map.joints.map((each, index) => each.type !== 'hinge' && !selfParting[index]),
    isolation: isolationOf(map, partAt, held, selfParting),
  };
}

function isolationOf(
  map: DeviceMap,
  partAt: (id: string) => number,
  held: readonly (readonly number[])[],
  selfParting: readonly boolean[],
): Isolation {
  if (!map.battery) {
    return { battery: -1, cells: [], alone: [], jointly: [], asked: map.joints.map(() => false) };
  }
  const battery = partAt(map.battery.part);
  const cells = map.parts.flatMap((each, index) => (each.kind === 'battery' || index === battery ? [index] : []));
  const isolating = (index: number) => {
    const each = map.joints[index]!;
    return each.type === 'connector' && !selfParting[index] && each.isolates ? each.isolates : false;
  };
  const numbers = map.joints.map((_, index) => index);
  const alone = numbers.filter((index) => isolating(index) === 'alone');
  const jointly = numbers.filter((index) => isolating(index) === true);
  const byJoint = alone.length + jointly.length > 0;
  const holdsCell = (index: number) => held[index]!.some((each) => cells.includes(each));
  const asks = (each: Joint, index: number) => {
    if (selfParting[index] || isolating(index)) return false;
    switch (each.type) {
      case 'connector':
      case 'solder':
        return byJoint || !held[index]!.includes(battery);
      case 'screw':
      case 'bond':
      case 'clip':
        return byJoint && holdsCell(index);
      default:
        return false;
    }
  };
  return { battery, cells, alone, jointly, asked: map.joints.map(asks) };
}

function lookUp(ids: ReadonlyMap<string, number>, id: string, what: string): number {
  const found = ids.get(id);
  if (found === undefined) throw new Refusal(wrong('', `There is no ${what} "${id}" in this map.`));
  return found;
}
