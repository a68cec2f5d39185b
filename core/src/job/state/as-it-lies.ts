import type { BondJoint, BondStack, DeviceMap } from '../../model/device-map/index.ts';
import { POUCH_CELL } from '../../physics/heat/index.ts';
import { type DeviceState, OFF } from '../../planner/holds/index.ts';

/** A bond where it lies now, and the map with what lies there with it. */
export interface LyingBond {
  readonly map: DeviceMap;
  readonly bond: BondJoint;
  /** on the mat, away from the base: nothing of the device lies beneath it */
  readonly isOnMat: boolean;
}

const known = new WeakMap<BondJoint, Map<string, LyingBond>>();

/**
 * What heat on a bond goes through now: a cell that is out, or lies elsewhere, is not in it, and what was lifted away with
 * its host has nothing of the device beneath it.
 */
export function asItLies(map: DeviceMap, device: DeviceState, bond: BondJoint): LyingBond {
  const at = (id: string) => device.group[map.parts.findIndex((part) => part.id === id)];
  const group = at(bond.to);
  const isAway = (index: number) => device.group[index] !== group || (device.status[index] === OFF && index !== group);
  const away = map.parts.filter(({ hazards }, index) => hazards?.includes('lithium') && isAway(index));
  const isOnMat = !map.parts.some(({ id, base }) => base && at(id) === group);
  if (away.length === 0 && !isOnMat) return { map, bond, isOnMat };
  const all = known.get(bond) ?? new Map<string, LyingBond>();
  known.set(bond, all);
  const key = `${isOnMat} ${away.map(({ id }) => id).join()}`;
  const lying = all.get(key) ?? lyingWithout(map, bond, new Set(away.map(({ id }) => id)), isOnMat);
  all.set(key, lying);
  return lying;
}

function lyingWithout(map: DeviceMap, bond: BondJoint, away: ReadonlySet<string>, isOnMat: boolean): LyingBond {
  const parts = map.parts.filter(({ id }) => !away.has(id) || id === bond.to || bond.holds.includes(id));
  const hasCell = parts.some(({ hazards }) => hazards?.includes('lithium'));
  const { stack } = bond;
  const there = stack && layersThere(isOnMat ? upToHost(stack) : stack, hasCell);
  return { map: { ...map, parts }, bond: { ...bond, ...(there ? { stack: there } : {}) }, isOnMat };
}

/** The bond, what it holds, and the one layer that it is held to. */
function upToHost(stack: BondStack): BondStack {
  const layers = stack.layers.slice(0, stack.bondLayer + 2);
  return { ...stack, layers, watch: stack.watch.filter(({ layer }) => layer < layers.length) };
}

/** Without the cells that are away, and without what was watched in them. */
function layersThere(stack: BondStack, hasCell: boolean): BondStack {
  if (hasCell || stack.layers[stack.bondLayer]?.material === POUCH_CELL) return stack;
  const stays = stack.layers.map(({ material }) => material !== POUCH_CELL);
  const place = (layer: number) => stays.slice(0, layer).filter(Boolean).length;
  return {
    ...stack,
    layers: stack.layers.filter((_, at) => stays[at]),
    bondLayer: place(stack.bondLayer),
    watch: stack.watch.flatMap((each) => (stays[each.layer] ? [{ ...each, layer: place(each.layer) }] : [])),
  };
}
