export interface MeterSettings {
  readonly charge: number;
  readonly energy_Wh: number;
  readonly load_W: number;
  /** how many times faster than a real battery, so that a demonstration ends */
  readonly pace: number;
}

export interface MeterReading {
  /** seconds of the simulated battery since the meter was switched on */
  readonly at_s: number;
  readonly charge: number;
  readonly watts: number;
  readonly simulated: true;
}

export const METER_STEP_MS = 500;

/** What a power meter beside a charger would show: a load that wavers a little, and a charge read to one part in a thousand. */
export function meterReading({ charge, energy_Wh, load_W, pace }: MeterSettings, step: number): MeterReading {
  const at_s = (step * METER_STEP_MS * pace) / 1000;
  const watts = load_W * (1 + 0.08 * Math.sin(step / 3) + 0.03 * Math.sin(step * 1.7));
  const left = charge - (load_W * at_s) / 3600 / energy_Wh;
  return {
    at_s,
    charge: Math.max(0, Math.round(left * 1000) / 1000),
    watts: Math.round(watts * 100) / 100,
    simulated: true,
  };
}
