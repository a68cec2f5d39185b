export { inUnit, temperature, type TemperatureUnit, temperatures } from './temperature.ts';
