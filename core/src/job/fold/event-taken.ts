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
  atTeardown,
  type ClosingEvent,
  type DeviationEvent,
  did,
  type IntakeEvent,
  type OpeningEvent,
  type PartEvent,
  type ScrewEvent,
  type TeardownEvent,
  screwFound,
  screwLaid,
  withCleared,
  withTimer,
  withTrouble,
} from '../rules/index.ts';
import {
  type BenchEvent,
  CLOSING_EVENTS,
  DEVIATION_EVENTS,
  type EventData,
  INTAKE_EVENTS,
  OPENING_EVENTS,
  PART_EVENTS,
  rowOf,
  SCREW_EVENTS,
  TEARDOWN_EVENTS,
} from '../events/index.ts';
import { grown, type JobState, newlyReached, type Outcome } from '../state/index.ts';

/** What an event changes; judged already, or accepted long ago. */
export function taken(mechanism: Mechanism, state: JobState, event: BenchEvent): Outcome {
  // an event type that only a newer version knows is kept, so that going back a version loses nothing, and changes
  // nothing here
  if (!rowOf(event.type) || event.unreadable) return { state };
  if (isOf(INTAKE_EVENTS, event)) return atIntake(mechanism, state, event as IntakeEvent);
  if (isOf(PART_EVENTS, event)) return atDesk(mechanism, state, event as PartEvent);
  if (isOf(OPENING_EVENTS, event)) return atOpening(mechanism, state, event as OpeningEvent);
  if (isOf(DEVIATION_EVENTS, event)) return atDeviation(mechanism, state, event as DeviationEvent);
  if (isOf(SCREW_EVENTS, event)) return atScrews(mechanism, state, event as ScrewEvent);
  if (isOf(CLOSING_EVENTS, event)) return atClosing(mechanism, state, event as ClosingEvent);
  if (isOf(TEARDOWN_EVENTS, event)) return atTeardown(mechanism, state, event as TeardownEvent);
  return worked(mechanism, state, event as WorkEvent);
}

function isOf(events: object, event: BenchEvent): boolean {
  return Object.hasOwn(events, event.type);
}

type WorkEvent = Exclude<
  BenchEvent,
  IntakeEvent | OpeningEvent | PartEvent | DeviationEvent | ScrewEvent | ClosingEvent | TeardownEvent
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
      return { problem: notInMap('targets', 'part or joint', id) };
    }
  }
  const after = { ...state, targets, reached: new Set<string>() };
  return { state: { ...after, reached: newlyReached(mechanism, after) } };
}
