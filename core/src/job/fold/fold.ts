import type { Mechanism } from '../../planner/holds/index.ts';
import {
  chargeProblem,
  nothingAhead,
  notPrepared,
  type Objection,
  objection,
  stopOf,
  withStop,
  withStopsOf,
} from '../rules/index.ts';
import type { BenchEvent, Job } from '../events/index.ts';
import { folding, grown, type JobState, newJob, type Outcome, type Surroundings, UNKNOWN } from '../state/index.ts';
import { checkpointsOf, afterOneMore, isCheckpoint, withCheckpoints } from './checkpoints.ts';
import { taken } from './event-taken.ts';

/**
 * Folds a job's events. Accepted once is accepted for good, also where a later version would refuse it: what no longer
 * can be taken changes nothing else, and stays in the record. Stops are facts: those of what was undone hold as well.
 */
export function foldJob(mechanism: Mechanism, job: Job, events: readonly BenchEvent[]): JobState {
  return foldOn(mechanism, newJob(mechanism, job), events, undoneBy(events));
}

/** Ids of the events that were undone, in whatever order and however often that was said. */
function undoneBy(events: readonly BenchEvent[]): ReadonlySet<string> {
  return new Set(events.flatMap((each) => (each.type === 'undo' && !each.unreadable ? [each.data.event] : [])));
}

/** Folds on from a state, where a job is too long for one turn; `undone` are those of the whole job. */
export function foldOn(
  mechanism: Mechanism,
  state: JobState,
  next: readonly BenchEvent[],
  undone: ReadonlySet<string>,
): JobState {
  return played(mechanism, state, next, undone);
}

/**
 * Judges a new event and takes it. Never throws for anything that its schema lets through.
 * @param around what it is judged by besides its own job; where that is left out, the server judges again
 */
export function withEvent(
  mechanism: Mechanism,
  state: JobState,
  event: BenchEvent,
  around: Surroundings = UNKNOWN,
): Outcome | Objection {
  const objected = objection(mechanism, state, event, around);
  if (objected) return objected;
  if (event.type === 'undo') return { state: undone(mechanism, state, event) };
  const outcome = taken(mechanism, nothingAhead(state, event), event);
  if ('problem' in outcome) return outcome;
  const unprepared = notPrepared(mechanism, state, event) ?? chargeProblem(mechanism, state, event);
  if (unprepared) return { problem: unprepared };
  return { state: kept(state, withFacts(mechanism, outcome.state, event), event) };
}

/** The state after an event, in the record and among what stands. */
function kept(before: JobState, after: JobState, event: BenchEvent): JobState {
  const state = { ...after, events: grown(before.events, event), inForce: grown(before.inForce, event) };
  return afterOneMore(before, state);
}

function withFacts(mechanism: Mechanism, state: JobState, event: BenchEvent): JobState {
  const stop = stopOf(mechanism, state, event);
  return stop ? withStop(state, stop) : state;
}

/**
 * An undo is kept in the record as an event. What stands is folded anew without the event it takes back, from the last
 * kept state before that one, since a fold has no way to run backwards.
 */
function undone(mechanism: Mechanism, state: JobState, event: BenchEvent & { type: 'undo' }): JobState {
  const at = state.inForce.findLastIndex((each) => each.id === event.data.event);
  const events = grown(state.events, event);
  if (at < 0) return { ...state, events };
  const before = checkpointsOf(state).filter((each) => each.inForce.length <= at);
  const from = before.at(-1) ?? newJob(mechanism, state.job);
  const again = state.inForce.slice(from.inForce.length).filter((each) => each.id !== event.data.event);
  return withCheckpoints({ ...withStopsOf(played(mechanism, from, again, NONE), state), events }, before);
}

const NONE: ReadonlySet<string> = new Set();

/** Events that were accepted, one after the other; of those that were undone only their stops. */
function played(
  mechanism: Mechanism,
  start: JobState,
  all: readonly BenchEvent[],
  undoneIds: ReadonlySet<string>,
): JobState {
  const passed: JobState[] = [];
  const end = folding((keep) => {
    let state = start;
    all.forEach((event, index) => {
      if (isCheckpoint(all.length - index)) {
        keep();
        passed.push(state);
      }
      const stands = event.type !== 'undo' && !undoneIds.has(event.id);
      const before = nothingAhead(state, event);
      const outcome = stands ? taken(mechanism, before, event) : { state: before };
      const after = withFacts(mechanism, 'state' in outcome ? outcome.state : before, event);
      state = {
        ...after,
        events: grown(state.events, event),
        inForce: stands ? grown(state.inForce, event) : state.inForce,
      };
    });
    return state;
  });
  return withCheckpoints(end, [...checkpointsOf(start), ...passed]);
}
