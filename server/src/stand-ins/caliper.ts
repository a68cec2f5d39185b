import { generator, normal } from './chance.ts';

/** A screw as a caliper shows it. */
export interface CaliperReading {
  /** counts up from 1 in the order they are laid in */
  readonly screw: number;
  readonly length_mm: number;
  readonly drive: string;
  /** nothing is left to lay in */
  readonly isLast: boolean;
  readonly simulated: true;
}

export interface TrueScrew {
  readonly length_mm: number;
  readonly drive: string;
}

export const CALIPER_STEP_MS = 350;
/** A caliper shows hundredths of a millimetre, and screws are read to about this (common practice). */
const SCATTER_MM = 0.05;
const STRANGER: TrueScrew = { length_mm: 9.3, drive: 'PH00' };

/**
 * A caliper that screws are laid into one after the other, each read with the scatter of its measure. After a spill they come
 * in no order, the last of what lay there stays lost, and one that was on the floor before is among them. The same seed reads
 * the same twice.
 */
export class CaliperStandIn {
  readonly #screws: readonly TrueScrew[];
  readonly #random: () => number;

  constructor(screws: readonly TrueScrew[], isSpilled: boolean, seed: number) {
    this.#random = generator(seed);
    this.#screws = isSpilled ? shuffled([...screws.slice(0, -1), STRANGER], this.#random) : screws;
  }

  reading(step: number): CaliperReading | null {
    const screw = this.#screws[step];
    if (!screw) return null;
    const read_mm = screw.length_mm + SCATTER_MM * normal(this.#random);
    return {
      screw: step + 1,
      length_mm: Math.max(0.1, Math.round(read_mm * 100) / 100),
      drive: screw.drive,
      isLast: step === this.#screws.length - 1,
      simulated: true,
    };
  }
}

function shuffled<T>(all: readonly T[], random: () => number): T[] {
  const left = [...all];
  return all.map(() => left.splice(Math.floor(random() * left.length), 1)[0]!);
}
