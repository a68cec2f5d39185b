import type { Mechanism } from '../holds/index.ts';
import { keyOf } from '../screws/index.ts';
import type { BenchEvent, EventData, EventType } from './events.ts';
import { closesOverFault, failedTests } from './failed-test.ts';
import { notMissing } from './found.ts';
import { notShown } from './gate.ts';
import { notHandedOver } from './handing-over.ts';
import { heatProblem } from './heat-rules.ts';
import { leftOpen } from './left-open.ts';
import { screwsInWrong } from './screw-account.ts';
import { sealsIn } from './sealed-in.ts';
import type { JobState } from './state.ts';
import { type Surroundings, tooFarAhead } from './surroundings.ts';
import { undoProblem } from './undoable.ts';

/**
 * Why a new event can't be taken; null where it can, as far as the rules of safety go. It judges new events only: what was
 * accepted once is accepted for good (decision 0007).
 */
export function objection(
  mechanism: Mechanism,
  state: JobState,
  event: BenchEvent,
  around: Surroundings,
): string | null {
  return (
    tooFarAhead(event.at, around.now) ??
    overOrStopped(state, event) ??
    ofItsType(mechanism, state, event, around) ??
    closesOverFault(mechanism, state, event) ??
    sealsIn(mechanism, state, event) ??
    screwsInWrong(mechanism, state, event) ??
    heatProblem(mechanism, state, event, around)
  );
}

function overOrStopped(state: JobState, { type }: BenchEvent): string | null {
  if (state.ended && type !== 'note') {
    return `This repair has ended (${state.ended.text}). Only notes are taken.`;
  }
  if (state.finished && !AFTER_THE_END.has(type)) {
    return 'This repair is finished. Undo the finish, or take a note.';
  }
  if (state.stopped && HELD_BY_A_STOP.has(type)) {
    const reasons = state.stops.map(({ reason }) => reason).join(', ');
    return `Stopped (${reasons}). The lead clears it before anything else is done.`;
  }
  return null;
}

const AFTER_THE_END: ReadonlySet<EventType> = new Set<EventType>([
  'note',
  'photo',
  'photos-chosen',
  'handed-over',
  'retract',
  'undo',
  'stop',
  'clear',
]);

/** What waits until the lead has cleared a stop: everything that goes on with the work. */
const HELD_BY_A_STOP: ReadonlySet<EventType> = new Set<EventType>([
  'did',
  'screw',
  'timer',
  'finish',
  'handed-over',
  'targets',
  'prepared',
  'policy',
  'transplant-allowed',
  'transplant-done',
  'heat-on',
  'edge',
  'solvent',
]);

function ofItsType(mechanism: Mechanism, state: JobState, event: BenchEvent, around: Surroundings): string | null {
  switch (event.type) {
    case 'undo':
      return undoProblem(state.standing, event.data.event);
    case 'clear':
      return notToBeCleared(state, event, around);
    case 'end':
      return notToBeEnded(state, event, around);
    case 'transplant-allowed':
      return onlyTheLead(event.by, around, 'A cell transplant is for a lead to allow');
    case 'finish':
      return notFinished(mechanism, state, around);
    case 'handed-over':
      return notHandedOver(mechanism, state, event.data, event.at);
    case 'prepared':
      return notShown(mechanism, state, event.data);
    case 'not-mapped':
      return event.data.what === 'missing' ? notMissing(mechanism, state, event.data.part!) : null;
    case 'trouble':
      return event.data.kind === 'screw-lost' || event.data.kind === 'no-place' ? notOut(state, event.data) : null;
    case 'decision':
      if (event.data.about === 'failed-test') return notFailed(mechanism, state, event.data.function!);
      return event.data.about === 'left-open' ? notDecided(mechanism, state, event.data.what!, around) : null;
    default:
      return null;
  }
}

function onlyTheLead(by: string, around: Surroundings, what: string): string | null {
  if (around.roleOf(by) === 'lead') return null;
  return around.hasLead
    ? `${what}; ${by} is none. Send it under the lead's own name.`
    : `${what}, and nobody leads this workshop yet. Name a lead first.`;
}

function notToBeCleared(state: JobState, { by, data }: BenchEvent & { type: 'clear' }, around: Surroundings) {
  if (state.stops.length === 0) return 'Nothing is stopped.';
  const isOther = data.stop !== undefined && !state.stops.some(({ id }) => id === data.stop);
  if (isOther) return 'stop: No stop that holds has this id.';
  if (data.stop === undefined && state.stops.length > 1) {
    return `stop: ${state.stops.length} stops hold (${state.stops.map(({ reason }) => reason).join(', ')}). Say which of them, each with its reason.`;
  }
  return onlyTheLead(by, around, 'A stop is for a lead to clear');
}

function notToBeEnded(state: JobState, { by }: BenchEvent & { type: 'end' }, around: Surroundings) {
  if (state.opening.heating) return 'The heat source is on. Take it off before the repair ends.';
  if (state.stopped) return onlyTheLead(by, around, 'What is stopped is for a lead to end');
  if (state.done.length === 0) return null;
  return onlyTheLead(by, around, 'What was begun is closed up and finished, or ended by a lead');
}

function notFinished(mechanism: Mechanism, state: JobState, around: Surroundings): string | null {
  if (state.done.length === 0)
    return 'Nothing was done to the device: end the repair with a reason instead of finishing it.';
  const open = leftOpen(mechanism, state, around);
  if (open.length === 0) return null;
  const shown = open.slice(0, MOST_SHOWN).map(({ text }) => text);
  const more = open.length > MOST_SHOWN ? [`${open.length - MOST_SHOWN} more`] : [];
  return `Not finished: ${[...shown, ...more].join('; ')}. Do it, or decide about each by name, with the reason.`;
}

const MOST_SHOWN = 12;

function notFailed(mechanism: Mechanism, state: JobState, id: string): string | null {
  return failedTests(mechanism.map, state).includes(id) ? null : `function: No failed test of “${id}” stands.`;
}

function notDecided(mechanism: Mechanism, state: JobState, what: string, around: Surroundings): string | null {
  const found = leftOpen(mechanism, state, around).find((each) => each.what === what);
  if (!found) return `what: Nothing that is left open is called “${what}”.`;
  return found.isFixed ? `${found.text}. That is not decided away: do it.` : null;
}

/**
 * Only a screw that came out can be lost: one that is still in the device was last seen in its hole, not on the mat.
 */
function notOut({ ledger }: JobState, { joint, point }: EventData['trouble']): string | null {
  if (joint === undefined || point === undefined) return 'Name the screw: its joint and its point.';
  const isOut = ledger.onMat.some((each) => keyOf(each) === keyOf({ joint, point }));
  return isOut
    ? null
    : `Screw “${point}” is not on the mat, so it is not lost or left over there. Say first that it is out.`;
}
