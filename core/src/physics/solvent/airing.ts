import { temperature, type TemperatureUnit } from '../../model/units/index.ts';
import { type Problem, wrong } from '../../model/refusal/index.ts';
import type { Limits } from '../../model/limits/index.ts';

/** High-strength alcohol (isopropanol): density and molar mass from memory. */
const DENSITY_g_mL = 0.785;
const MOLAR_g = 60.1;
/** Litres that a mole of gas takes at 20 °C and 101.3 kPa (ideal gas). */
const MOLAR_L = 24.06;
/** Lower flammability limit of isopropanol in air, per cent by volume (NIOSH Pocket Guide, from memory). */
const LOWER_LIMIT_PERCENT = 2;
/** Air is called clear below a tenth of the lower limit (common practice). */
const CLEAR_SHARE = 0.1;
/** A film of a few drops takes so long to dry off (guess); no airing is shorter. */
const DRY_OFF_s = 120;
/** Vapour lies in a corner of the bench before it mixes: so much more than the mean (guess). */
const UNMIXED = 5;

export interface Airing {
  readonly vapour_mL: number;
  /** mean over the bench once all of it has evaporated, per cent by volume */
  readonly percent: number;
  /** of the lower flammability limit, where it gathers */
  readonly shareOfLimit: number;
  readonly seconds: number;
}

/**
 * How long to air a bench on which solvent was used before anything is heated there: until the vapour, where it gathers,
 * is below a tenth of the lower flammability limit, by air changes that mix as usual (exponential decay).
 */
export function airing(drops: number, limits: Pick<Limits, 'drop_uL' | 'benchVolume_L' | 'airChanges_h'>): Airing {
  const grams = (drops * limits.drop_uL * DENSITY_g_mL) / 1000;
  const vapour_mL = (grams / MOLAR_g) * MOLAR_L * 1000;
  const percent = (vapour_mL / 1000 / limits.benchVolume_L) * 100;
  const shareOfLimit = (UNMIXED * percent) / LOWER_LIMIT_PERCENT;
  const thinning_s =
    shareOfLimit > CLEAR_SHARE ? (3600 / limits.airChanges_h) * Math.log(shareOfLimit / CLEAR_SHARE) : 0;
  return { vapour_mL, percent, shareOfLimit, seconds: drops > 0 ? Math.round(DRY_OFF_s + thinning_s) : 0 };
}

/** Why solvent may not be put to a bond now, with the cure; null where it may. */
export function soakProblem(
  state: { readonly heating: boolean; readonly bond_C: number | undefined; readonly away: boolean },
  limits: Pick<Limits, 'solventBelow_C'>,
  unit: TemperatureUnit,
): Problem | null {
  if (state.heating) return wrong('', 'The heat source is on.', 'Take it off and away before solvent comes near.');
  if (!state.away)
    return wrong('away', 'Solvent only with the device away from the heat source.', 'Move it, then say so.');
  if (state.bond_C !== undefined && state.bond_C > limits.solventBelow_C) {
    return wrong(
      '',
      `The bond is at about ${temperature(state.bond_C, unit)}.`,
      `Let it fall below ${temperature(limits.solventBelow_C, unit)} before solvent.`,
    );
  }
  return null;
}
