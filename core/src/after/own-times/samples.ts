import { type DeviceMap, type Joint, jointById } from '../../model/device-map/index.ts';
import { type Op, secondsToLay, secondsToScrape, TIMES, usualSeconds } from '../../planner/drafts/index.ts';
import type { BenchEvent, DoneStep, EventType } from '../../job/events/index.ts';

/** How long one step took, and what it was thought to take; both for one point where it has points. */
export interface TimeSample {
  readonly kind: string;
  readonly type?: string;
  readonly style?: string;
  readonly each?: true;
  readonly seconds: number;
  readonly guess: number;
}

/** Hands are on the next step from here. */
export const STARTS: ReadonlySet<EventType> = new Set<EventType>([
  'did',
  'inspected',
  'resume',
  'test',
  'aired',
  'prepared',
]);

/** Longer than so many times the guess, and than so many seconds, is a talk and no step. */
const TALK = 8;
const TALK_S = 120;
/** Shorter than this is a tick afterwards. */
const TICK_S = 1;

/**
 * The times of a repair's steps: from the press before to its own. Only steps that were pressed singly, with nothing said,
 * paused, waited for or undone in between, count.
 * @param events all of a job, those that were undone too
 */
export function samplesOf(map: DeviceMap, events: readonly BenchEvent[]): TimeSample[] {
  const undone = new Set(events.flatMap((each) => (each.type === 'undo' ? [each.data.event] : [])));
  const samples: TimeSample[] = [];
  let start: number | null = null;
  for (const event of events) {
    const at = Date.parse(event.at);
    const step = event.type === 'did' ? singleStep(event) : null;
    if (step && start !== null && !undone.has(event.id)) {
      const sample = sampleOf(map, step, (at - start) / 1000);
      if (sample) samples.push(sample);
    }
    start = STARTS.has(event.type) ? at : null;
  }
  return samples;
}

function singleStep({ data }: BenchEvent & { type: 'did' }): DoneStep | null {
  return data.steps.length === 1 && data.anyway === undefined ? data.steps[0]! : null;
}

function sampleOf(map: DeviceMap, step: DoneStep, taken_s: number): TimeSample | null {
  const joint = jointById(map, step.joint);
  const guess = guessOf(step, joint);
  if (guess === null || guess <= 0 || taken_s < TICK_S || taken_s > Math.max(TALK_S, guess * TALK)) return null;
  const points = joint && 'points' in joint && isTurned(step) ? (joint.points?.length ?? 0) : 0;
  const count = Math.max(1, points);
  const style = joint && 'style' in joint ? joint.style : undefined;
  return {
    kind: step.kind === 'procedure' ? step.name! : step.kind,
    ...(joint && step.kind !== 'procedure' ? { type: joint.type, ...(style ? { style } : {}) } : {}),
    ...(points > 0 ? { each: true as const } : {}),
    seconds: taken_s / count,
    guess: guess / count,
  };
}

function isTurned({ kind }: DoneStep): boolean {
  return kind === 'release' || kind === 'make';
}

/** What the step is thought to take, hands-on; null for what waits, is tried, or is settled before the work. */
export function guessOf(step: DoneStep, joint: Joint | undefined): number | null {
  if (step.kind !== 'procedure') return usualSeconds(step.kind as Exclude<Op['kind'], 'procedure'>, joint);
  const bond = joint?.type === 'bond' ? joint : null;
  switch (step.name) {
    case 'clean':
      return bond && secondsToScrape(bond);
    case 'lay':
      return bond && secondsToLay(bond, null).lay;
    case 'wipe':
      return TIMES.wipe;
    case 'liner-off':
      return TIMES.liner;
    case 'film-off':
      return TIMES.filmPart;
    case 'film':
      return TIMES.film;
    case 'count':
      return TIMES.count;
    case 'power-off':
      return TIMES.powerOff;
    default:
      return null;
  }
}
