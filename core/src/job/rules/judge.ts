import { type Problem, wrong } from '../../model/refusal/index.ts';
import type { Mechanism } from '../../planner/holds/index.ts';
import { keyOf } from '../../screws/screws/index.ts';
import { type BenchEvent, type EventData, EVENTS, undoProblem } from '../events/index.ts';
import {
  closesOverFault,
  failedTests,
  type JobState,
  notAtThatTime,
  notHandedOver,
  pastTheCell,
  type Surroundings,
} from '../state/index.ts';
import { forALead } from './for-a-lead.ts';
import { notMissing } from './deviating.ts';
import { notShown } from './gate.ts';
import { heatProblem } from './heat-rules.ts';
import { ironAnyway } from './iron-at-cell.ts';
import { leftOpen } from './left-open.ts';
import { screwsInWrong } from './screw-account.ts';
import { sealsIn } from './sealed-in.ts';

/** Why an event is not taken. */
export interface Objection {
  readonly problem: Problem;
  /** a lead may say it: by the lead's own name, and with the lead's own secret */
  readonly needs?: 'lead' | 'secret';
}

/**
 * Why a new event can't be taken; null where it can, as far as the rules of safety go. It judges new events only: what was
 * accepted once is accepted for good (decision 0007).
 */
export function objection(
  mechanism: Mechanism,
  state: JobState,
  event: BenchEvent,
  around: Surroundings,
): Objection | null {
  // hands off, whatever a clock says
  if (event.type === 'stop') return null;
  const problem =
    notAtThatTime(event, state.job, around.now) ??
    notReal(event, around) ??
    notNow(state, event) ??
    ofItsType(mechanism, state, event, around) ??
    closesOverFault(mechanism, state, event) ??
    sealsIn(mechanism, state, event) ??
    screwsInWrong(mechanism, state, event) ??
    heatProblem(mechanism, state, event, around);
  if (problem !== null) return { problem };
  const unless = isLeads(event.by, around)
    ? null
    : (pastTheCell(mechanism, state, event, around.unit) ?? ironAnyway(mechanism.map, state, event));
  const what = forALead(state, event) ?? unless;
  return what === null ? null : onlyTheLead(event.by, around, what);
}

/** May everything be said that is a lead's? */
function isLeads(by: string, around: Surroundings): boolean {
  return around.roleOf(by) === 'lead' && around.isConfirmed(by);
}

function onlyTheLead(by: string, around: Surroundings, what: string): Objection | null {
  if (isLeads(by, around)) return null;
  if (!around.hasLead)
    return {
      problem: wrong('by', `${what}, and nobody leads this workshop yet.`, 'Name a lead first.'),
      needs: 'lead',
    };
  return around.roleOf(by) === 'lead'
    ? {
        problem: wrong('by', `${what}, and others work here too.`, `${by} confirms it with a secret of their own.`),
        needs: 'secret',
      }
    : { problem: wrong('by', `${what}; ${by} is none.`, "Send it under the lead's own name."), needs: 'lead' };
}

/** What only stands in for a real instrument, or runs faster than a clock, measures nothing outside of a demonstration. */
function notReal({ data }: BenchEvent, { hasStandIns }: Surroundings): Problem | null {
  if (hasStandIns) return null;
  if ('pace' in data && data.pace !== undefined)
    return wrong('pace', 'A clock that runs faster is for the demonstration only.', 'Leave it out.');
  return 'simulated' in data && data.simulated === true
    ? wrong(
        'simulated',
        'An instrument that only stands in for a real one is for the demonstration only.',
        'Measure it.',
      )
    : null;
}

/** Why it may not be told as the repair stands: stopped, finished, handed over, ended. */
function notNow(state: JobState, event: BenchEvent): Problem | null {
  const { ended, handedOver, finished, inStop } = EVENTS[event.type];
  if (state.ended && !ended) return wrong('', `This repair has ended (${state.ended.text}).`, 'Only notes are taken.');
  if (state.handedOver && handedOver === false) {
    return event.type === 'handed-over'
      ? wrong('', `It was handed over to ${state.handedOver.to} already.`)
      : wrong(
          '',
          `This device was handed over to ${state.handedOver.to}.`,
          'A note or a photograph adds to its record.',
        );
  }
  if (state.finished && !finished) return wrong('', 'This repair is finished.', 'Undo the finish, or take a note.');
  if (!state.stopped) return null;
  const passes = inStop === 'as-undone' ? takesBackTold(state, event) : inStop;
  if (passes) return null;
  const reasons = state.stops.slice(0, MOST_SHOWN).map(({ reason }) => reason);
  return wrong('', `Stopped (${reasons.join(', ')}).`, 'The lead clears it before anything else is done.');
}

/** Does an undo take back something that a stop lets be told? */
function takesBackTold({ inForce }: JobState, event: BenchEvent): boolean {
  const undone = event.type === 'undo' && inForce.findLast(({ id }) => id === event.data.event);
  return undone ? EVENTS[undone.type].inStop === true : false;
}

function ofItsType(mechanism: Mechanism, state: JobState, event: BenchEvent, around: Surroundings): Problem | null {
  switch (event.type) {
    case 'undo':
      return undoProblem(state.inForce, event.data.event);
    case 'clear':
      return notToBeCleared(state, event);
    case 'end':
      return state.opening.heating ? wrong('', 'The heat source is on.', 'Take it off before the repair ends.') : null;
    case 'finish':
      return notFinished(mechanism, state, around);
    case 'handed-over':
      return notHandedOver(mechanism, state, event.data, around.now ?? Date.parse(event.at));
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

function notToBeCleared(state: JobState, { data }: BenchEvent & { type: 'clear' }): Problem | null {
  if (state.stops.length === 0) return wrong('', 'Nothing is stopped.');
  const isOther = data.stop !== undefined && !state.stops.some(({ id }) => id === data.stop);
  if (isOther) return wrong('stop', 'No stop that holds has this id.', 'Name one that holds.');
  if (data.stop !== undefined || state.stops.length === 1) return null;
  const reasons = state.stops.slice(0, MOST_SHOWN).map(({ reason }) => reason);
  return wrong(
    'stop',
    `${state.stops.length} stops hold (${reasons.join(', ')}).`,
    'Say which of them, each with its reason.',
  );
}

function notFinished(mechanism: Mechanism, state: JobState, around: Surroundings): Problem | null {
  if (state.done.length === 0)
    return wrong('', 'Nothing was done to the device.', 'End the repair with a reason instead of finishing it.');
  const open = leftOpen(mechanism, state, around);
  if (open.length === 0) return null;
  const shown = open.slice(0, MOST_SHOWN).map(({ text }) => text);
  const more = open.length > MOST_SHOWN ? [`${open.length - MOST_SHOWN} more`] : [];
  return wrong(
    '',
    `Not finished: ${[...shown, ...more].join('; ')}.`,
    'Do it, or decide about each by name, with the reason.',
  );
}

const MOST_SHOWN = 12;

function notFailed(mechanism: Mechanism, state: JobState, id: string): Problem | null {
  return failedTests(mechanism.map, state).includes(id) ? null : wrong('function', `No failed test of “${id}” stands.`);
}

function notDecided(mechanism: Mechanism, state: JobState, what: string, around: Surroundings): Problem | null {
  const found = leftOpen(mechanism, state, around).find((each) => each.what === what);
  if (!found) return wrong('what', `Nothing that is left open is called “${what}”.`);
  return found.isFixed ? wrong('what', `${found.text}.`, 'That is not decided away: do it.') : null;
}

/**
 * Only a screw that came out can be lost: one that is still in the device was last seen in its hole, not on the mat.
 */
function notOut({ ledger }: JobState, { joint, point }: EventData['trouble']): Problem | null {
  if (joint === undefined || point === undefined)
    return wrong('point', 'Nothing says which screw it is.', 'Name its joint and its point.');
  const isOut = ledger.onMat.some((each) => keyOf(each) === keyOf({ joint, point }));
  return isOut
    ? null
    : wrong(
        'point',
        `Screw “${point}” is not on the mat, so it is not lost or left over there.`,
        'Say first that it is out.',
      );
}
