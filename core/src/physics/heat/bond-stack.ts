import { type BondJoint, type BondStack, type DeviceMap, type Part, partById } from '../../model/device-map/index.ts';
import { withCellsWatched } from './cells.ts';
import { POUCH_CELL } from './materials.ts';

/** A bond's layers from its heated face on, and whether the map gives them. */
export interface StackOfBond extends BondStack {
  /** drawn up from the kinds of the parts, since the map has none */
  readonly isGuess: boolean;
}

/** Where the map gives no stack, all in mm (guesses). */
const FOAM_MM = { perimeter: 0.3, other: 0.2 };
const HOST_MM = 1;
/** What a display bears (common practice). */
const DISPLAY_C = 80;

/**
 * The map's own stack, else a usual one for the kinds of what it holds and what it is held to. Every cell in it, over or
 * beneath it is watched, whatever the map says.
 */
export function stackOfBond(map: DeviceMap, bond: BondJoint): StackOfBond {
  return { ...withCellsWatched(map, bond, bond.stack ?? usualStack(map, bond)), isGuess: !bond.stack };
}

function usualStack(map: DeviceMap, bond: BondJoint): BondStack {
  const held = partOf(map, bond.holds[0]!);
  const host = partOf(map, bond.to);
  const layers = [
    { material: materialOf(held), thickness: Math.max(0.3, thickness_mm(held)) },
    { material: 'acrylic foam tape', thickness: bond.style === 'perimeter' ? FOAM_MM.perimeter : FOAM_MM.other },
    { material: host?.kind === 'frame' ? 'aluminium alloy' : materialOf(host), thickness: HOST_MM },
  ];
  const watch = held?.kind === 'display' ? [{ layer: 0, fraction: 0.5, what: held.name, max_C: DISPLAY_C }] : [];
  return { layers, bondLayer: 1, watch };
}

function partOf(map: DeviceMap, id: string): Part | undefined {
  return partById(map, id);
}

function thickness_mm(part: Part | undefined): number {
  return part ? part.z.bottom - part.z.top : 1;
}

function materialOf(part: Part | undefined): string {
  switch (part?.kind) {
    case 'display':
      return 'display stack';
    case 'battery':
      return POUCH_CELL;
    case 'plate':
    case 'shield':
    case 'bracket':
    case 'frame':
      return 'aluminium alloy';
    default:
      return part?.hazards?.includes('glass') ? 'soda-lime glass' : 'polycarbonate';
  }
}
