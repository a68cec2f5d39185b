import { jointById, partById } from '../../model/device-map/index.ts';
import { type Problem, Refusal, wrong } from '../../model/refusal/index.ts';
import { opId } from '../../planner/drafts/index.ts';
import {
  applied,
  assembled,
  changesNothing,
  judge,
  type Mechanism,
  namedNeed,
  namedOp,
  numberedOp,
  type PhysicalOp,
  replay,
} from '../../planner/holds/index.ts';
import type { DoneOp } from '../../planner/plan/index.ts';
import { thingName } from '../../planner/words/index.ts';
import {
  findAgain,
  foundSpare,
  keyOf,
  looseScrewsOf,
  missingFor,
  putBack,
  type Screw,
  takenOut,
} from '../../screws/screws/index.ts';
import { asItIs, grown, type JobState, mechanismAsItIs, newlyReached, type Outcome, withKey } from '../state/index.ts';
import { notAccepted } from './desk.ts';
import type { DoneStep, EventData } from '../events/index.ts';
import { notThere } from './deviating.ts';
import { cellForALead } from './iron-at-cell.ts';
import { withMark } from './mark.ts';

/** Operations as they were done, in order; the first that can't be taken refuses all. */
export function did(mechanism: Mechanism, state: JobState, { steps, anyway }: EventData['did']): Outcome {
  let next = state;
  for (const step of steps) {
    const outcome = stepDone(mechanism, next, step, anyway !== undefined);
    if ('problem' in outcome) return outcome;
    next = outcome.state;
  }
  return { state: next };
}

function stepDone(mechanism: Mechanism, state: JobState, step: DoneStep, anyway: boolean): Outcome {
  if (step.kind === 'procedure') {
    if (step.name === 'transplant' && !state.transplant.done && !anyway) {
      return {
        problem: wrong(
          '',
          'A cell transplant is not begun like another step.',
          'The lead allows it, and its checks are recorded, first.',
        ),
      };
    }
    const base = mechanism.map.parts[mechanism.base]!.id;
    const isBase = step.id === opId('take-up', base) && !anyway;
    const unaccepted = isBase ? notAccepted(mechanism, state, base) : null;
    if (unaccepted) return { problem: unaccepted };
    const isAdded = state.added.some((each) => each.step === step.id);
    if (state.steps.has(step.id) && !step.again && !isAdded)
      return { problem: wrong('', `“${step.id}” is done already.`) };
    const unsure = step.name === 'press-home' ? withoutUnsure(state.unsure, step) : state.unsure;
    return { state: { ...withMark(looked(state, step), step.id), unsure, paused: false } };
  }
  const op = numbered(mechanism, step);
  if ('problem' in op) return op;
  const cell = anyway ? null : cellForALead(mechanism.map, state, step);
  if (cell)
    return { problem: wrong('', `An iron at ${cell} is for a lead to allow first: a cell that is overheated burns.`) };
  const unaccepted = step.kind === 'fit' && step.new && !anyway ? notAccepted(mechanism, state, step.part!) : null;
  if (unaccepted) return { problem: unaccepted };
  const objection = objectionTo(mechanism, state, op.op, anyway);
  if (objection) return { problem: objection };
  const ledger = screwsMoved(mechanism, state, step, anyway);
  if ('problem' in ledger) return ledger;
  const device = applied(mechanism, state.device, op.op);
  const done: DoneOp = { ...namedDone(step), ...(step.new ? { new: true } : {}) };
  const opening = step.joint ? withoutCut(state.opening, step.joint) : state.opening;
  const after: JobState = {
    ...withMark(state, step.id),
    paused: false,
    device,
    done: grown(state.done, done),
    ledger: ledger.ledger,
    opening,
    unsure: withoutUnsure(state.unsure, step),
    flush: withoutFlush(state.flush, step),
    peaks: step.kind === 'release' ? withoutPeaks(state.peaks, step.joint) : state.peaks,
  };
  return { state: { ...after, reached: newlyReached(mechanism, after) } };
}

/** Screws that are out are not tight. */
function withoutPeaks(peaks: JobState['peaks'], joint: string | undefined): JobState['peaks'] {
  const isOf = (key: string) => key.startsWith(`${joint}/`);
  return [...peaks.keys()].some(isOf) ? new Map([...peaks].filter(([key]) => !isOf(key))) : peaks;
}

/** A plug that is undone, or pressed again, is judged anew. */
function withoutUnsure(unsure: JobState['unsure'], { joint }: DoneStep): JobState['unsure'] {
  return joint !== undefined && unsure.has(joint) ? new Set([...unsure].filter((id) => id !== joint)) : unsure;
}

/** A part that is lifted again has to be felt anew. */
function withoutFlush(flush: JobState['flush'], { kind, part }: DoneStep): JobState['flush'] {
  const isUp = part !== undefined && (kind === 'open' || kind === 'lift') && flush.has(part);
  return isUp ? new Map([...flush].filter(([id]) => id !== part)) : flush;
}

/** A look that is only ticked found nothing. */
function looked(state: JobState, { name, part }: DoneStep): JobState {
  const { deviations } = state;
  if (name !== 'inspect' || part === undefined || deviations.inspected.has(part)) return state;
  return { ...state, deviations: { ...deviations, inspected: withKey(deviations.inspected, part, 'good') } };
}

/** A bond that is released, or made again, has no edges left that are cut. */
function withoutCut(opening: JobState['opening'], joint: string): JobState['opening'] {
  if (!opening.cut.has(joint) && !opening.placeholders.has(joint)) return opening;
  const without = <T>(all: ReadonlyMap<string, T>) => new Map([...all].filter(([id]) => id !== joint));
  return { ...opening, cut: without(opening.cut), placeholders: without(opening.placeholders) };
}

function numbered(mechanism: Mechanism, step: DoneStep): { op: PhysicalOp } | { problem: Problem } {
  try {
    return { op: numberedOp(mechanism, namedDone(step)) };
  } catch (error) {
    if (error instanceof Refusal) return { problem: error };
    throw error;
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

/** A joint released by its own kind of work: the last screw laid, the last edge cut. */
export function releasedBy(mechanism: Mechanism, state: JobState, joint: string): Outcome {
  return stepDone(mechanism, state, { id: opId('release', joint), kind: 'release', joint }, false);
}

/** Why a joint can't be released by its own kind of work; null where it can. */
export function releaseProblem(mechanism: Mechanism, state: JobState, joint: string): Problem | null {
  return objectionTo(mechanism, state, numberedOp(mechanism, { kind: 'release', joint }), false);
}

/** Why an operation is refused, in words that name what still holds. */
function objectionTo(mechanism: Mechanism, state: JobState, op: PhysicalOp, anyway: boolean): Problem | null {
  const verdict = judgedAsItIs(mechanism, state, op);
  if ('problem' in verdict) return verdict.problem;
  if (verdict.verdict === 'nothing-to-do') return wrong('', 'This is done already.');
  if (verdict.verdict === 'legal' || anyway) return null;
  return refusal(
    mechanism,
    op,
    verdict.unmet.map((each) => namedNeed(mechanism, each)),
  );
}

/** What still lies over a joint, in words: parts that have to be open or off before it can be worked on. */
export function lyingOver(mechanism: Mechanism, state: JobState, joint: string): string[] {
  const verdict = judgedAsItIs(mechanism, state, numberedOp(mechanism, { kind: 'release', joint }));
  if ('problem' in verdict || verdict.verdict !== 'illegal') return [];
  const needs = verdict.unmet.map((each) => namedNeed(mechanism, each));
  return needs.flatMap((need) =>
    'part' in need && need.need !== 'isolated' ? [`${thingName(mechanism.map, need.part)} ${need.need}`] : [],
  );
}

/** Judged on the device as it was found: what is not there neither holds anything nor is it waited for. */
function judgedAsItIs(
  mechanism: Mechanism,
  state: JobState,
  op: PhysicalOp,
): ReturnType<typeof judge> | { readonly problem: Problem } {
  if (notThere(state).size === 0) return judge(mechanism, state.device, op);
  const seen = mechanismAsItIs(mechanism, state);
  try {
    const done = asItIs(mechanism, state).done.map((each) => numberedOp(seen, each));
    return judge(seen, replay(seen, assembled(seen), done).state, numberedOp(seen, namedOp(mechanism, op)));
  } catch (error) {
    if (error instanceof Refusal)
      return { problem: wrong('', 'This was recorded as not there.', 'Undo that record first.') };
    throw error;
  }
}

/** *Not yet: Connector lid has to be off. …* */
export function refusal(mechanism: Mechanism, op: PhysicalOp, needs: readonly ReturnType<typeof namedNeed>[]): Problem {
  const { map } = mechanism;
  if (needs.length === 0) {
    return op.kind === 'make' || op.kind === 'fit' || op.kind === 'close'
      ? wrong('', 'Not yet: what it is held to is not in its place, or what lies over it is.')
      : wrong('', 'This never comes apart.');
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
  return wrong('', 'Not yet.', `First: ${said.join('; ')}.`);
}

const LIDS = ['battery', 'cover', 'display', 'shell', 'bracket', 'shield'];

/** What a step does to the screws; refused where one is missing and nobody has decided about it. */
function screwsMoved(
  mechanism: Mechanism,
  state: JobState,
  step: DoneStep,
  anyway: boolean,
): { ledger: JobState['ledger'] } | { problem: Problem } {
  const { map } = mechanism;
  const { ledger } = state;
  if (step.kind === 'fit' || step.kind === 'close') {
    const part = partById(map, step.part);
    if (!anyway && ledger.lost.length > 0 && LIDS.includes(part?.kind ?? '')) {
      return {
        problem: wrong(
          '',
          `${ledger.lost.length === 1 ? 'A screw is' : `${ledger.lost.length} screws are`} missing.`,
          `Find it, or record a decision, before ${part!.name} goes on.`,
        ),
      };
    }
    return { ledger };
  }
  const joint = jointById(map, step.joint);
  if (joint?.type !== 'screw') return { ledger };
  const screws = looseScrewsOf(map, joint, ledger);
  if (step.kind === 'release') return { ledger: takenOut(ledger, screws) };
  const fresh = new Set(step.freshScrews ?? []);
  const missing = missingFor(ledger, screws).filter((screw) => !fresh.has(screw.point));
  if (missing.length > 0 && !anyway) {
    return {
      problem: wrong(
        '',
        `${missing.length === 1 ? 'A screw' : `${missing.length} screws`} of ${thingName(map, joint.id)} can't go back: not on the mat.`,
        'Put in a new one, find it, or record a decision.',
      ),
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
export function screwLaid(mechanism: Mechanism, state: JobState, data: EventData['screw']): Outcome {
  const joint = jointById(mechanism.map, data.joint);
  if (joint?.type !== 'screw')
    return {
      problem: wrong('joint', `There is no screw joint “${data.joint}” in this map.`, 'Name one that the map has.'),
    };
  const screws = looseScrewsOf(mechanism.map, joint, state.ledger);
  const screw = screws.find((each) => each.point === data.point);
  if (!screw)
    return {
      problem: wrong(
        'point',
        `There is no screw “${data.point}” to take out of ${thingName(mechanism.map, joint.id)}.`,
      ),
    };
  if (state.ledger.onMat.some((each) => keyOf(each) === keyOf(screw)))
    return { problem: wrong('point', 'This screw is on the mat already.') };
  const op = numberedOp(mechanism, { kind: 'release', joint: joint.id });
  if (op.kind !== 'release' || changesNothing(state.device, op))
    return { problem: wrong('joint', 'This joint is released already.') };
  const objection = objectionTo(mechanism, state, op, false);
  if (objection) return { problem: objection };
  const ledger = takenOut(state.ledger, [screw]);
  const laid = { ...state, ledger };
  const left = screws.filter((each) => !ledger.onMat.some((there) => keyOf(there) === keyOf(each)));
  if (left.length > 0) return { state: laid };
  return releasedBy(mechanism, laid, joint.id);
}

/** Found again it lies on the mat; where its joint is made already, with a new screw or without, it is one to put away. */
export function screwFound(mechanism: Mechanism, state: JobState, data: EventData['found']): Outcome {
  const { ledger } = state;
  const isOpen = Boolean(state.device.released[mechanism.joint.get(data.joint) ?? -1]);
  // one that was to be left out may still go in while its hole is open
  const missing = isOpen ? [...ledger.lost, ...ledger.leftOut] : ledger.lost;
  const screw: Screw | undefined = missing.find((each) => keyOf(each) === keyOf(data));
  if (!screw) return { problem: wrong('point', 'This screw is not missing.') };
  return { state: { ...state, ledger: isOpen ? findAgain(ledger, screw) : foundSpare(ledger, screw) } };
}
