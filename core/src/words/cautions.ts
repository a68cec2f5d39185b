import type { DeviceMap, Hazard } from '../device-map/index.ts';
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

  if (op.live)
    return 'The battery is still connected. Plastic tools only: a slip can burn the board. Isolate directly after.';
  if (op.name === 'heat')
    return `Hot: burns, and a cell that gets over ${map.battery?.limit_C ?? 60} °C can vent. No solvent near it. ${LOCAL}`;
  if (op.name === 'vent')
    return `Solvent vapour can catch fire at anything hot. Window open, nothing switched on. ${LOCAL}`;
  if (op.name === 'soak') return 'Solvent burns and its vapour spreads. Heat source off and away, window open.';
  if (touches('lithium') && op.kind !== 'procedure') {
    return `${op.kind === 'release' && joint?.type === 'connector' ? 'Lithium cell: keep metal off its connector and bend it away.' : 'Lithium cell: do not bend, puncture or lever under its middle. Fire and burns.'} Sand in reach. ${LOCAL}`;
  }
  if (op.kind === 'release' && joint?.type === 'bond' && touches('glass')) {
    const near = map.parts.filter((each) => joint.endangers?.includes(each.id)).map((each) => each.name);
    const cell = near.length > 0 ? ` Behind it: ${near.join(', ')}; a cut into a cell can set it on fire.` : '';
    return `Glass can break and cut. Eyes covered; not deeper than the mark.${cell}`;
  }
  if (
    !dead &&
    map.battery &&
    joint?.type === 'screw' &&
    held.some((each) => each.kind === 'bracket' || each.kind === 'shield')
  ) {
    return 'The battery is still connected. Keep the driver on the screw: a slip can burn the board.';
  }
  if (touches('spring')) return 'A spring can fly off. Cover it with a finger; eyes covered.';
  if (touches('sharp')) return `${part ? part.name : held.map((each) => each.name).join(', ')} has sharp edges.`;
  if ((op.kind === 'open' || op.kind === 'lift') && touches('fragile-flex')) {
    return `${partName(map, op.part!)} hangs on thin flexes. Never let it hang or pull; support it.`;
  }
  return null;
}
