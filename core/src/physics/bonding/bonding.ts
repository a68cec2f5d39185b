import Joi from 'joi';
import { strengthAfter } from './strength.ts';

export interface BondRequest {
  /** one of the two */
  readonly area_mm2?: number;
  readonly segments?: readonly { readonly length_mm: number; readonly width_mm: number }[];
  /** one of the two */
  readonly mass_kg?: number;
  readonly pressure_kPa?: number;
  readonly dwell_s?: number;
}

export interface Bonded {
  readonly area_mm2: number;
  readonly mass_kg: number;
  readonly force_N: number;
  readonly pressure_kPa: number;
  readonly pressure_psi: number;
  /** of what the bond will have in the end, at room temperature */
  readonly strengthFraction?: number;
}

const G = 9.80665;
const KPA_IN_PSI = 6.894757293168;
const mm = Joi.number().greater(0).max(100_000);

export const bondRequest = Joi.object<BondRequest>({
  area_mm2: Joi.number().greater(0).max(1e8),
  segments: Joi.array()
    .min(1)
    .max(500)
    .items(Joi.object({ length_mm: mm.required(), width_mm: mm.required() }).unknown(true)),
  mass_kg: Joi.number().greater(0).max(10_000),
  pressure_kPa: Joi.number().greater(0).max(100_000),
  dwell_s: Joi.number().min(0).max(1e9),
})
  .xor('area_mm2', 'segments')
  .xor('mass_kg', 'pressure_kPa')
  .messages({
    'object.missing': 'Give an area_mm2 or segments, and a mass_kg or a pressure_kPa',
    'object.xor': 'Give an area_mm2 or segments, and a mass_kg or a pressure_kPa, one of each',
  });

/** The pressure of a weight on a bond, or the weight for a pressure, and how strong it is by when. */
export function bonded({ area_mm2, segments = [], mass_kg, pressure_kPa, dwell_s }: BondRequest): Bonded {
  const area = area_mm2 ?? segments.reduce((sum, { length_mm, width_mm }) => sum + length_mm * width_mm, 0);
  // 1 kPa on 1 mm² is a thousandth of a newton
  const force_N = mass_kg === undefined ? (pressure_kPa! * area) / 1000 : mass_kg * G;
  const pressure = (force_N / area) * 1000;
  return {
    area_mm2: area,
    mass_kg: mass_kg ?? force_N / G,
    force_N,
    pressure_kPa: pressure_kPa ?? pressure,
    pressure_psi: (pressure_kPa ?? pressure) / KPA_IN_PSI,
    ...(dwell_s === undefined ? {} : { strengthFraction: strengthAfter(dwell_s) }),
  };
}
