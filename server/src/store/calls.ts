import { setImmediate } from 'node:timers/promises';

/** So long a long call steps aside for others, each time. */
const MOST_PATIENT_ms = 25;

/** How many calls are being answered just now, so that one of many events can let everybody else pass. */
export class Calls {
  #served = 0;
  #long = 0;

  /** Any call, for as long as it takes. */
  async counted<T>(call: () => Promise<T>): Promise<T> {
    this.#served++;
    try {
      return await call();
    } finally {
      this.#served--;
    }
  }

  /** Work of a long call, which lets others pass between its turns. */
  async long<T>(work: (letPass: () => Promise<void>) => Promise<T>): Promise<T> {
    this.#long++;
    try {
      return await work(() => this.#letPass());
    } finally {
      this.#long--;
    }
  }

  async #letPass(): Promise<void> {
    const until = performance.now() + MOST_PATIENT_ms;
    do {
      await setImmediate();
    } while (this.#served > this.#long && performance.now() < until);
  }
}
