import type { Mechanism } from '../holds/index.ts';
import { thingName } from '../plan/index.ts';
import { leaveOut } from '../screws/index.ts';
import { atDesk, type PartEvent } from './desk.ts';
import type { BenchEvent, EventData, EventType } from './events.ts';
import { notPrepared } from './gate.ts';
import { atIntake, type IntakeEvent } from './intake.ts';
import { INTAKE_EVENTS } from './intake-events.ts';
import type { Job } from './job.ts';
import { atOpening, type OpeningEvent } from './opening.ts';
import { OPENING_EVENTS } from './opening-events.ts';
import { withoutTimer } from './mark.ts';
import { PART_EVENTS } from './part-events.ts';
import { asItCame, newlyReached } from './reached.ts';
import { type JobState, newJob, type Outcome } from './state.ts';
import { did, screwFound, screwLaid } from './steps.ts';
import { withTrouble } from './trouble.ts';

/**
 * Folds a job's events. Accepted once is accepted for good, also where a later version would refuse it: such an event
 * changes nothing, and stays in the record.
 */
export function foldJob(mechanism: Mechanism, job: Job, events: readonly BenchEvent[]): JobState {
  let state = newJob(mechanism, job);
  for (const event of events) {
    const outcome = takenIn(mechanism, state, event);
    state = 'state' in outcome ? outcome.state : { ...state, events: [...state.events, event] };
  }
  return state;
}

/** Judges and takes a new event. Never throws for anything that its schema lets through. */
export function withEvent(mechanism: Mechanism, state: JobState, event: BenchEvent): Outcome {
  const outcome = takenIn(mechanism, state, event);
  const gate = 'state' in outcome ? notPrepared(mechanism, state, event) : null;
  return gate ? { problem: gate } : outcome;
}

function takenIn(mechanism: Mechanism, state: JobState, event: BenchEvent): Outcome {
  const outcome = event.type === 'undo' ? undone(mechanism, state, event) : stood(mechanism, state, event);
  if ('problem' in outcome) return outcome;
  return { state: { ...outcome.state, events: [...state.events, event] } };
}

/** Undo is an event like any other: the job is folded anew without the one it takes back. */
function undone(mechanism: Mechanism, state: JobState, event: BenchEvent & { type: 'undo' }): Outcome {
  const last = state.standing.findLast((each) => isUndoable(each));
  if (!last) return { problem: 'There is nothing to undo.' };
  if (last.id !== event.data.event)
    return { problem: 'Only the last thing done can be undone; something else came after it.' };
  const standing = state.standing.filter((each) => each.id !== last.id);
  let without = newJob(mechanism, state.job);
  for (const each of standing) {
    const outcome = stood(mechanism, without, each);
    if ('state' in outcome) without = outcome.state;
  }
  return { state: { ...without, standing } };
}

/** Can this be taken back by an undo? */
export function isUndoable(event: BenchEvent): boolean {
  return !['note', 'heat-reading', 'undo', 'pause', 'resume', 'stop', 'clear', 'end', 'retract'].includes(event.type);
}

function stood(mechanism: Mechanism, state: JobState, event: BenchEvent): Outcome {
  const outcome = taken(mechanism, state, event);
  return 'problem' in outcome ? outcome : { state: { ...outcome.state, standing: [...state.standing, event] } };
}

function taken(mechanism: Mechanism, state: JobState, event: BenchEvent): Outcome {
  if (state.ended && event.type !== 'note') {
    return { problem: `The lead has ended this repair (${state.ended.text}). Only notes are taken.` };
  }
  if (state.finished && !['note', 'finish', 'photo', 'retract'].includes(event.type)) {
    return { problem: 'This repair is finished. Undo the finish, or take a note.' };
  }
  if (state.stopped && HELD_BY_A_STOP.has(event.type)) {
    return { problem: `Stopped (${state.stopped.reason}). The lead clears it before anything else is done.` };
  }
  const { at, by } = event;
  if (isOf(INTAKE_EVENTS, event)) return atIntake(mechanism, state, event as IntakeEvent);
  if (isOf(PART_EVENTS, event)) return atDesk(mechanism, state, event as PartEvent);
  if (isOf(OPENING_EVENTS, event)) return atOpening(mechanism, state, event as OpeningEvent);
  return worked(mechanism, state, event as WorkEvent, at, by);
}

/** What waits until the lead has cleared a stop: everything that goes on with the work. */
const HELD_BY_A_STOP: ReadonlySet<string> = new Set<EventType>([
  'did',
  'screw',
  'timer',
  'finish',
  'targets',
  'prepared',
  'policy',
  'transplant-allowed',
  'transplant-done',
  'heat-on',
  'edge',
  'solvent',
]);

function isOf(events: object, event: BenchEvent): boolean {
  return Object.hasOwn(events, event.type);
}

type WorkEvent = Exclude<BenchEvent, IntakeEvent | OpeningEvent | PartEvent>;

function worked(mechanism: Mechanism, state: JobState, event: WorkEvent, at: string, by: string): Outcome {
  switch (event.type) {
    case 'note':
    case 'undo':
      return { state };
    case 'did':
      return did(mechanism, state, event.data);
    case 'screw':
      return screwLaid(mechanism, state, event.data);
    case 'timer':
      return {
        state: { ...state, timers: [...withoutTimer(state, event.data.step), { ...event.data, startedAt: at }] },
      };
    case 'trouble':
      return withTrouble(mechanism, state, { data: event.data, at, by });
    case 'found':
      return screwFound(state, event.data);
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
    case 'stop':
      return { state: { ...state, stopped: { ...event.data, at, by } } };
    case 'clear':
      return state.stopped ? { state: { ...state, stopped: null } } : { problem: 'Nothing is stopped.' };
    case 'end':
      return state.stopped
        ? { state: { ...state, ended: { ...event.data, at } } }
        : { problem: 'Only what is stopped is ended. Stop it first, or finish it.' };
    case 'finish':
      return finished(mechanism, state, at);
  }
}

function decided(
  mechanism: Mechanism,
  state: JobState,
  { about, text, board }: EventData['decision'],
  at: string,
  by: string,
): Outcome {
  const noted = { ...state, decisions: [...state.decisions, { about, text, at, by }] };
  if (about === 'missing-screw') return { state: { ...noted, ledger: leaveOut(state.ledger) } };
  if (about !== 'wet') return { state: noted };
  if (!state.wet) return { problem: 'This device was not taken in as wet.' };
  if (!board) return { problem: 'Say what becomes of the board: keep it, or replace it.' };
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
    return { problem: `There is no function “${result.function}” in this map.` };
  }
  const others = state.tests.filter((each) => each.function !== result.function || each.stage !== result.stage);
  return { state: { ...state, tests: [...others, result] } };
}

function retargeted(mechanism: Mechanism, state: JobState, { targets }: EventData['targets']): Outcome {
  for (const target of targets) {
    if ('full' in target) continue;
    const id = 'replace' in target ? target.replace : 'remove' in target ? target.remove : target.reach;
    if (!mechanism.part.has(id) && !('reach' in target && mechanism.joint.has(id))) {
      return { problem: `There is no part “${id}” in this map.` };
    }
  }
  const after = { ...state, targets, reached: new Set<string>() };
  return { state: { ...after, reached: newlyReached(mechanism, after) } };
}

function finished(mechanism: Mechanism, state: JobState, at: string): Outcome {
  const { device, ledger } = state;
  const open = mechanism.map.parts.find((_, part) => device.status[part] !== 0);
  if (open) return { problem: `${open.name} is not back in its place.` };
  const lacking = new Set(
    state.targets.flatMap((each) => ('replace' in each ? (asItCame(state, each).newLacks ?? []) : [])),
  );
  const released = mechanism.map.joints.find(
    (each, joint) => device.released[joint] && !lacking.has(each.id) && !allNeverThere(state, each.id, mechanism),
  );
  if (released) return { problem: `${thingName(mechanism.map, released.id)} is not made again.` };
  if (ledger.lost.length > 0) return { problem: 'A screw is missing. Find it, or record a decision.' };
  return { state: { ...state, finished: at } };
}

function allNeverThere(state: JobState, id: string, mechanism: Mechanism): boolean {
  const joint = mechanism.map.joints.find((each) => each.id === id);
  return joint?.type === 'screw' && joint.points.every((point) => state.ledger.neverThere.has(`${id}/${point.id}`));
}
