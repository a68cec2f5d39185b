import {
  applied,
  changesNothing,
  judge,
  type Mechanism,
  namedNeed,
  numberedOp,
  type PhysicalOp,
} from '../holds/index.ts';
import { type DoneOp, thingName } from '../plan/index.ts';
import {
  findAgain,
  keyOf,
  leaveOut,
  looseScrewsOf,
  missingFor,
  putBack,
  type Screw,
  takenOut,
} from '../screws/index.ts';
import type { BenchEvent, DoneStep, EventData } from './events.ts';
import type { Job } from './job.ts';
import { newlyReached } from './reached.ts';
import { type JobState, newJob, type Outcome } from './state.ts';
import { withTrouble } from './trouble.ts';

/** Folds a job's events. Events that were accepted once are taken again without question. */
export function foldJob(mechanism: Mechanism, job: Job, events: readonly BenchEvent[]): JobState {
  let state = newJob(mechanism, job);
  for (const event of events) {
    const outcome = withEvent(mechanism, state, event);
    if ('state' in outcome) state = outcome.state;
  }
  return state;
}

/** Takes one event. Never throws for anything that its schema lets through. */
export function withEvent(mechanism: Mechanism, state: JobState, event: BenchEvent): Outcome {
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
  return ['did', 'screw', 'timer', 'trouble', 'found', 'decision', 'test', 'targets', 'finish'].includes(event.type);
}

function stood(mechanism: Mechanism, state: JobState, event: BenchEvent): Outcome {
  const outcome = taken(mechanism, state, event);
  return 'problem' in outcome ? outcome : { state: { ...outcome.state, standing: [...state.standing, event] } };
}

function taken(mechanism: Mechanism, state: JobState, event: BenchEvent): Outcome {
  if (state.finished && !['note', 'finish'].includes(event.type)) {
    return { problem: 'This repair is finished. Undo the finish, or take a note.' };
  }
  if (state.stopped && ['did', 'screw', 'timer', 'finish', 'targets'].includes(event.type)) {
    return { problem: `Stopped (${state.stopped.reason}). The lead clears it before anything else is done.` };
  }
  const { at, by } = event;
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
      return { state: event.data.about === 'missing-screw' ? { ...state, ledger: leaveOut(state.ledger) } : state };
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
    case 'finish':
      return finished(mechanism, state, at);
  }
}

function withoutTimer(state: JobState, step: string) {
  return state.timers.filter((each) => each.step !== step);
}

function did(mechanism: Mechanism, state: JobState, { steps, anyway }: EventData['did']): Outcome {
  let next = state;
  for (const step of steps) {
    const outcome = stepDone(mechanism, next, step, anyway !== undefined);
    if ('problem' in outcome) return outcome;
    next = outcome.state;
  }
  return { state: next };
}

function stepDone(mechanism: Mechanism, state: JobState, step: DoneStep, anyway: boolean): Outcome {
  const marked: JobState = {
    ...state,
    steps: new Map(state.steps).set(step.id, (state.steps.get(step.id) ?? 0) + 1),
    added: withoutFirst(state.added, step.id),
    timers: withoutTimer(state, step.id),
    paused: false,
  };
  if (step.kind === 'procedure') {
    const isAdded = state.added.some((each) => each.step === step.id);
    if (state.steps.has(step.id) && !step.again && !isAdded) return { problem: `“${step.id}” is done already.` };
    return { state: marked };
  }
  const op = numbered(mechanism, step);
  if ('problem' in op) return op;
  const objection = objectionTo(mechanism, state, op.op, anyway);
  if (objection) return { problem: objection };
  const ledger = screwsMoved(mechanism, state, step, anyway);
  if ('problem' in ledger) return ledger;
  const device = applied(mechanism, state.device, op.op);
  const done: DoneOp = { ...namedDone(step), ...(step.new ? { new: true } : {}) };
  const after = { ...marked, device, done: [...state.done, done], ledger: ledger.ledger };
  return { state: { ...after, reached: newlyReached(mechanism, after) } };
}

function withoutFirst(added: JobState['added'], step: string): JobState['added'] {
  const index = added.findIndex((each) => each.step === step);
  return index < 0 ? added : added.toSpliced(index, 1);
}

function numbered(mechanism: Mechanism, step: DoneStep): { op: PhysicalOp } | { problem: string } {
  try {
    return { op: numberedOp(mechanism, namedDone(step)) };
  } catch (error) {
    return { problem: (error as Error).message };
  }
}

function namedDone(step: DoneStep): DoneOp {
  const { kind, joint, part, onto, staysOpen } = step as DoneStep & { kind: DoneOp['kind'] };
  return {
    kind,
    ...(joint === undefined ? {} : { joint }),
    ...(part === undefined ? {} : { part }),
    ...(onto === undefined ? {} : { onto }),
    ...(staysOpen === undefined ? {} : { staysOpen }),
  };
}

/** Why an operation is refused, in words that name what still holds. */
function objectionTo(mechanism: Mechanism, state: JobState, op: PhysicalOp, anyway: boolean): string | null {
  const verdict = judge(mechanism, state.device, op);
  if (verdict.verdict === 'nothing-to-do') return 'This is done already.';
  if (verdict.verdict === 'legal' || anyway) return null;
  return refusal(
    mechanism,
    op,
    verdict.unmet.map((each) => namedNeed(mechanism, each)),
  );
}

/** *Not yet: Connector lid has to be off. …* */
export function refusal(mechanism: Mechanism, op: PhysicalOp, needs: readonly ReturnType<typeof namedNeed>[]): string {
  const { map } = mechanism;
  if (needs.length === 0) {
    return op.kind === 'make' || op.kind === 'fit' || op.kind === 'close'
      ? 'Not yet: what it is held to is not in its place, or what lies over it is.'
      : 'This never comes apart.';
  }
  const said = needs.map((need) => {
    if ('part' in need)
      return need.need === 'isolated'
        ? `${thingName(map, need.part)} out`
        : `${thingName(map, need.part)} ${need.need}`;
    return need.need === 'isolated'
      ? `battery disconnected (${thingName(map, need.joint)})`
      : `${thingName(map, need.joint)} released`;
  });
  return `Not yet. First: ${said.join('; ')}.`;
}

const LIDS = ['battery', 'cover', 'display', 'shell', 'bracket', 'shield'];

/** What a step does to the screws; refused where one is missing and nobody has decided about it. */
function screwsMoved(
  mechanism: Mechanism,
  state: JobState,
  step: DoneStep,
  anyway: boolean,
): { ledger: JobState['ledger'] } | { problem: string } {
  const { map } = mechanism;
  const { ledger } = state;
  if (step.kind === 'fit' || step.kind === 'close') {
    const part = map.parts.find((each) => each.id === step.part);
    if (!anyway && ledger.lost.length > 0 && LIDS.includes(part?.kind ?? '')) {
      return {
        problem: `${ledger.lost.length === 1 ? 'A screw is' : `${ledger.lost.length} screws are`} missing. Find it, or record a decision, before ${part!.name} goes on.`,
      };
    }
    return { ledger };
  }
  const joint = map.joints.find((each) => each.id === step.joint);
  if (joint?.type !== 'screw') return { ledger };
  const screws = looseScrewsOf(map, joint, ledger);
  if (step.kind === 'release') return { ledger: takenOut(ledger, screws) };
  const fresh = new Set(step.freshScrews ?? []);
  const missing = missingFor(ledger, screws).filter((screw) => !fresh.has(screw.point));
  if (missing.length > 0 && !anyway) {
    return {
      problem: `${missing.length === 1 ? 'A screw' : `${missing.length} screws`} of ${thingName(map, joint.id)} can't go back: not on the mat. Put in a new one, find it, or record a decision.`,
    };
  }
  return {
    ledger: putBack(
      ledger,
      screws.filter((screw) => !missing.includes(screw)),
      fresh,
    ),
  };
}

/** One screw laid on the mat; with the last of a joint the joint is released. */
function screwLaid(mechanism: Mechanism, state: JobState, data: EventData['screw']): Outcome {
  const joint = mechanism.map.joints.find((each) => each.id === data.joint);
  if (joint?.type !== 'screw') return { problem: `There is no screw joint “${data.joint}” in this map.` };
  const screws = looseScrewsOf(mechanism.map, joint, state.ledger);
  const screw = screws.find((each) => each.point === data.point);
  if (!screw)
    return { problem: `There is no screw “${data.point}” to take out of ${thingName(mechanism.map, joint.id)}.` };
  if (state.ledger.onMat.some((each) => keyOf(each) === keyOf(screw)))
    return { problem: 'This screw is on the mat already.' };
  const op = numberedOp(mechanism, { kind: 'release', joint: joint.id });
  if (op.kind !== 'release' || changesNothing(state.device, op)) return { problem: 'This joint is released already.' };
  const objection = objectionTo(mechanism, state, op, false);
  if (objection) return { problem: objection };
  const ledger = takenOut(state.ledger, [screw]);
  const laid = { ...state, ledger };
  const left = screws.filter((each) => !ledger.onMat.some((there) => keyOf(there) === keyOf(each)));
  if (left.length > 0) return { state: laid };
  return stepDone(mechanism, laid, { id: `release:${joint.id}`, kind: 'release', joint: joint.id }, false);
}

function screwFound(state: JobState, data: EventData['found']): Outcome {
  const screw: Screw | undefined = state.ledger.lost.find((each) => keyOf(each) === keyOf(data));
  return screw
    ? { state: { ...state, ledger: findAgain(state.ledger, screw) } }
    : { problem: 'This screw is not missing.' };
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
  const lacking = new Set(state.targets.flatMap((each) => ('replace' in each ? (each.newLacks ?? []) : [])));
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
