import { type BenchEvent, type EventData, type EventType, type Job } from '../src/job/events/index.ts';
import { type BenchUse, dropsOf, IDLE, type JobState, newJob, type Surroundings } from '../src/job/state/index.ts';
import { targetsForNow } from '../src/job/rules/index.ts';
import { goingOn } from '../src/job/fold/index.ts';
import { doneStep, planAhead } from '../src/bench/in-hand/index.ts';
import type { DeviceMap } from '../src/model/device-map/index.ts';
import { type Problem, problemText } from '../src/model/refusal/index.ts';
import { mechanismOf } from '../src/planner/holds/index.ts';
import type { Op } from '../src/planner/drafts/index.ts';
import { settled } from '../src/model/policy/index.ts';
import type { Target } from '../src/planner/search/index.ts';
import { benchItems, tellAnyhow } from '../src/workshop/prepare/index.ts';
import { DEFAULT_LIMITS, type Limits } from '../src/model/limits/index.ts';

// what a plan says is legal also where its order is not proven least
const budget = { now: () => performance.now(), limitMs: 300 };

const COOLED_S = 1800;

/** *joint: There is no bond …* */
const toldAt = (problem: Problem) => (problem.path ? `${problem.path}: ${problemText(problem)}` : problemText(problem));

/** A job that takes events one by one, and remembers why the last was refused. */
export class TestBench {
  /** the map that the job was taken in with */
  readonly base: DeviceMap;
  mechanism;
  readonly job: Job;
  state: JobState;
  problem: string | null = null;
  /** what it would have taken */
  needs: 'lead' | 'secret' | null = null;
  /** has the lead shown the secret? */
  isConfirmed = true;
  hasStandIns = true;
  /** other repairs at the same benches */
  others: BenchUse = IDLE;
  #count = 0;
  #waited_s = 0;

  constructor(map: DeviceMap, targets: readonly Target[], limits: Partial<Limits> = {}) {
    this.base = map;
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

  /** Ines says it; Maren leads. Every event is a second after the one before, and received as it is told. */
  send<Type extends EventType>(type: Type, data: EventData[Type], by = 'Ines'): this {
    return this.tell(type, data, { by });
  }

  /** The same, told to have been so many seconds before the server receives it, and by a client that says more. */
  tell<Type extends EventType>(type: Type, data: EventData[Type], { by = 'Ines', ago_s = 0 } = {}): this {
    this.#count++;
    const id = `00000000-0000-4000-8000-${String(this.#count).padStart(12, '0')}`;
    const at = new Date(this.now - ago_s * 1000).toISOString();
    const receivedAt = new Date(this.now).toISOString();
    const event = { id, type, at, by, data, receivedAt } as unknown as BenchEvent;
    const outcome = goingOn(this, event, this.around);
    this.problem = 'problem' in outcome ? toldAt(outcome.problem) : null;
    this.needs = 'needs' in outcome ? (outcome.needs ?? null) : null;
    if ('state' in outcome) {
      this.mechanism = outcome.mechanism;
      this.state = outcome.state;
    }
    return this;
  }

  /** What the server knows besides this repair. */
  get around(): Surroundings {
    return {
      roleOf: (name) => (name === 'Maren' ? 'lead' : 'technician'),
      hasLead: true,
      isConfirmed: () => this.isConfirmed,
      othersAt: () => this.others,
      now: this.now,
      hasStandIns: this.hasStandIns,
      unit: 'C',
    };
  }

  /** The moment of the last event, with what was waited since, ms. */
  get now(): number {
    return Date.UTC(2026, 10, 24, 8, 0, this.#count + this.#waited_s);
  }

  /** Time goes by. */
  wait(seconds: number): this {
    this.#waited_s += seconds;
    return this;
  }

  /** The bench is as it has to be, all of it, and the cell is low enough for any cut. */
  prepare(): this {
    const { map } = this.mechanism;
    const { policy } = settled(map, this.state.policy);
    const targets = targetsForNow(this.mechanism, this.state);
    const items = benchItems(map, targets, { ...policy, ...this.state.limits }).map(({ id }) => id);
    const charge = map.battery ? { charge: policy.batteryBefore === 'charged' ? 0.6 : 0.2 } : {};
    return this.send('prepared', { items, skipped: [], told: tellAnyhow(map, targets), ...charge });
  }

  /** Does an operation of a plan as it is done at a bench: shown, tried, aired, or ticked. */
  do(op: Op): this {
    if (op.name === 'prepare') return this.prepare();
    if (op.name === 'vent' && dropsOf(this.state.opening) > 0)
      return this.wait(op.wait_s!).send('aired', { step: op.id });
    // what was warmed cools before alcohol comes near it
    if (op.name === 'wipe' && this.state.opening.warmed.length > 0) this.wait(COOLED_S);
    if (op.name === 'soak') this.send('solvent', { joint: op.joint!, drops: 4, away: true });
    const stage = op.id === 'test:before' ? 'before' : 'after';
    for (const id of op.name === 'test' ? (op.functions ?? []) : []) {
      this.send('test', { function: id, result: 'works', stage });
    }
    return this.send('did', { steps: [doneStep(op)] });
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
      this.do(op);
      if (this.problem) throw new Error(`${op.id}: ${this.problem}`);
    }
    return this;
  }

  release(joint: string, more: object = {}): this {
    return this.send('did', { steps: [{ id: `release:${joint}`, kind: 'release', joint, ...more }] });
  }
}
