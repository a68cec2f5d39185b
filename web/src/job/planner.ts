import type { Ahead } from '@nibrel/core/bench/in-hand';
import type { Job } from '@nibrel/core/job/events';
import type { JobState } from '@nibrel/core/job/state';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import type { OwnTime } from '@nibrel/core/planner/plan';
import { computeNow } from '../workers/compute.ts';

/** What is known of the way ahead of a state: nothing yet, the plan, or why there is none. */
export interface Planned {
  readonly ahead: Ahead | null;
  readonly problem: string | null;
  /** it is being made, and takes long enough to say so */
  readonly planning: boolean;
}

const NOT_PLANNED: Planned = { ahead: null, problem: null, planning: false };

/** Shorter is no wait that has to be shown. */
const SHOWN_AFTER_MS = 100;

/**
 * Plans are made here and nowhere else. A plan belongs to a state: the latest state that was asked for is always answered,
 * by a plan or by a reason, and an answer for another state is never shown.
 */
export class Planner {
  #map: DeviceMap;
  readonly #job: Job;
  readonly #times: readonly OwnTime[];
  readonly #show: (planned: Planned) => void;
  #wanted: JobState | null = null;
  #isBusy = false;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #closed = false;

  /** @param times the workshop's own */
  constructor(map: DeviceMap, job: Job, times: readonly OwnTime[], show: (planned: Planned) => void) {
    this.#map = map;
    this.#job = job;
    this.#times = times;
    this.#show = show;
  }

  /** From here on it goes by another map: what was told of the device has changed it. */
  goBy(map: DeviceMap): void {
    this.#map = map;
  }

  /** Plans from a state; whatever was asked for before is no longer wanted. */
  want(state: JobState): void {
    this.#wanted = state;
    this.#show(NOT_PLANNED);
    clearTimeout(this.#timer);
    this.#timer = setTimeout(() => !this.#closed && this.#show({ ...NOT_PLANNED, planning: true }), SHOWN_AFTER_MS);
    if (!this.#isBusy) void this.#work();
  }

  /** The state went by the plan: nothing has to be made. */
  settled(): void {
    this.#wanted = null;
    clearTimeout(this.#timer);
  }

  close(): void {
    this.#closed = true;
    this.settled();
  }

  async #work(): Promise<void> {
    this.#isBusy = true;
    while (this.#wanted && !this.#closed) {
      const state = this.#wanted;
      const planned = await this.#planned(state);
      if (this.#wanted !== state || this.#closed) continue;
      this.settled();
      this.#show(planned);
    }
    this.#isBusy = false;
  }

  async #planned(state: JobState): Promise<Planned> {
    try {
      const found = await computeNow().ahead(this.#map, this.#job, state.events, this.#times);
      if ('value' in found) return { ahead: found.value, problem: null, planning: false };
      return { ahead: null, problem: found.problem, planning: false };
    } catch (error) {
      return { ahead: null, problem: `The plan could not be made: ${(error as Error).message}`, planning: false };
    }
  }
}
