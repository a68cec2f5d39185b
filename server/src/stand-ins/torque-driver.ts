import { generator, normal } from './chance.ts';

/** A peak as a driver shows it. */
export interface DriverReading {
  /** which of the screws, counted from 1; one that stayed low is turned once more */
  readonly screw: number;
  readonly peak_Ncm: number;
  /** it turned on without getting tighter */
  readonly slipped: boolean;
  readonly isLast: boolean;
  readonly simulated: true;
}

export interface DriverWindow {
  readonly least_Ncm: number;
  readonly most_Ncm: number;
}

export const DRIVER_STEP_MS = 700;
/** A hand stops within this of where it means to, as a share of the middle of the window (guess). */
const HAND = 0.04;

/**
 * A torque driver in a practised hand: peaks scatter about the middle of each window, and one screw of several stays low at the
 * first try and is turned on. The same seed reads the same twice.
 */
export class TorqueDriverStandIn {
  readonly #readings: readonly DriverReading[];

  constructor(windows: readonly DriverWindow[], seed: number) {
    const random = generator(seed);
    const low = windows.length > 1 ? Math.floor(random() * windows.length) : -1;
    const turns = windows.flatMap((window, at) => {
      const middle = (window.least_Ncm + window.most_Ncm) / 2;
      const near = Math.max(window.least_Ncm, Math.min(window.most_Ncm, middle * (1 + HAND * normal(random))));
      const turn = (peak: number) => ({ screw: at + 1, peak_Ncm: Math.round(peak * 10) / 10, slipped: false });
      return at === low ? [turn(window.least_Ncm * 0.8), turn(middle)] : [turn(near)];
    });
    this.#readings = turns.map((each, at) => ({ ...each, isLast: at === turns.length - 1, simulated: true }));
  }

  reading(step: number): DriverReading | null {
    return this.#readings[step] ?? null;
  }
}
