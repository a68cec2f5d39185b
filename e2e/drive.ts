import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { aheadOf, doneStep } from '@nibrel/core/bench/in-hand';
import { type BenchEvent, type Job } from '@nibrel/core/job/events';
import { targetsForNow } from '@nibrel/core/job/rules';
import { foldJob } from '@nibrel/core/job/fold';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { mechanismOf } from '@nibrel/core/planner/holds';
import { DEFAULT_LIMITS } from '@nibrel/core/model/limits';
import { settled } from '@nibrel/core/model/policy';
import type { Op } from '@nibrel/core/planner/drafts';
import type { Target } from '@nibrel/core/planner/search';
import { benchItems, tellAnyhow } from '@nibrel/core/workshop/prepare';

interface Line extends Omit<Job, 'revision'> {
  readonly mapRevision: number;
  readonly status: string;
  readonly revision: number;
}

/** A repair that is driven over HTTP to where a browser test begins. */
export class Driven {
  readonly #url: string;
  readonly #map: DeviceMap;
  readonly id: string;

  private constructor(url: string, map: DeviceMap, id: string) {
    this.#url = `${url}/api/v1`;
    this.#map = map;
    this.id = id;
  }

  /** A new repair of a demo device, prepared. */
  static async begin(url: string, device: string, targets: readonly Target[], title: string): Promise<Driven> {
    const file = new URL(`../demo/device-maps/${device}.json`, import.meta.url);
    const map = JSON.parse(readFileSync(file, 'utf8')) as DeviceMap;
    const response = await fetch(`${url}/api/v1/jobs`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ map: device, targets, title, policy: { display: 'taken-off' } }),
    });
    const driven = new Driven(url, map, ((await response.json()) as Line).id);
    await driven.prepare();
    return driven;
  }

  /** of its bench */
  get address(): string {
    return `${this.#url.replace('/api/v1', '')}/jobs/${this.id}`;
  }

  async line(): Promise<Line> {
    return (await (await fetch(`${this.#url}/jobs/${this.id}`)).json()) as Line;
  }

  async events(): Promise<BenchEvent[]> {
    const answer = await fetch(`${this.#url}/jobs/${this.id}/events`);
    return ((await answer.json()) as { events: BenchEvent[] }).events;
  }

  /** What is ahead, as a page computes it. */
  async ahead(): Promise<readonly Op[]> {
    const { job, events } = await this.#now();
    return aheadOf(mechanismOf(this.#map), job, events, new Map()).ops;
  }

  /** Does what the plan says until an operation is next, or until nothing is left. */
  async until(id?: string): Promise<this> {
    for (const op of await this.ahead()) {
      if (op.id === id) return this;
      const stage = op.id === 'test:before' ? 'before' : 'after';
      const tests = op.name === 'test' ? (op.functions ?? []) : [];
      await this.send(...tests.map((each) => ({ type: 'test', data: { function: each, result: 'works', stage } })), {
        type: 'did',
        data: { steps: [doneStep(op)] },
      });
    }
    return this;
  }

  async send(
    ...said: readonly { readonly type: string; readonly data: object; readonly at?: string }[]
  ): Promise<void> {
    const at = new Date().toISOString();
    const events = said.map((each) => ({ id: randomUUID(), at, by: 'Ines', ...each }));
    const answer = await fetch(`${this.#url}/jobs/${this.id}/events`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ events }),
    });
    const { rejected } = (await answer.json()) as { rejected: { problem: string }[] };
    if (rejected.length > 0) throw new Error(`${said[0]!.type}: ${rejected[0]!.problem}`);
  }

  private async prepare(): Promise<void> {
    const { job, events } = await this.#now();
    const mechanism = mechanismOf(this.#map);
    const targets = targetsForNow(mechanism, foldJob(mechanism, job, events));
    const { policy } = settled(this.#map);
    const charge = policy.batteryBefore === 'charged' ? 0.6 : 0.2;
    const items = benchItems(this.#map, targets, { ...policy, ...DEFAULT_LIMITS }).map(({ id }) => id);
    const told = tellAnyhow(this.#map, targets);
    await this.send(
      { type: 'told', data: { items: told, who: 'Aldis', how: 'here' } },
      { type: 'charge', data: { charge, source: 'typed' } },
      { type: 'prepared', data: { items, skipped: [], told, charge } },
    );
    // what else the plan would have told was told by word of mouth
    await this.send({ type: 'told', data: { items: [...told, ...(await this.untold())], who: 'Aldis', how: 'here' } });
  }

  private async untold(): Promise<string[]> {
    const { job, events } = await this.#now();
    return aheadOf(mechanismOf(this.#map), job, events, new Map()).owner.map(({ text }) => text);
  }

  async #now(): Promise<{ job: Job; events: BenchEvent[] }> {
    const { mapRevision, ...rest } = await this.line();
    return { job: { ...rest, revision: mapRevision }, events: await this.events() };
  }
}
