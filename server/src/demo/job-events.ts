import { randomUUID } from 'node:crypto';
import { type Ahead, doneStep, planAhead } from '@nibrel/core/bench/in-hand';
import { type BenchEvent, type EventData, type EventType, type Job } from '@nibrel/core/job/events';
import { foldJob } from '@nibrel/core/job/fold';
import { addedDays, todayIn } from '@nibrel/core/model/calendar';
import type { DeviceMap } from '@nibrel/core/model/device-map';
import { mechanismOf } from '@nibrel/core/planner/holds';
import { DEFAULT_LIMITS } from '@nibrel/core/model/limits';
import type { RegistryAnswer } from '@nibrel/core/model/identity';
import type { Budget } from '@nibrel/core/planner/order';
import type { Op } from '@nibrel/core/planner/drafts';
import { settled } from '@nibrel/core/model/policy';
import type { Target } from '@nibrel/core/planner/search';
import { benchItems } from '@nibrel/core/workshop/prepare';
import { REGISTRY_NAME } from '../stand-ins/registry.ts';

/** A repair of the demonstration, as demo/jobs.json tells it. */
export interface DemoJob {
  readonly map: string;
  readonly targets: readonly Target[];
  readonly title: string;
  readonly owner: string;
  readonly serial: string;
  readonly colour: string;
  readonly progress:
    | 'new'
    | 'taken-in'
    | 'stopped'
    | 'prepared'
    | 'half-stripped'
    | 'spilled'
    | 'bare-frame'
    | 'at-the-seal'
    | 'just-finished'
    | 'finished';
  readonly by?: string;
  readonly words?: string;
  readonly fails?: readonly string[];
  readonly damage?: readonly EventData['damage'][];
  readonly charge?: number;
  readonly thickness_mm?: number;
  readonly parts?: readonly DemoPart[];
  /** old faults that this repair does not put right */
  readonly stillFails?: readonly string[];
  /** at the seal: a plug of whose click nobody was sure, and what fails because of it */
  readonly halfPressed?: string;
  readonly failsNow?: string;
}

interface DemoPart {
  readonly mapPart: string;
  readonly source: string;
  readonly arrivedDaysAgo: number;
  readonly price?: string;
  readonly variant?: string;
  readonly looked?: Omit<EventData['part-looked'], 'part'>;
  readonly numbers?: readonly Omit<EventData['part-number'], 'part'>[];
  readonly asked?: readonly RegistryAnswer[];
  readonly decision?: Omit<EventData['part-decided'], 'part'>;
  readonly sentBack?: string;
}

/** The events of a demo repair: taken in, its parts, and the work as far as it has come. */
export function jobEvents(
  map: DeviceMap,
  job: Job,
  given: DemoJob,
  now: Date,
  zone: string,
  budget: Budget,
): BenchEvent[] {
  // the desk comes first: what is marked when a device is taken in may stop the work
  const before = [...(given.parts ?? []).flatMap((part) => partEvents(part, now, zone)), ...intake(map, given)];
  const start = now.getTime() - 40 * 60 * 1000;
  const stamped = (said: Said[], from: number, step_s: number) =>
    said.map((each, index) => eventOf(each, from + index * step_s * 1000, given.by ?? 'Tomas'));
  if (given.progress === 'new' || given.progress === 'taken-in' || given.progress === 'stopped') {
    return stamped(before, start, 20);
  }
  const mechanism = mechanismOf(map);
  const takenIn = stamped(before, start, 1);
  const ahead = planAhead(mechanism, foldJob(mechanism, job, takenIn), budget);
  const ops = ahead.ops.slice(0, countFor(given.progress, ahead));
  const spent_s = ops.reduce((sum, op) => sum + op.seconds + (op.wait_s ?? 0), 0);
  const ended_s = ENDED_S[given.progress] ?? 0;
  let at = now.getTime() - (spent_s + ended_s) * 1000;
  const events = stamped(before, at - 1000 * before.length * 20 - 60_000, 20);
  for (const op of ops) {
    if (op.wait_s) events.push(eventOf(['timer', { step: op.id, seconds: op.wait_s }], at, given.by!));
    at += (op.seconds + (op.wait_s ?? 0)) * 1000;
    events.push(...saidFor(map, job, op, ahead, given.stillFails).map((each) => eventOf(each, at, given.by!)));
    if (op.kind === 'make' && op.joint === given.halfPressed) {
      events.push(eventOf(['click', { joint: op.joint!, heard: 'not-sure' }], at, given.by!));
    }
  }
  if (given.failsNow) {
    events.push(eventOf(['test', { function: given.failsNow, result: 'fails', stage: 'before' }], at, given.by!));
  }
  if (given.progress === 'spilled') {
    events.push(eventOf(['note', { text: 'An elbow swept the mat: every screw is on the floor.' }], at, given.by!));
  }
  if (given.progress in ENDED_S) events.push(eventOf(['finish', {}], at, given.by!));
  return events;
}

/** How long ago a finished repair was finished. */
const ENDED_S: Readonly<Partial<Record<DemoJob['progress'], number>>> = { finished: 90 * 60, 'just-finished': 60 };

type Said = { readonly [Type in EventType]: readonly [Type, EventData[Type]] }[EventType];

function eventOf([type, data]: Said, at: number, by: string): BenchEvent {
  return { id: randomUUID(), type, at: new Date(at).toISOString(), by, data } as BenchEvent;
}

function countFor(progress: DemoJob['progress'], { ops, plan }: Ahead): number {
  if (progress in ENDED_S) return ops.length;
  if (progress === 'bare-frame') return ops.findIndex((op) => op.stage === 'move');
  if (progress === 'prepared') return ops.findIndex((op) => op.id === 'prepare') + 1;
  if (progress === 'at-the-seal') return ops.findIndex((op) => op.id === 'test:before');
  if (progress === 'spilled') return ops.findIndex((op) => op.id === plan.rebuild[0]?.id);
  return ops.findIndex((op) => op.id === plan.strip[Math.floor(plan.strip.length * 0.75)]?.id);
}

function saidFor(map: DeviceMap, job: Job, op: Op, ahead: Ahead, failing: readonly string[] = []): Said[] {
  if (op.name === 'agree') {
    return [['told', { items: ahead.untold.map((each) => each.text), who: 'the owner', how: 'here' }]];
  }
  if (op.name === 'prepare') {
    const items = benchItems(map, job.targets, { ...settled(map, job.policy).policy, ...DEFAULT_LIMITS }, ahead.ops);
    return [['prepared', { items: items.map((each) => each.id), skipped: [] }]];
  }
  const stage = op.id === 'test:before' ? 'before' : 'after';
  const tests = op.name === 'test' ? (op.functions ?? []) : [];
  return [
    ...tests.map((id): Said => ['test', { function: id, result: failing.includes(id) ? 'fails' : 'works', stage }]),
    ['did', { steps: [doneStep(op)] }],
  ];
}

function intake(map: DeviceMap, given: DemoJob): Said[] {
  if (given.progress === 'new') return [];
  const fails = new Set(given.fails);
  return [
    ...(given.words ? [['words', { text: given.words }] as Said] : []),
    ...map.functions.map(({ id }): Said => [
      'test',
      { function: id, result: fails.has(id) ? 'fails' : 'works', stage: 'intake' },
    ]),
    ...(given.damage ?? []).map((each): Said => ['damage', each]),
    ...(given.charge === undefined ? [] : [['charge', { charge: given.charge, source: 'typed' }] as Said]),
    ...(given.thickness_mm === undefined ? [] : [['measure', { thickness_mm: given.thickness_mm }] as Said]),
  ];
}

function partEvents(given: DemoPart, now: Date, zone: string): Said[] {
  const part = randomUUID();
  const arrived = addedDays(todayIn(zone, now), -given.arrivedDaysAgo);
  const { mapPart, source, price, variant } = given;
  const number = given.numbers?.[0]?.value ?? '';
  return [
    [
      'part-arrived',
      { part, mapPart, source, arrived, window_days: 30, ...(price ? { price } : {}), ...(variant ? { variant } : {}) },
    ],
    ...(given.looked ? [['part-looked', { part, ...given.looked }] as Said] : []),
    ...(given.numbers ?? []).map((each): Said => ['part-number', { part, ...each }]),
    ...(given.asked ?? []).map((answer): Said => [
      'part-asked',
      { part, answer, where: REGISTRY_NAME, number, at: now.toISOString(), simulated: true },
    ]),
    ...(given.decision ? [['part-decided', { part, ...given.decision }] as Said] : []),
    ...(given.sentBack ? [['part-sent-back', { part, date: todayIn(zone, now), text: given.sentBack }] as Said] : []),
  ];
}
