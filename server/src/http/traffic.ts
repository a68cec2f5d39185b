import { setImmediate } from 'node:timers/promises';
import type { MiddlewareHandler } from 'hono';

/** So long a long call steps aside for others, each time. */
const MOST_PATIENT_ms = 25;

/** Who is being served just now, so that a call of many events can let everybody else pass. */
export class Traffic {
  #served = 0;
  #long = 0;

  readonly counted: MiddlewareHandler = async (_, next) => {
    this.#served++;
    try {
      await next();
    } finally {
      this.#served--;
    }
  };

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
