import type { Slab } from './slab.ts';

/** Half the first stage of TR-BDF2, and what its formulas are made of. */
const GAMMA = 2 - Math.SQRT2;
const D = GAMMA / 2;
const W = Math.SQRT2 / 4;
/** Weights of the embedded third-order formula, for the error of a step (Hosea & Shampine, 1996). */
const E1 = (1 - W) / 3;
const E2 = (3 * W + 1) / 3;
const E3 = D / 3;

/** Error that a step may make, °C; the sum over a run stays well under what anybody can measure. */
const STEP_ERROR_C = 2e-3;

/** Heat that went in at the front and out at the back, J/m². */
export interface Passed {
  in: number;
  out: number;
  /** what crossed either face, whichever way it went */
  crossed: number;
}

/**
 * Integrates a slab in time by TR-BDF2: implicit, second order, and stiffly stable, so that no step is limited by a thin
 * or a well conducting cell. Steps grow and shrink by their own error. Heat that passes the faces is summed with the
 * weights of the method itself, so that the balance closes.
 */
export class Integration {
  readonly temps: Float64Array;
  readonly passed: Passed = { in: 0, out: 0, crossed: 0 };
  readonly #slab: Slab;
  #step: number;
  readonly #k1: Float64Array;
  readonly #k2: Float64Array;
  readonly #k3: Float64Array;
  readonly #stage: Float64Array;
  readonly #next: Float64Array;
  readonly #right: Float64Array;
  readonly #sweep: Float64Array;
  readonly #inverse: Float64Array;
  #s = 0;

  constructor(slab: Slab, temps: Float64Array, firstStep_s: number) {
    this.#slab = slab;
    this.temps = temps;
    this.#step = firstStep_s;
    const { size } = slab;
    this.#k1 = new Float64Array(size);
    this.#k2 = new Float64Array(size);
    this.#k3 = new Float64Array(size);
    this.#stage = new Float64Array(size);
    this.#next = new Float64Array(size);
    this.#right = new Float64Array(size);
    this.#sweep = new Float64Array(size);
    this.#inverse = new Float64Array(size);
  }

  /** Goes on for so many seconds. */
  advance(seconds: number): void {
    let left = seconds;
    while (left > 0) {
      const whole = this.#step >= left * 0.999;
      const taken = whole ? left : this.#step;
      const error = this.#tryStep(taken);
      if (error > STEP_ERROR_C && taken > seconds * 1e-12) {
        this.#step = taken * Math.max(0.2, 0.9 * Math.cbrt(STEP_ERROR_C / error));
        continue;
      }
      this.temps.set(this.#next);
      left -= taken;
      const growth = Math.min(3, 0.9 * Math.cbrt(STEP_ERROR_C / Math.max(error, 1e-12)));
      // a last piece that was cut short says nothing against the step before it
      this.#step = whole ? Math.max(this.#step, taken * growth) : taken * growth;
      if (whole) return;
    }
  }

  #tryStep(dt: number): number {
    const { size, capacity } = this.#slab;
    const { temps } = this;
    const [k1, k2, k3, right] = [this.#k1, this.#k2, this.#k3, this.#right];
    const s = dt * D;
    this.#factor(s);
    this.#slab.heating(temps, k1);
    // first stage, trapezoidal to GAMMA·dt; second, backward difference to dt: both with the same matrix
    for (let cell = 0; cell < size; cell++) right[cell] = capacity[cell]! * temps[cell]! + s * k1[cell]!;
    this.#pushOutside(s);
    this.#solve(this.#stage);
    this.#slab.heating(this.#stage, k2);
    const w = dt * W;
    for (let cell = 0; cell < size; cell++) right[cell] = capacity[cell]! * temps[cell]! + w * (k1[cell]! + k2[cell]!);
    this.#pushOutside(s);
    this.#solve(this.#next);
    this.#slab.heating(this.#next, k3);
    // the difference to the embedded formula, filtered by the matrix once more, as is right for stiff systems
    const [e1, e2, e3] = [dt * (W - E1), dt * (W - E2), dt * (D - E3)];
    for (let cell = 0; cell < size; cell++) right[cell] = e1 * k1[cell]! + e2 * k2[cell]! + e3 * k3[cell]!;
    this.#solve(right);
    let error = 0;
    for (let cell = 0; cell < size; cell++) error = Math.max(error, Math.abs(right[cell]!));
    if (error <= STEP_ERROR_C) this.#sumFlows(dt);
    return error;
  }

  #sumFlows(dt: number): void {
    const slab = this.#slab;
    const [now, stage, next] = [this.temps, this.#stage, this.#next];
    const inwards = dt * (W * (slab.flowIn(now) + slab.flowIn(stage)) + D * slab.flowIn(next));
    const outwards = dt * (W * (slab.flowOut(now) + slab.flowOut(stage)) + D * slab.flowOut(next));
    this.passed.in += inwards;
    this.passed.out += outwards;
    this.passed.crossed += Math.abs(inwards) + Math.abs(outwards);
  }

  #pushOutside(s: number): void {
    const right = this.#right;
    right[0] = right[0]! + s * this.#slab.pushFront;
    right[right.length - 1] = right[right.length - 1]! + s * this.#slab.pushBack;
  }

  /**
   * Eliminates C + s·K from the front, once for all solves of a step, and for the next step of equal length. What a cell
   * has beside its links (capacity, outside) is carried on by itself: nothing is subtracted, so that cells that are tied
   * together a million times closer than they hold heat lose no figures.
   */
  #factor(s: number): void {
    if (s === this.#s) return;
    this.#s = s;
    const { size, capacity, conductance, front, back } = this.#slab;
    const [sweep, inverse] = [this.#sweep, this.#inverse];
    let carried = s * front;
    for (let cell = 0; cell < size; cell++) {
      const isLast = cell === size - 1;
      const own = capacity[cell]! + carried + (isLast ? s * back : 0);
      const upper = isLast ? 0 : s * conductance[cell]!;
      inverse[cell] = 1 / (own + upper);
      sweep[cell] = upper * inverse[cell]!;
      carried = own * sweep[cell]!;
    }
  }

  /** Solves for the right side that is laid ready; `into` may be that very array. */
  #solve(into: Float64Array): void {
    const { size, conductance } = this.#slab;
    const [right, sweep, inverse, s] = [this.#right, this.#sweep, this.#inverse, this.#s];
    into[0] = right[0]! * inverse[0]!;
    for (let cell = 1; cell < size; cell++) {
      into[cell] = (right[cell]! + s * conductance[cell - 1]! * into[cell - 1]!) * inverse[cell]!;
    }
    for (let cell = size - 2; cell >= 0; cell--) into[cell] = into[cell]! + sweep[cell]! * into[cell + 1]!;
  }
}
