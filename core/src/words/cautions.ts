import { cellSolderedAt, type DeviceMap, type Hazard, isOuter } from '../device-map/index.ts';
import type { Op } from '../drafts/index.ts';
import { partName } from './names.ts';

const LOCAL = 'Local rules and your lead decide where they say more.';

/**
 * The caution that stands before an operation and names the harm; null where there is none.
 * @param dead is the battery disconnected by now?
 */
export function cautionFor(map: DeviceMap, op: Op, dead: boolean): string | null {
  const part = map.parts.find((each) => each.id === op.part);
  const joint = map.joints.find((each) => each.id === op.joint);
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
    // what lies on the mat has no cell beneath it
    const cell = onMat(op) ? '' : `, and a cell that gets over ${map.battery?.limit_C ?? 60} °C can vent`;
    return `Hot: burns${cell}. No solvent near it. ${LOCAL}`;
  }
  if (op.name === 'vent')
    return `Solvent vapour can catch fire at anything hot. Window open, nothing switched on. ${LOCAL}`;
  if (op.name === 'soak') return 'Solvent burns and its vapour spreads. Heat source off and away, window open.';
  if (touches('lithium') && op.kind !== 'procedure') {
    return `${op.kind === 'release' && joint?.type === 'connector' ? 'Lithium cell: keep metal off its connector and bend it away.' : cellWords(map, op)} Sand in reach. ${LOCAL}`;
  }
  if (isIron) {
    return `Iron at about 350 °C (common practice): burns, and its fumes harm. Draw them off; nothing flammable near. ${LOCAL}`;
  }
  if (op.kind === 'release' && joint?.type === 'bond' && touches('glass')) {
    const near = map.parts
      .filter((each) => joint.endangers?.includes(each.id) && !joint.holds.includes(each.id))
      .map((each) => partName(map, each.id));
    const cell = near.length > 0 ? ` Behind it: ${near.join(', ')}; a cut into a cell can set it on fire.` : '';
    return `Glass can break and cut. Eyes covered; not deeper than the mark.${cell}`;
  }
  if (!dead && map.battery && joint?.type === 'screw' && joint.face !== 'edge' && !held.some(isOuter)) {
    return 'The battery is still connected. Keep the driver on the screw: a slip can burn the board.';
  }
  if (touches('spring')) return 'A spring can fly off. Cover it with a finger; eyes covered.';
  if (touches('sharp')) return `${part ? part.name : held.map((each) => each.name).join(', ')} has sharp edges.`;
  if ((op.kind === 'open' || op.kind === 'lift') && touches('fragile-flex')) {
    return `${partName(map, op.part!)} hangs on thin flexes. Never let it hang or pull; support it.`;
  }
  return null;
}

/** Work of the move is done on a part that lies on the mat. */
function onMat({ stage }: Op): boolean {
  return stage === 'move';
}

/** Levering is a danger to a cell that is stuck down, not to one that is lifted out by hand. */
function cellWords(map: DeviceMap, op: Op): string {
  const joint = map.joints.find((each) => each.id === op.joint);
  const cells = new Set([...(op.part === undefined ? [] : [op.part]), ...(joint?.holds ?? [])]);
  const isStuck = map.joints.some((each) => each.type === 'bond' && each.holds.some((id) => cells.has(id)));
  return `Lithium cell: do not bend or puncture it${isStuck ? ', never lever under its middle' : ''}. Fire and burns.`;
}
