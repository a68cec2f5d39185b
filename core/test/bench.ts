import {
  type BenchEvent,
  doneStep,
  type EventData,
  type EventType,
  type Job,
  type JobState,
  newJob,
  planAhead,
  withEvent,
} from '../src/bench/index.ts';
import type { DeviceMap } from '../src/device-map/index.ts';
import { mechanismOf } from '../src/holds/index.ts';
import type { Target } from '../src/plan/index.ts';
import { DEFAULT_LIMITS, type Limits } from '../src/shop/index.ts';

// what a plan says is legal also where its order is not proven least
const budget = { now: () => performance.now(), limitMs: 300 };

/** A job that takes events one by one, and remembers why the last was refused. */
export class TestBench {
  readonly mechanism;
  readonly job: Job;
  state: JobState;
  problem: string | null = null;
  #count = 0;

  constructor(map: DeviceMap, targets: readonly Target[], limits: Partial<Limits> = {}) {
    this.mechanism = mechanismOf(map);
    this.job = {
      id: 'job',
      map: map.id,
      revision: 1,
      targets,
      policy: { display: 'taken-off' },
      title: 'Test',
      limits: { ...DEFAULT_LIMITS, ...limits },
      createdAt: '2026-11-24T08:00:00Z',
    };
    this.state = newJob(this.mechanism, this.job);
  }

  send<Type extends EventType>(type: Type, data: EventData[Type]): this {
    this.#count++;
    const id = `00000000-0000-4000-8000-${String(this.#count).padStart(12, '0')}`;
    const at = new Date(Date.UTC(2026, 10, 24, 8, 0, this.#count)).toISOString();
    const event = { id, type, at, by: 'Ines', data } as unknown as BenchEvent;
    const outcome = withEvent(this.mechanism, this.state, event);
    this.problem = 'problem' in outcome ? outcome.problem : null;
    if ('state' in outcome) this.state = outcome.state;
    return this;
  }

  ahead() {
    return this.aheadWhole().ops;
  }

  aheadWhole() {
    return planAhead(this.mechanism, this.state, budget);
  }

  /** Does what the plan says, until an operation is next, or to the end. */
  until(id?: string): this {
    for (const op of this.ahead()) {
      if (op.id === id) return this;
      this.send('did', { steps: [doneStep(op)] });
      if (this.problem) throw new Error(`${op.id}: ${this.problem}`);
    }
    return this;
  }

  release(joint: string, more: object = {}): this {
    return this.send('did', { steps: [{ id: `release:${joint}`, kind: 'release', joint, ...more }] });
  }
}
