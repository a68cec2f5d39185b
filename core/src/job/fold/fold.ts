import { jointById } from '../../model/device-map/index.ts';
import { notInMap, wrong } from '../../model/refusal/index.ts';
import type { Mechanism } from '../../planner/holds/index.ts';
import { leaveOut } from '../../screws/screws/index.ts';
import {
  atClosing,
  atDesk,
  atDeviation,
  atIntake,
  atOpening,
  atScrews,
  chargeProblem,
  type ClosingEvent,
  type DeviationEvent,
  did,
  type IntakeEvent,
  nothingAhead,
  notPrepared,
  type Objection,
  objection,
  type OpeningEvent,
  type PartEvent,
  type ScrewEvent,
  screwFound,
  screwLaid,
  stopOf,
  withCleared,
  withStop,
  withStopsOf,
  withTimer,
  withTrouble,
} from '../rules/index.ts';
import {
  type BenchEvent,
  CLOSING_EVENTS,
  DEVIATION_EVENTS,
  type EventData,
  INTAKE_EVENTS,
  type Job,
  OPENING_EVENTS,
  PART_EVENTS,
  rowOf,
  SCREW_EVENTS,
} from '../events/index.ts';
import {
  folding,
  grown,
  type JobState,
  newJob,
  newlyReached,
  type Outcome,
  type Surroundings,
  UNKNOWN,
} from '../state/index.ts';

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
  const earlier = checkpoints.get(before) ?? [];
  checkpoints.set(state, state.inForce.length % EVERY === 0 ? thinned([...earlier, before]) : earlier);
  return state;
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
  const before = (checkpoints.get(state) ?? []).filter((each) => each.inForce.length <= at);
  const from = before.at(-1) ?? newJob(mechanism, state.job);
  const again = state.inForce.slice(from.inForce.length).filter((each) => each.id !== event.data.event);
  const after = { ...withStopsOf(played(mechanism, from, again, NONE), state), events };
  checkpoints.set(after, before);
  return after;
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
      if (BACK.has(all.length - index)) {
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
  checkpoints.set(end, [...(checkpoints.get(start) ?? []), ...passed]);
  return end;
}

/**
 * Earlier states of a job, to fold on from when something is undone. Kept beside the states, which are plain values.
 */
const checkpoints = new WeakMap<JobState, readonly JobState[]>();

/** One state in so many is kept as events come in, and from a fold those so many events before its end. */
const EVERY = 32;
const BACK: ReadonlySet<number> = new Set([16, 128, 1024, 8192]);

/**
 * Keeps fewer of them the farther back they are, so that a long job holds a few dozen states and not thousands: an
 * undo is nearly always of something recent.
 */
function thinned(all: readonly JobState[]): readonly JobState[] {
  const last = all.at(-1)!.inForce.length;
  const kept: JobState[] = [];
  let gap = 0;
  for (const each of all.toReversed()) {
    const back = last - each.inForce.length;
    if (kept.length > 0 && back < gap) continue;
    kept.push(each);
    gap = Math.max(back + EVERY, back * 1.25);
  }
  return kept.toReversed();
}

function taken(mechanism: Mechanism, state: JobState, event: BenchEvent): Outcome {
  // an event type that only a newer version knows is kept, so that going back a version loses nothing, and changes
  // nothing here
  if (!rowOf(event.type) || event.unreadable) return { state };
  if (isOf(INTAKE_EVENTS, event)) return atIntake(mechanism, state, event as IntakeEvent);
  if (isOf(PART_EVENTS, event)) return atDesk(mechanism, state, event as PartEvent);
  if (isOf(OPENING_EVENTS, event)) return atOpening(mechanism, state, event as OpeningEvent);
  if (isOf(DEVIATION_EVENTS, event)) return atDeviation(mechanism, state, event as DeviationEvent);
  if (isOf(SCREW_EVENTS, event)) return atScrews(mechanism, state, event as ScrewEvent);
  if (isOf(CLOSING_EVENTS, event)) return atClosing(mechanism, state, event as ClosingEvent);
  return worked(mechanism, state, event as WorkEvent);
}

function isOf(events: object, event: BenchEvent): boolean {
  return Object.hasOwn(events, event.type);
}

type WorkEvent = Exclude<
  BenchEvent,
  IntakeEvent | OpeningEvent | PartEvent | DeviationEvent | ScrewEvent | ClosingEvent
>;

function worked(mechanism: Mechanism, state: JobState, event: WorkEvent): Outcome {
  const { at, by } = event;
  switch (event.type) {
    case 'note':
    case 'undo':
    case 'stop':
      return { state };
    case 'did':
      return did(mechanism, state, event.data);
    case 'screw':
      return screwLaid(mechanism, state, event.data);
    case 'click':
      return clicked(mechanism, state, event.data);
    case 'timer':
      return { state: { ...state, timers: withTimer(state, { ...event.data, startedAt: at }) } };
    case 'trouble':
      return withTrouble(mechanism, state, { data: event.data, at, by });
    case 'found':
      return screwFound(mechanism, state, event.data);
    case 'decision':
      return decided(mechanism, state, event.data, at, by);
    case 'test':
      return tested(mechanism, state, { ...event.data, at, by });
    case 'targets':
      return retargeted(mechanism, state, event.data);
    case 'pause':
      return { state: { ...state, paused: true } };
    case 'resume':
      return { state: { ...state, paused: false } };
    case 'clear':
      return { state: withCleared(state, event) };
    case 'end':
      return { state: { ...state, ended: { text: event.data.text, lead: by, at } } };
    case 'finish':
      return { state: { ...state, finished: at } };
  }
}

function clicked(mechanism: Mechanism, state: JobState, { joint, heard }: EventData['click']): Outcome {
  const { type } = jointById(mechanism.map, joint) ?? {};
  if (type !== 'connector') return { problem: notInMap('joint', 'plug', joint) };
  const unsure = new Set(state.unsure);
  if (heard === 'not-sure') unsure.add(joint);
  else unsure.delete(joint);
  return { state: { ...state, unsure } };
}

function decided(
  mechanism: Mechanism,
  state: JobState,
  { about, text, what, board }: EventData['decision'],
  at: string,
  by: string,
): Outcome {
  if (about === 'wet' && !state.wet) return { problem: wrong('about', 'This device was not taken in as wet.') };
  if (about === 'wet' && !board)
    return { problem: wrong('board', 'Nothing says what becomes of the board.', 'Keep it, or replace it.') };
  const decision = { about, text, at, by, ...(what === undefined ? {} : { what }) };
  const noted: JobState = {
    ...state,
    decisions: grown(state.decisions, decision),
    chargeDecided: about === 'charge' || state.chargeDecided,
  };
  if (about === 'missing-screw') return { state: { ...noted, ledger: leaveOut(state.ledger) } };
  if (!state.wet || !board) return { state: noted };
  const wet = { ...state.wet, decided: { board, text } };
  const boards = boardsToReplace(mechanism, state);
  const isTarget = (id: string) => state.targets.some((each) => 'replace' in each && each.replace === id);
  const more = board === 'replace' ? boards.filter(({ id }) => !isTarget(id)).map(({ id }) => ({ replace: id })) : [];
  return { state: { ...noted, wet, targets: [...state.targets, ...more] } };
}

/** The boards on which corrosion was marked; where none is marked, the largest. */
function boardsToReplace(mechanism: Mechanism, state: JobState): { readonly id: string }[] {
  const boards = mechanism.map.parts.filter((each) => each.kind === 'board' && !each.base);
  const corroded = boards.filter(({ id }) =>
    state.damage.some((mark) => mark.kind === 'corrosion' && mark.part === id),
  );
  const area = ({ box }: (typeof boards)[number]) => box.w * box.h;
  return corroded.length > 0 ? corroded : boards.toSorted((a, b) => area(b) - area(a)).slice(0, 1);
}

function tested(mechanism: Mechanism, state: JobState, result: JobState['tests'][number]): Outcome {
  if (!mechanism.map.functions.some((each) => each.id === result.function)) {
    return { problem: notInMap('function', 'function', result.function) };
  }
  const others = state.tests.filter((each) => each.function !== result.function || each.stage !== result.stage);
  return { state: { ...state, tests: [...others, result] } };
}

function retargeted(mechanism: Mechanism, state: JobState, { targets }: EventData['targets']): Outcome {
  for (const target of targets) {
    if ('full' in target) continue;
    const id = 'replace' in target ? target.replace : 'remove' in target ? target.remove : target.reach;
    if (!mechanism.part.has(id) && !('reach' in target && mechanism.joint.has(id))) {
      return { problem: wrong('', `There is no part “${id}” in this map.`) };
    }
  }
  const after = { ...state, targets, reached: new Set<string>() };
  return { state: { ...after, reached: newlyReached(mechanism, after) } };
}
