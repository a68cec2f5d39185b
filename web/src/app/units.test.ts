import { afterEach, describe, expect, it } from 'vitest';
import { useSettings } from './settings.ts';
import {
  temperature,
  temperatureFigure,
  temperatureGap,
  temperatures,
  temperatureUnit,
  torques,
  typedTemperature,
} from './units.ts';

const inFahrenheit = () => useSettings.setState({ temperature: 'F' });
afterEach(() => useSettings.setState({ temperature: 'C' }));

describe('a temperature', () => {
  it('is shown in °C where nothing else is chosen', () => {
    expect(temperature(60)).toBe('60 °C');
    expect(temperature(62.44, 1)).toBe('62.4 °C');
    expect(temperatures(54.6, 62.4)).toBe('55 to 62 °C');
    expect(temperatureGap(0.6)).toBe('0.6 °C');
    expect(typedTemperature('62,5')).toBe(62.5);
  });

  it('is shown in °F where that is chosen; what lies between two has no zero', () => {
    inFahrenheit();
    expect(temperatureUnit()).toBe('°F');
    // 60 °C is 140 °F: the definition of the scale, 32 and 212 at the ice and steam points
    expect(temperature(60)).toBe('140 °F');
    expect(temperature(0)).toBe('32 °F');
    expect(temperature(100)).toBe('212 °F');
    expect(temperatures(55, 60)).toBe('131 to 140 °F');
    expect(temperatureGap(10)).toBe('18.0 °F');
  });

  it('is typed in what is chosen, and comes back as it was typed', () => {
    inFahrenheit();
    expect(typedTemperature('140')).toBe(60);
    expect(typedTemperature('')).toBeNull();
    expect(typedTemperature('warm')).toBeNull();
    for (const typed of ['104', '105.8', '33.3', '-4']) {
      expect(temperatureFigure(typedTemperature(typed)!)).toBe(typed);
    }
  });
});

describe('a torque', () => {
  afterEach(() => useSettings.setState({ torque: 'N·cm' }));

  it('is shown in what the driver of the shop shows', () => {
    expect(torques(5, 7)).toBe('5 to 7 N·cm');
    const shown = (unit: 'N·m' | 'kgf·cm' | 'ozf·in', least: number, most: number) => {
      useSettings.setState({ torque: unit });
      return torques(least, most);
    };
    // a board screw: 0.9 to 1.1 kgf·cm is about 0.09 to 0.11 N·m (common practice)
    expect(shown('kgf·cm', 8.826, 10.787)).toBe('0.9 to 1.1 kgf·cm');
    expect(shown('N·m', 8.826, 10.787)).toBe('0.0883 to 0.108 N·m');
    // 1 ozf·in = 0.7061552 N·cm, by definition
    expect(shown('ozf·in', 0.7061552, 7.061552)).toBe('1 to 10 ozf·in');
  });
});
