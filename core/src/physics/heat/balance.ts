import type { Passed } from './integrate.ts';
import type { Slab } from './slab.ts';

/** What differences below this would store and drive through the faces is no heat to speak of: it drowns in rounding. */
const AT_REST_K = 1e-9;

/** Heat that came in, went out and was kept, J/m², over the stretches of a run. */
export class Balance {
  #missing = 0;
  #exchanged = 0;
  #negligible = 0;

  /** Adds a stretch with one slab, from its temperatures at its start to those at its end. */
  add(slab: Slab, start: Float64Array, end: Float64Array, passed: Passed, seconds: number): void {
    this.#missing += passed.in - passed.out - (slab.stored(end) - slab.stored(start));
    this.#exchanged += passed.crossed + slab.shifted(start, end);
    this.#negligible += AT_REST_K * (slab.heldPerKelvin + (slab.front + slab.back) * seconds);
  }

  /** The share of the heat that was exchanged for which the balance does not account; 0 where next to none was. */
  get error(): number {
    return this.#exchanged > this.#negligible ? Math.abs(this.#missing) / this.#exchanged : 0;
  }
}
