import type { Mechanism } from './mechanism.ts';

export const SEATED = 0;
export const OPEN = 1;
export const OFF = 2;

/**
 * Where every part stands and which joints are released. `group` says with whom a part lies: the base, or the part
 * with which it was lifted to the mat. Plain arrays, so that searches can copy it cheaply; treat it as a value.
 */
export interface DeviceState {
  readonly status: Uint8Array;
  readonly released: Uint8Array;
  readonly group: Int16Array;
}

export function assembled(mechanism: Mechanism): DeviceState {
  return {
    status: new Uint8Array(mechanism.map.parts.length),
    released: new Uint8Array(mechanism.map.joints.length),
    group: new Int16Array(mechanism.map.parts.length).fill(mechanism.base),
  };
}

export function copyOf(state: DeviceState): DeviceState {
  return { status: state.status.slice(), released: state.released.slice(), group: state.group.slice() };
}

export function sameState(a: DeviceState, b: DeviceState): boolean {
  return (
    a.status.every((each, index) => each === b.status[index]) &&
    a.released.every((each, index) => each === b.released[index]) &&
    a.group.every((each, index) => each === b.group[index])
  );
}

/** A joint lies where its `to` lies. */
export function groupOfJoint(mechanism: Mechanism, state: DeviceState, joint: number): number {
  return state.group[mechanism.to[joint]!]!;
}

/** p and, repeatedly, every part for which the joints that decide all lead into what is already gathered. */
export function carried(mechanism: Mechanism, state: DeviceState, part: number): Set<number> {
  const gathered = new Set([part]);
  const place = state.group[part]!;
  for (const host of gathered) {
    for (const joint of mechanism.touching[host]!) {
      if (mechanism.to[joint] !== host) continue;
      for (const each of mechanism.held[joint]!) {
        if (gathered.has(each) || each === mechanism.base) continue;
        if (state.status[each] === OFF || state.group[each] !== place) continue;
        if (deciding(mechanism, state, each).every((by) => gathered.has(mechanism.to[by]!))) gathered.add(each);
      }
    }
  }
  return gathered;
}

/** The joints that decide what a part leaves with (docs/device-map.md, *carried*): the first kind that it has any of. */
function deciding(mechanism: Mechanism, state: DeviceState, part: number): readonly number[] {
  const all = mechanism.holding[part]!;
  const made = all.filter((joint) => !state.released[joint]);
  const firm = made.filter((joint) => isFirm(mechanism, joint));
  if (firm.length > 0) return firm;
  const wired = made.filter((joint) => isWired(mechanism, joint));
  if (wired.length > 0) return wired;
  const lying = all.filter((joint) => !mechanism.tether[joint]);
  return lying.length > 0 ? lying : all;
}

/** Screws, clips and bonds hold firmly; tape and what parts by itself do not. */
export function isFirm(mechanism: Mechanism, joint: number): boolean {
  if (mechanism.tether[joint] || mechanism.selfParting[joint]) return false;
  const each = mechanism.map.joints[joint]!;
  return !(each.type === 'bond' && each.style === 'tape');
}

/** Solder and hinges keep two parts together when nothing firm does. */
export function isWired(mechanism: Mechanism, joint: number): boolean {
  const { type } = mechanism.map.joints[joint]!;
  return type === 'solder' || type === 'hinge';
}

/** Made joints between a set of parts and the rest of the group it lies in; self-parting ones hold nothing. */
export function madeBetween(mechanism: Mechanism, state: DeviceState, inside: ReadonlySet<number>): number[] {
  return between(mechanism, state, inside).filter((joint) => !state.released[joint]);
}

/** Joints of the map, made or not, between a set of parts and the rest of the group it lies in. */
function between(mechanism: Mechanism, state: DeviceState, inside: ReadonlySet<number>): number[] {
  const found = new Set<number>();
  for (const part of inside) {
    const place = state.group[part]!;
    for (const joint of mechanism.touching[part]!) {
      if (mechanism.selfParting[joint]) continue;
      if (mechanism.ends[joint]!.some((end) => !inside.has(end) && state.group[end] === place)) found.add(joint);
    }
  }
  return [...found];
}

/** Dead: what isolates alone is released, or everything that isolates together is, or a battery without either is off. */
export function isDead(mechanism: Mechanism, state: DeviceState): boolean {
  const { battery, alone, jointly } = mechanism.isolation;
  if (battery < 0) return true;
  if (alone.some((joint) => state.released[joint])) return true;
  if (jointly.length > 0) return jointly.every((joint) => state.released[joint]);
  return alone.length === 0 && state.status[battery] === OFF;
}

/** True where the joint lies away from every cell: on the mat, or in the base when the cells have left it. */
export function liesApartFromBattery(mechanism: Mechanism, state: DeviceState, joint: number): boolean {
  const place = groupOfJoint(mechanism, state, joint);
  return mechanism.isolation.cells.every((cell) => state.group[cell] !== place);
}
