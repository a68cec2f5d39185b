import type { BondJoint } from '../../model/device-map/index.ts';
import { bonded, type Bonded } from './bonding.ts';

/** What makers of acrylic foam tape ask for (a data sheet, from memory). */
export const ASKED_kPa = 103;

/** How a bond is pressed: by the map's weight, else by the one that makes the pressure that is asked for. */
export interface Press extends Bonded {
  readonly from: 'map' | 'tape';
}

/** Null where the map does not say how long and how wide a bond runs. */
export function pressOf({ width, segments = [], close }: BondJoint): Press | null {
  if (width === undefined || segments.length === 0) return null;
  const strips = segments
    .map(({ from, to }) => ({ length_mm: Math.hypot(to.x - from.x, to.y - from.y), width_mm: width }))
    .filter(({ length_mm }) => length_mm > 0);
  if (strips.length === 0) return null;
  return close?.mass_kg
    ? { ...bonded({ segments: strips, mass_kg: close.mass_kg }), from: 'map' }
    : { ...bonded({ segments: strips, pressure_kPa: ASKED_kPa }), from: 'tape' };
}
