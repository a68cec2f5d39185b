/** What a bench reads temperatures in. All that is computed and kept is in °C. */
export type TemperatureUnit = 'C' | 'F';

/** The figure alone, in a bench's unit: 104 for 40 °C at one that reads °F */
export function inUnit(value_C: number, unit: TemperatureUnit): number {
  return unit === 'F' ? value_C * 1.8 + 32 : value_C;
}

/** *60 °C*, or *140 °F* */
export function temperature(value_C: number, unit: TemperatureUnit, digits = 0): string {
  return `${rounded(inUnit(value_C, unit), digits)} °${unit}`;
}

/** *55 to 62 °C* */
export function temperatures(low_C: number, high_C: number, unit: TemperatureUnit): string {
  return `${rounded(inUnit(low_C, unit), 0)} to ${temperature(high_C, unit)}`;
}

const rounded = (value: number, digits: number) => Number(value.toFixed(digits));
