import type { BondJoint, BondStack, DeviceMap, Part } from '../device-map/index.ts';

/** A bond's layers from its heated face on, and whether the map gives them. */
export interface StackOfBond extends BondStack {
  /** drawn up from the kinds of the parts, since the map has none */
  readonly isGuess: boolean;
}

/** Where the map gives no stack, all in mm (guesses). */
const FOAM_MM = { perimeter: 0.3, other: 0.2 };
const HOST_MM = 1;
const GAP_MM = 0.3;
/** What a display bears (common practice). */
const DISPLAY_C = 80;

/** The map's own stack, else a usual one for the kinds of what it holds and what it is held to. */
export function stackOfBond(map: DeviceMap, bond: BondJoint): StackOfBond {
  if (bond.stack) return { ...bond.stack, isGuess: false };
  const held = partOf(map, bond.holds[0]!);
  const host = partOf(map, bond.to);
  const cell = map.parts.find((each) => each.id === map.battery?.part);
  const beneath = cell && cell.id !== held?.id && held && overlaps(held, cell) ? cell : undefined;
  const layers = [
    { material: materialOf(held), thickness: Math.max(0.3, thickness_mm(held)) },
    { material: 'acrylic foam tape', thickness: bond.style === 'perimeter' ? FOAM_MM.perimeter : FOAM_MM.other },
    { material: host?.kind === 'frame' ? 'aluminium alloy' : materialOf(host), thickness: HOST_MM },
    ...(beneath
      ? [
          { material: 'still air gap', thickness: GAP_MM },
          { material: 'pouch cell', thickness: Math.max(1, thickness_mm(beneath)) },
        ]
      : []),
  ];
  const watch = [
    ...(held?.kind === 'display' ? [{ layer: 0, fraction: 0.5, what: held.name, max_C: DISPLAY_C }] : []),
    ...(beneath ? [{ layer: 4, fraction: 0, what: beneath.name, max_C: map.battery!.limit_C }] : []),
  ];
  return { layers, bondLayer: 1, watch, isGuess: true };
}

function partOf(map: DeviceMap, id: string): Part | undefined {
  return map.parts.find((each) => each.id === id);
}

function thickness_mm(part: Part | undefined): number {
  return part ? part.z.bottom - part.z.top : 1;
}

function materialOf(part: Part | undefined): string {
  switch (part?.kind) {
    case 'display':
      return 'display stack';
    case 'battery':
      return 'pouch cell';
    case 'plate':
    case 'shield':
    case 'bracket':
    case 'frame':
      return 'aluminium alloy';
    default:
      return part?.hazards?.includes('glass') ? 'soda-lime glass' : 'polycarbonate';
  }
}

function overlaps({ box: a }: Part, { box: b }: Part): boolean {
  return a.x < b.x + b.w && b.x < a.x + a.w && a.y < b.y + b.h && b.y < a.y + a.h;
}
