import { type DeviceMap } from '../../model/device-map/index.ts';
import { type Problem, Refusal, wrong } from '../../model/refusal/index.ts';
import { type Mechanism, mechanismOf } from '../../planner/holds/index.ts';
import { mapAsTold } from '../../teardown/infer/index.ts';
import { type Told, toldProblem, toldSoFar } from '../../teardown/record/index.ts';
import { type BenchEvent, EVENTS, type Job, rowOf } from '../events/index.ts';
import { chargeProblem, notPrepared, type Objection, objection } from '../rules/index.ts';
import { type JobState, type Surroundings, UNKNOWN } from '../state/index.ts';
import { foldJob, withEvent } from './fold.ts';

/**
 * A job with the map that it goes by. Of most jobs that is the one that it was taken in with; a device that is taken apart without
 * a map has the one that its own events tell.
 */
export interface Going {
  /** the map that the job was taken in with */
  readonly base: DeviceMap;
  readonly mechanism: Mechanism;
  readonly state: JobState;
}

/** A job folded to its last event. */
export function goingOf(base: DeviceMap, job: Job, events: readonly BenchEvent[]): Going {
  const mechanism = mechanismAsTold(base, toldIn(events));
  return { base, mechanism, state: foldJob(mechanism, job, events) };
}

/** The map that a job goes by, from what its events tell of the device; the same mechanism for the same events. */
export function mechanismAsTold(base: DeviceMap, told: readonly Told[]): Mechanism {
  return mechanismOf(told.length > 0 ? mapAsTold(base, told) : base);
}

/** What events tell of a device that has no map, those that were undone left out. */
export function toldIn(events: readonly BenchEvent[]): readonly Told[] {
  const undone = new Set(events.flatMap((each) => (each.type === 'undo' && !each.unreadable ? [each.data.event] : [])));
  // a photograph that is taken back shows nothing any more
  const isGone = (each: BenchEvent) => undone.has(each.id) || (each.type === 'layer' && undone.has(each.data.photo));
  return events.filter((each) => tellsMap(each) && !each.unreadable && !isGone(each)) as unknown as readonly Told[];
}

/**
 * Judges a new event and takes it, as `withEvent` does, also where it changes the map that the job goes by: then everything is
 * folded anew on that map.
 */
export function goingOn(going: Going, event: BenchEvent, around: Surroundings = UNKNOWN): Going | Objection {
  const { base, mechanism, state } = going;
  if (!changesMap(state, event)) {
    const outcome = withEvent(mechanism, state, event, around);
    return 'problem' in outcome ? outcome : { base, mechanism, state: outcome.state };
  }
  const objected = objection(mechanism, state, event, around) ?? notSo(base, state, event);
  if (objected) return objected;
  try {
    const next = goingOf(base, state.job, [...state.events, event]);
    const held = notPrepared(next.mechanism, state, event) ?? besideCell(next.mechanism, state, event);
    return held ? { problem: held } : next;
  } catch (error) {
    if (error instanceof Refusal) return { problem: error };
    throw error;
  }
}

/** What is cut beside a cell is held against the device as it was before, on the map that has the cut. */
function besideCell(mechanism: Mechanism, { job, events }: JobState, event: BenchEvent): Problem | null {
  return event.type === 'came-off' ? chargeProblem(mechanism, foldJob(mechanism, job, events), event) : null;
}

function notSo(base: DeviceMap, state: JobState, event: BenchEvent): Objection | null {
  if (event.type === 'undo') return null;
  if (event.type === 'layer' && !state.photos.some(({ id }) => id === event.data.photo))
    return { problem: wrong('photo', 'This repair has no such photograph.', 'Send the photograph (`photo`) first.') };
  const problem = toldProblem(base, toldSoFar(base, toldIn(state.events)), event as unknown as Told);
  return problem && { problem };
}

function tellsMap({ type }: BenchEvent): boolean {
  return rowOf(type)?.tellsMap === true;
}

/** Does it change the map that the job goes by? */
export function changesMap({ inForce }: Pick<JobState, 'inForce'>, event: BenchEvent): boolean {
  if (event.type !== 'undo') return EVENTS[event.type].tellsMap === true;
  const undone = inForce.findLast(({ id }) => id === event.data.event);
  return undone !== undefined && tellsMap(undone);
}
