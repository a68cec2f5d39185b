import type { NextInJob } from '@nibrel/core/api';
import type { Jobs } from '../store/jobs.ts';
import type { ComputePool } from './pool.ts';

/** So long after something was told; work in hand goes on in the meantime. */
const PATIENCE_ms = 400;
/** Found out in one go, after a list was asked for. */
const AT_ONCE = 40;

/** Finds out what comes next in the jobs of lists, one after the other, whenever no request waits for a thread. */
export class Prospects {
  readonly #jobs: Jobs;
  readonly #pool: ComputePool;
  readonly #told: (job: string, revision: number) => void;
  #timer: NodeJS.Timeout | null = null;
  #closed = false;

  constructor(jobs: Jobs, pool: ComputePool, told: (job: string, revision: number) => void) {
    this.#jobs = jobs;
    this.#pool = pool;
    this.#told = told;
  }

  /** Somebody looks at a list: what is not known of it is found out soon. */
  wanted(): void {
    if (this.#timer || this.#closed) return;
    this.#timer = setTimeout(() => void this.#work().finally(() => (this.#timer = null)), PATIENCE_ms);
    this.#timer.unref();
  }

  close(): void {
    this.#closed = true;
    if (this.#timer) clearTimeout(this.#timer);
  }

  async #work(): Promise<void> {
    for (const id of this.#jobs.lines.withoutNext(AT_ONCE)) {
      if (this.#closed) return;
      const job = this.#jobs.find(id);
      if (!job || !this.#pool.isIdle) continue;
      try {
        const { going } = await this.#jobs.live(job);
        const { state } = going;
        const next = (await this.#pool.run(
          { kind: 'next', body: { map: going.mechanism.map, job, events: state.events, teardown: state.teardown } },
          2000,
        )) as NextInJob;
        if (this.#closed) return;
        this.#jobs.lines.setNext(id, state.events.length, next);
        this.#told(id, state.events.length);
      } catch {
        // what can't be planned or read has no next thing; its own page says why
      }
    }
  }
}
