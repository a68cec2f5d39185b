import { inUnit, temperature as temperatureIn, temperatures as temperaturesIn } from '@nibrel/core/model/units';
import { TORQUE_N_CM } from '@nibrel/core/physics/torque';
import { decimal } from './format.ts';
import { useSettings } from './settings.ts';

/** What this bench reads temperatures in. */
export const benchUnit = () => useSettings.getState().temperature;

export const temperatureUnit = () => `°${benchUnit()}`;

/** The figure alone, as it is typed: *40*, or *104* */
export function temperatureFigure(value_C: number): string {
  return String(Number(inUnit(value_C, benchUnit()).toFixed(1)));
}

/** *60 °C*, or *140 °F* */
export function temperature(value_C: number, digits = 0): string {
  return temperatureIn(value_C, benchUnit(), digits);
}

/** *55 to 62 °C* */
export function temperatures(low_C: number, high_C: number): string {
  return temperaturesIn(low_C, high_C, benchUnit());
}

/** What lies between two temperatures: *0.6 °C*, or *1.1 °F* */
export function temperatureGap(value_C: number): string {
  return `${(value_C * (benchUnit() === 'F' ? 1.8 : 1)).toFixed(1)} ${temperatureUnit()}`;
}

/** A temperature as it was typed at this bench, in °C; null where it is none. */
export function typedTemperature(typed: string): number | null {
  const value = decimal(typed);
  if (value === null || benchUnit() === 'C') return value;
  return Math.round(((value - 32) / 1.8) * 100) / 100;
}

/** A torque as it was typed at this bench, in N·cm; null where it is none. */
export function typedTorque(typed: string): number | null {
  const value = decimal(typed);
  return value === null ? null : value * TORQUE_N_CM[useSettings.getState().torque];
}

/** One torque as the shop's driver shows it: *6 N·cm* */
export function torqueAt(torque_Ncm: number): string {
  const unit = useSettings.getState().torque;
  return `${Number((torque_Ncm / TORQUE_N_CM[unit]).toPrecision(3))} ${unit}`;
}

/** A window of torque as the shop's driver shows it: *5 to 7 N·cm*, *0.05 to 0.07 N·m* */
export function torques(least_Ncm: number, most_Ncm: number): string {
  const unit = useSettings.getState().torque;
  const shown = (torque_Ncm: number) => Number((torque_Ncm / TORQUE_N_CM[unit]).toPrecision(3));
  return `${shown(least_Ncm)} to ${shown(most_Ncm)} ${unit}`;
}
