import { randomUUID } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { type BenchEvent, doneStep, type Job, planAhead } from '@nibrel/core/bench';
import type { DeviceMap } from '@nibrel/core/device-map';
import { mechanismOf } from '@nibrel/core/holds';
import { type Op, planRepair, type Target } from '@nibrel/core/plan';
import type { DeviceMaps } from '../store/device-maps.ts';
import type { Jobs } from '../store/jobs.ts';

interface DemoJob {
  readonly map: string;
  readonly targets: readonly Target[];
  readonly title: string;
  readonly owner: string;
  readonly serial: string;
  readonly colour: string;
  readonly progress: 'new' | 'half-stripped' | 'finished';
  readonly by?: string;
}

/** Fills an empty data folder with the invented workshop: its maps, and three repairs at three stages. */
export function seedDemo(maps: DeviceMaps, jobs: Jobs, now: Date): void {
  const folder = demoFolder();
  for (const file of readdirSync(join(folder, 'device-maps'))) {
    const map = JSON.parse(readFileSync(join(folder, 'device-maps', file), 'utf8')) as DeviceMap;
    if (!maps.find(map.id)) maps.add(map, now.toISOString());
  }
  if (jobs.list().length > 0) return;
  const given = JSON.parse(readFileSync(join(folder, 'jobs.json'), 'utf8')) as DemoJob[];
  for (const [index, each] of given.entries())
    seedJob(maps, jobs, each, new Date(now.getTime() - (index + 1) * 60_000));
}

function seedJob(maps: DeviceMaps, jobs: Jobs, given: DemoJob, now: Date): void {
  const { progress, by = '', ...rest } = given;
  const { map, revision } = maps.find(given.map)!;
  const budget = { now: () => performance.now(), limitMs: 1000 };
  const { display } = planRepair({ map, targets: given.targets }, budget);
  const takenIn = new Date(now.getTime() - (progress === 'finished' ? 5 * 3600 : 3600) * 1000);
  const job: Job = { ...rest, id: randomUUID(), revision, policy: { display }, createdAt: takenIn.toISOString() };
  jobs.add(job);
  if (progress === 'new') return;
  const { ops, plan } = planAhead(mechanismOf(map), jobs.state(job), budget);
  const count = progress === 'finished' ? ops.length : Math.ceil(plan.strip.length * 0.75);
  const spent_s = ops.slice(0, count).reduce((sum, op) => sum + op.seconds + (op.wait_s ?? 0), 0);
  const ended_s = progress === 'finished' ? 90 * 60 : 0;
  let at = now.getTime() - (spent_s + ended_s) * 1000;
  const event = (type: string, data: object) =>
    ({ id: randomUUID(), type, at: new Date(at).toISOString(), by, data }) as BenchEvent;
  const events: BenchEvent[] = [];
  for (const op of ops.slice(0, count)) {
    if (op.wait_s) events.push(event('timer', { step: op.id, seconds: op.wait_s }));
    at += (op.seconds + (op.wait_s ?? 0)) * 1000;
    events.push(...testsOf(op).map((data) => event('test', data)), event('did', { steps: [doneStep(op)] }));
  }
  if (progress === 'finished') events.push(event('finish', {}));
  const { rejected } = jobs.append(job, events, now.toISOString());
  if (rejected.length > 0) throw new Error(`The demo repair "${given.title}" does not play: ${rejected[0]!.problem}`);
}

function testsOf(op: Op): object[] {
  const stage = op.id === 'test:before' ? 'before' : 'after';
  return op.name === 'test' ? (op.functions ?? []).map((id) => ({ function: id, result: 'works', stage })) : [];
}

function demoFolder(): string {
  const beside = import.meta.url.endsWith('.ts') ? '../../../demo' : '../../demo';
  return fileURLToPath(new URL(beside, import.meta.url));
}
