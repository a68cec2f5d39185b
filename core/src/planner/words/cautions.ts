import { temperature, type TemperatureUnit } from '../../model/units/index.ts';
import {
  type BondJoint,
  cellSolderedAt,
  type DeviceMap,
  type Hazard,
  isOuter,
  jointById,
  type Part,
  partById,
} from '../../model/device-map/index.ts';
import type { Op } from '../drafts/index.ts';
import { partName } from './thing-names.ts';

/** A soldering iron at a board (common practice). */
const IRON_C = 350;

const LOCAL = 'Local rules and your lead decide where they say more.';

/**
 * The caution that stands before an operation and names the harm; null where there is none.
 * @param dead is the battery disconnected by now?
 * @param unit what the bench reads temperatures in
 * @param edge the segment of a bond that is cut next, where it is known: what lies behind others is not cautioned of
 */
export function cautionFor(
  map: DeviceMap,
  op: Op,
  dead: boolean,
  unit: TemperatureUnit = 'C',
  edge?: string,
): string | null {
  const part = partById(map, op.part);
  const joint = jointById(map, op.joint);
  const held = map.parts.filter((each) => joint?.holds.includes(each.id));
  const touches = (hazard: Hazard) => [part, ...held].some((each) => each?.hazards?.includes(hazard));

  const isIron =
    op.name === 'transplant' || ((op.kind === 'release' || op.kind === 'make') && joint?.type === 'solder');
  if (op.name === 'transplant' || (isIron && joint && cellSolderedAt(map, joint))) {
    return `An iron or welder at a lithium cell: one that is overheated, cut or shorted burns at once, with poisonous smoke. Only as the lead allowed: face covered, sand in reach, not alone. ${LOCAL}`;
  }
  if (op.live)
    return 'The battery is still connected. Plastic tools only: a slip can burn the board. Isolate directly after.';
  if (op.name === 'heat') {
    // what lies on the mat has no cell beneath it, and no face of the device is up for it
    const isOnMat = op.face === null || !map.battery;
    const cell = isOnMat ? '' : `, and a cell that gets over ${temperature(map.battery.limit_C, unit)} can vent`;
    return `Hot: burns${cell}. No solvent near it. ${LOCAL}`;
  }
  if (op.name === 'vent')
    return `Solvent vapour can catch fire at anything hot. Window open, nothing switched on. ${LOCAL}`;
  if (op.name === 'soak') return 'Solvent burns and its vapour spreads. Heat source off and away, window open.';
  const isPlug = op.kind !== 'procedure' && joint?.type === 'connector';
  // a jumper has no cell at it
  if (isPlug && map.battery && (joint.isolates === true || touches('lithium'))) return leadWords(op);
  if (touches('lithium') && op.kind !== 'procedure' && joint?.type !== 'connector') {
    return `${cellWords(map, op)} Sand in reach. ${LOCAL}`;
  }
  if (isIron) {
    return `Iron at about ${temperature(IRON_C, unit)} (common practice): burns, and its fumes harm. Draw them off; nothing flammable near. ${LOCAL}`;
  }
  if (op.kind === 'release' && joint?.type === 'bond' && (touches('glass') || near(map, joint).length > 0)) {
    return cutWords(map, joint, touches('glass'), edge);
  }
  if (!dead && map.battery && joint?.type === 'screw' && joint.face !== 'edge' && !held.some(isOuter)) {
    const since = op.kind === 'make' ? 'connected again' : 'still connected';
    return `The battery is ${since}. Keep the driver on the screw: a slip can burn the board.`;
  }
  if (touches('spring')) return 'A spring can fly off. Cover it with a finger; eyes covered.';
  if (touches('sharp')) return `${part ? part.name : held.map((each) => each.name).join(', ')} has sharp edges.`;
  if ((op.kind === 'open' || op.kind === 'lift') && touches('fragile-flex')) {
    const name = partName(map, op.part!);
    return op.posture === 'stands'
      ? `${name} hangs on thin flexes. Never let it hang or pull; support it.`
      : `${name} has a thin flex: hold it clear, and never lift by it.`;
  }
  return null;
}

/** At every lead of a battery, the first as the last. */
function leadWords({ kind }: Op): string {
  return kind === 'release'
    ? `Lithium cell: keep metal off its connector and bend it away. Sand in reach. ${LOCAL}`
    : `Lithium cell: straight down, never at an angle, and no metal near it. Sand in reach. ${LOCAL}`;
}

/** What a cut can break, and what lies behind it: only a cell burns. */
function cutWords(map: DeviceMap, bond: BondJoint, isGlass: boolean, edge: string | undefined): string {
  const elsewhere = edge === undefined ? NONE : behindOthers(bond, edge);
  const behind = near(map, bond).filter(({ id }) => !elsewhere.has(id));
  const cells = behind.filter(({ hazards }) => hazards?.includes('lithium'));
  const names = (parts: readonly Part[]) => parts.map(({ id }) => partName(map, id)).join(', ');
  const others = behind.filter((each) => !cells.includes(each));
  const isCut = (bond.segments ?? []).some(({ depth }) => depth !== undefined);
  return [
    ...(isGlass ? [`Glass can break and cut. Eyes covered${isCut ? '; not deeper than the mark' : ''}.`] : []),
    ...(!isGlass && isCut ? ['Not deeper than the mark.'] : []),
    ...(cells.length > 0 ? [`Behind it: ${names(cells)}; a cut into a cell can set it on fire.`] : []),
    ...(others.length > 0 ? [`Behind it: ${names(others)}; a pick there ruins what it meets.`] : []),
  ].join(' ');
}

/** Parts that a bond endangers, which it does not hold. */
function near({ parts }: DeviceMap, { endangers, holds }: BondJoint): Part[] {
  return parts.filter(({ id }) => endangers?.includes(id) && !holds.includes(id));
}

/** What the map draws behind other edges of a bond and not behind this one. */
function behindOthers({ segments = [] }: BondJoint, edge: string): ReadonlySet<string> {
  const here = segments.find(({ id }) => id === edge)?.near;
  return new Set(segments.flatMap(({ near }) => (near === undefined || near === here ? [] : [near])));
}

const NONE: ReadonlySet<string> = new Set();

/** Levering is a danger to a cell that is stuck down, not to one that is lifted out by hand. */
function cellWords(map: DeviceMap, op: Op): string {
  const joint = jointById(map, op.joint);
  const cells = new Set([...(op.part === undefined ? [] : [op.part]), ...(joint?.holds ?? [])]);
  const isStuck = map.joints.some((each) => each.type === 'bond' && each.holds.some((id) => cells.has(id)));
  return `Lithium cell: do not bend or puncture it${isStuck ? ', never lever under its middle' : ''}. Fire and burns.`;
}
