import { type BondJoint, isSelfParting, jointById } from '../../model/device-map/index.ts';
import {
  type Op,
  physicalId,
  secondsToLay,
  secondsToScrape,
  showable,
  TEST_AFTER,
  TEST_BEFORE,
  testedFunctions,
  TIMES,
  usualSeconds,
} from '../../planner/drafts/index.ts';
import { nameOf, priorOf, suspected, unexpected } from '../explain/index.ts';
import {
  applied,
  type DeviceState,
  isDead,
  liveJoints,
  type Mechanism,
  numberedOp,
  type StripOp,
  withHost,
  planRules,
} from '../../planner/holds/index.ts';
import type { JobState, Suspect } from '../../job/state/index.ts';
import { goalOf, leastSets, noWork, opsOf } from '../../planner/search/index.ts';
import { bestTries, type Doubt, expectedOf, type TryProblem } from './best-tries.ts';

/** A trial that is worth its time, before an operation of the way back. */
export interface Trial {
  /** id of the operation before which it is tried */
  readonly before: string;
  readonly functions: readonly string[];
  /** with power on and off */
  readonly seconds: number;
  /** seconds less that are to be expected with it, itself counted */
  readonly spares_s: number;
}

export interface WhereToTry {
  readonly trials: readonly Trial[];
  /** seconds of trying and undoing that are to be expected: with these trials, and with the tests of the plan alone */
  readonly expected_s: number;
  readonly asPlanned_s: number;
}

const NOWHERE: WhereToTry = { trials: [], expected_s: 0, asPlanned_s: 0 };

/**
 * Where on the way back it pays to try the device, beside the tests that the plan has: the chance of a fault by what this job does,
 * times what it takes to get at it again from the next trial, against the time to try.
 * @param ops what is ahead, in its order
 */
export function whereToTry(mechanism: Mechanism, state: JobState, ops: readonly Op[]): WhereToTry {
  const end = ops.findIndex(({ id }) => id === TEST_AFTER);
  const back = firstOfWayBack(ops);
  if (end < 0 || back < 0) return NOWHERE;
  const ahead = ops.slice(0, end);
  const states = statesAfter(mechanism, state.device, ahead);
  const done = [...state.done, ...ahead.flatMap(asDone)];
  const touched = new Set(testedFunctions(mechanism, done));
  const functions = unexpected(mechanism, state).filter((id) => touched.has(id));
  const suspects = suspected(mechanism, { ...state, done }, functions);
  // a place is counted from 1, so that the first of them is here and now
  const fixed = [ahead.findIndex(({ id }) => id === TEST_BEFORE), end].filter((at) => at >= back).map(placeAt);
  const shown = shownFrom(mechanism, functions, ahead, back);
  const undo = undoSeconds(mechanism, states);
  const worth = new Set(functions.filter((id) => isWorthTrying(mechanism, id, suspects, shown.get(id)!, fixed, undo)));
  const doubts = suspects.map(({ suspect, functions: serves }): Doubt => ({
    p: priorOf(suspect),
    shows: Math.min(...serves.map((id) => (worth.has(id) ? shown.get(id)! : nextOf(fixed, shown.get(id)!)))),
    undo_s: (at) => undo(suspect, at),
  }));
  const newly = (before: number, at: number) =>
    [...worth].filter((id) => shown.get(id)! > before && shown.get(id)! <= at);
  const problem: TryProblem = {
    doubts,
    fixed,
    places: placesFor(ahead, back),
    test_s: (before, at) =>
      fixed.includes(at)
        ? 0
        : tried_s(mechanism, newly(before, at)) + power_s(mechanism, states[at - 1]!, ahead.slice(at - 1)),
  };
  const best = bestTries(problem);
  const trials = best.at.flatMap((at, index): Trial[] => {
    const tried = newly(best.at[index - 1] ?? 0, at);
    if (fixed.includes(at) || tried.length === 0) return [];
    const without = best.at.toSpliced(index, 1);
    const seconds = problem.test_s(best.at[index - 1] ?? 0, at);
    const spares_s = expectedOf(problem, without) - best.expected_s;
    return [{ before: ahead[at - 1]!.id, functions: tried, seconds, spares_s }];
  });
  return { trials, expected_s: best.expected_s, asPlanned_s: expectedOf(problem, fixed) };
}

/** The place at which so many operations are done. */
function placeAt(done: number): number {
  return done + 1;
}

/** Where the way back begins: nothing is taken off any more. */
function firstOfWayBack(ops: readonly Op[]): number {
  const last = ops.findLastIndex(({ kind }) => kind === 'release' || kind === 'open' || kind === 'lift');
  return ops.length > last + 1 ? last + 1 : -1;
}

/** As it will have been done; nothing for a procedure. */
function asDone({ kind, joint, part, isNew }: Op): JobState['done'] {
  if (kind === 'procedure') return [];
  const about = { ...(joint === undefined ? {} : { joint }), ...(part === undefined ? {} : { part }) };
  return [{ kind, ...about, ...(isNew ? { new: true } : {}) }];
}

/** How the device stands after so many operations. */
function statesAfter(mechanism: Mechanism, start: DeviceState, ops: readonly Op[]): DeviceState[] {
  const states = [start];
  for (const op of ops) {
    const now = states.at(-1)!;
    const { kind } = op;
    states.push(
      kind === 'procedure'
        ? now
        : applied(mechanism, now, withHost(mechanism, now, numberedOp(mechanism, { ...op, kind }))),
    );
  }
  return states;
}

/** The first place at which a function can be shown, once what makes the device alive is plugged in for it. */
function shownFrom(
  mechanism: Mechanism,
  functions: readonly string[],
  ops: readonly Op[],
  back: number,
): ReadonlyMap<string, number> {
  const isolating = new Set(
    mechanism.map.joints.filter((each) => 'isolates' in each && each.isolates).map(({ id }) => id),
  );
  const first = new Map(functions.map((id) => [id, placeAt(ops.length)]));
  for (let at = ops.length; at >= back; at--) {
    const later = ops.slice(at).filter((op) => !(op.kind === 'make' && isolating.has(op.joint!)));
    for (const id of showable(mechanism, functions, later)) first.set(id, placeAt(at));
  }
  return first;
}

/** Places are where a step begins that something may be under; a plug is pressed with the others of its group. */
function placesFor(ops: readonly Op[], back: number): number[] {
  return ops.flatMap(({ kind, name }, at) =>
    at >= back && (kind === 'fit' || kind === 'close' || kind === 'make' || name === 'lay' || name === 'liner-off')
      ? [placeAt(at)]
      : [],
  );
}

function nextOf(fixed: readonly number[], at: number): number {
  return fixed.find((each) => each >= at) ?? fixed.at(-1) ?? at;
}

type Undo = (suspect: Suspect, at: number) => number;

/** Trying a function takes less than it could spare at most. */
function isWorthTrying(
  mechanism: Mechanism,
  id: string,
  suspects: ReturnType<typeof suspected>,
  from: number,
  fixed: readonly number[],
  undo: Undo,
): boolean {
  const next = nextOf(fixed, from);
  const spares = suspects
    .filter(({ functions }) => functions.includes(id))
    .reduce((sum, { suspect }) => sum + priorOf(suspect) * (undo(suspect, next) - undo(suspect, from)), 0);
  return spares > secondsFor(mechanism, id);
}

function secondsFor({ map }: Mechanism, id: string): number {
  return map.functions.find((each) => each.id === id)?.seconds ?? TIMES.testEach;
}

function tried_s(mechanism: Mechanism, functions: readonly string[]): number {
  return functions.reduce((sum, id) => sum + secondsFor(mechanism, id), 0);
}

/** Power on, and off again where plugs are still to be pressed. */
function power_s(mechanism: Mechanism, state: DeviceState, later: readonly Op[]): number {
  const { map } = mechanism;
  if (!isDead(mechanism, state)) return TIMES.powerOn;
  const plugs = map.joints.filter(
    (each, number) => each.type === 'connector' && each.isolates !== undefined && state.released[number],
  );
  const of = (kind: 'make' | 'release') => plugs.reduce((sum, each) => sum + (usualSeconds(kind, each) ?? 0), 0);
  const isTethering = ({ kind, joint }: Op) => {
    const each = jointById(map, joint);
    return (
      kind === 'make' &&
      (each?.type === 'connector' || each?.type === 'solder') &&
      !plugs.some((plug) => plug.id === joint)
    );
  };
  // with the last plug home it stays alive
  const again = later.some(isTethering) ? of('make') + TIMES.powerOff + of('release') : 0;
  return TIMES.powerOn + again;
}

/** Seconds to get at a suspect from how the device stands at a place, and back; each looked for once. */
function undoSeconds(mechanism: Mechanism, states: readonly DeviceState[]): Undo {
  const known = new Map<string, number>();
  return (suspect, at) => {
    const state = states[at - 1]!;
    const key = `${nameOf(suspect)} ${states.indexOf(state)}`;
    const before = known.get(key);
    if (before !== undefined) return before;
    const seconds = secondsToReach(mechanism, state, suspect);
    known.set(key, seconds);
    return seconds;
  };
}

function secondsToReach(mechanism: Mechanism, state: DeviceState, { joint, part }: Suspect): number {
  const target = joint === undefined ? { remove: part! } : { reach: joint };
  const rules = planRules(liveJoints(mechanism, state));
  const [least] = leastSets(mechanism, state, goalOf(mechanism, state, [target], rules), rules, noWork(mechanism));
  const again: StripOp[] = joint === undefined ? [] : [{ kind: 'release', joint: mechanism.joint.get(joint)! }];
  const ops = [...(least ? opsOf(least) : []), ...again];
  const ids = new Map(ops.map((op) => [physicalId(mechanism, op), op]));
  return [...ids.values()].reduce((sum, op) => sum + undoneAndBack_s(mechanism, op), 0);
}

/** An operation undone and done again, with the heat and the new bond that it asks for. */
function undoneAndBack_s({ map }: Mechanism, op: StripOp): number {
  if (op.kind !== 'release') {
    return op.kind === 'open' ? TIMES.open + TIMES.close : TIMES.lift + TIMES.fit;
  }
  const joint = map.joints[op.joint]!;
  const plain = (usualSeconds('release', joint) ?? 0) + (usualSeconds('make', joint) ?? 0);
  return joint.type === 'bond' && !isSelfParting(joint) && joint.style === 'perimeter'
    ? plain + newSeal_s(joint)
    : plain;
}

/** Heated, scraped, wiped, dried, laid and pressed. */
function newSeal_s(bond: BondJoint): number {
  const { lay, cure } = secondsToLay(bond, null);
  const heat = bond.heat ? TIMES.heat + (bond.recipe?.seconds ?? TIMES.heatWait) : 0;
  const dry = Math.max(TIMES.dryWait, bond.close?.dry_s ?? 0);
  const press = TIMES.press + (bond.close?.press_s ?? TIMES.pressRound);
  return heat + secondsToScrape(bond) + TIMES.wipe + dry + lay + cure + TIMES.liner + press;
}
