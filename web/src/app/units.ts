import { TORQUE_N_CM } from '@nibrel/core/physics/torque';
import { decimal } from './format.ts';
import { useSettings } from './settings.ts';

const unit = () => useSettings.getState().temperature;
const shown = (value_C: number) => (unit() === 'F' ? value_C * 1.8 + 32 : value_C);
const fixed = (value: number, digits: number) => String(Number(value.toFixed(digits)));

export const temperatureUnit = () => `°${unit()}`;

/** The figure alone, as it is typed: *40*, or *104* */
export function temperatureFigure(value_C: number): string {
  return fixed(shown(value_C), 1);
}

/** *60 °C*, or *140 °F* */
export function temperature(value_C: number, digits = 0): string {
  return `${fixed(shown(value_C), digits)} ${temperatureUnit()}`;
}

/** *55 to 62 °C* */
export function temperatures(low_C: number, high_C: number): string {
  return `${fixed(shown(low_C), 0)} to ${temperature(high_C)}`;
}

/** What lies between two temperatures: *0.6 °C*, or *1.1 °F* */
export function temperatureGap(value_C: number): string {
  return `${(value_C * (unit() === 'F' ? 1.8 : 1)).toFixed(1)} ${temperatureUnit()}`;
}

/** A temperature as it was typed at this bench, in °C; null where it is none. */
export function typedTemperature(typed: string): number | null {
  const value = decimal(typed);
  if (value === null || unit() === 'C') return value;
  return Math.round(((value - 32) / 1.8) * 100) / 100;
}

/** A sentence of the core, whose temperatures are in °C and are never differences, as it is said at this bench. */
export function inUnits(sentence: string): string {
  if (unit() === 'C') return sentence;
  return sentence.replace(/(-?\d+(?:\.\d+)?)(?: to (-?\d+(?:\.\d+)?))? °C/g, (_, first: string, second?: string) =>
    second === undefined ? temperature(Number(first)) : temperatures(Number(first), Number(second)),
  );
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
