import { type WarmSource } from '@nibrel/core/model/sources';
import type { BondJoint, DeviceMap } from '@nibrel/core/model/device-map';
import { foresee, type HeatSetting, ROOM_C, type Spot, stackOfBond, valueAt } from '@nibrel/core/physics/heat';

export interface ThermocoupleSettings {
  readonly map: DeviceMap;
  readonly bond: BondJoint;
  readonly setting: HeatSetting;
  readonly spot: Spot;
  /** how many times faster than a real device, so that a demonstration ends */
  readonly pace: number;
  /** seconds that the source was on and off before this warming, in turn */
  readonly past: readonly number[];
  /** where the warming stands when the thermometer is switched on */
  readonly from_s: number;
}

export interface ThermocoupleReading {
  readonly at_s: number;
  readonly temp_C: number;
  readonly spot: Spot;
  /** what the source itself shows: a plate that is switched on and off around its setting */
  readonly source_C: number;
  readonly simulated: true;
}

export const THERMOCOUPLE_STEP_MS = 1000;
const LONGEST_S = 3600;

/** The stand-in's device takes heat as it likes, not as the workshop guesses: its transfer is this share of the guess. */
const TRUTH: Readonly<Record<WarmSource, number>> = { plate: 0.8, pad: 1.15, air: 0.9, pack: 0.85 };

/** A thermocouple on a made-up device that is being warmed. */
export class ThermocoupleStandIn {
  readonly #settings: ThermocoupleSettings;
  readonly #times_s: readonly number[];
  readonly #temps: readonly number[];

  constructor(settings: ThermocoupleSettings) {
    const { map, bond, setting, spot, past } = settings;
    const likely = setting.transfer.likely * TRUTH[setting.kind];
    const truth = { ...setting, transfer: { low: likely, likely, high: likely } };
    const { times_s, bands } = foresee({
      stack: stackOfBond(map, bond),
      soften_C: ROOM_C,
      setting: truth,
      past: past.map((seconds, index) => ({ setting: index % 2 === 0 ? truth : null, seconds })),
      heat_s: LONGEST_S,
      total_s: LONGEST_S,
    });
    this.#settings = settings;
    this.#times_s = times_s;
    this.#temps = bands.find(({ id }) => id === spot)!.likely;
  }

  /** What it shows at a step of its clock: a few tenths of a degree of flicker, read to a tenth. */
  reading(step: number): ThermocoupleReading {
    const { pace, from_s, spot, setting } = this.#settings;
    const at_s = from_s + (step * THERMOCOUPLE_STEP_MS * pace) / 1000;
    const flicker = 0.25 * Math.sin(step * 12.9898) + 0.2 * Math.sin(step * 4.1414);
    const temp = valueAt(this.#times_s, this.#temps, Math.min(at_s, LONGEST_S)) + flicker;
    return {
      at_s,
      temp_C: tenths(temp),
      spot,
      source_C: tenths(setting.temp_C + 0.6 * Math.sin(step / 7)),
      simulated: true,
    };
  }

  isOver(step: number): boolean {
    return this.reading(step).at_s > LONGEST_S;
  }
}

function tenths(value: number): number {
  return Math.round(value * 10) / 10;
}
