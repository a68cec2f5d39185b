import type { NextInJob } from '@nibrel/core/api';
import { aheadOf } from '@nibrel/core/bench/in-hand';
import type { BenchEvent, Job } from '@nibrel/core/job/events';
import type { JobState } from '@nibrel/core/job/state';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { mechanismOf } from '@nibrel/core/planner/holds';
import { setUpBefore } from '@nibrel/core/planner/plan';
import { opTitle } from '@nibrel/core/planner/words';
import { problemText, Refusal } from '@nibrel/core/model/refusal';

export interface NextRequest {
  readonly map: DeviceMap;
  readonly job: Job;
  readonly events: readonly BenchEvent[];
  readonly teardown: JobState['teardown'];
}

/** In a thread of its own: a list is never kept waiting for it. */
export function nextOf({ map, job, events, teardown }: NextRequest): NextInJob {
  if (teardown === 'on') return { op: null, title: 'What came off?', handsOn_s: 0, waiting_s: 0 };
  const mechanism = mechanismOf(map);
  try {
    const { ops } = aheadOf(mechanism, job, events, new Map());
    const [op] = ops;
    const sum = (of: (each: (typeof ops)[number]) => number) => ops.reduce((total, each) => total + of(each), 0);
    return {
      op: op?.id ?? null,
      title: op ? opTitle(map, op) : 'Everything is done: finish it',
      handsOn_s: Math.round(sum(({ seconds }) => seconds) + setUpBefore(ops).reduce((total, each) => total + each, 0)),
      waiting_s: Math.round(sum(({ wait_s = 0 }) => wait_s)),
    };
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    return { op: null, title: problemText(error), handsOn_s: 0, waiting_s: 0 };
  }
}
