import {
  GLASS_FILM_OFF,
  type Op,
  opId,
  procedureOp,
  showable,
  TEST_AFTER,
  TEST_BEFORE,
  testedFunctions,
  testSeconds,
  thingOf,
  TIMES,
  triedAtTheEnd,
} from '../../planner/drafts/index.ts';
import type { Mechanism } from '../../planner/holds/index.ts';
import { type DoneStep } from '../../job/events/index.ts';
import { dropsOf, isMet, isTaped, type JobState } from '../../job/state/index.ts';
import { compareOp, type Plan, takeUpOp } from '../../planner/plan/index.ts';
import { crackedGlass, secondsUp, tapeOffOp, tapeOp } from '../../workshop/prepare/index.ts';
import { airing } from '../../physics/solvent/index.ts';

/** What the state of a job asks for, wherever its plan was made from: so that no change of plan forgets it. */

/** What moved over before the plan was made anew is compared all the same, before the new part goes in. */
export function withComparison({ done }: JobState, ops: readonly Op[]): readonly Op[] {
  const at = ops.findIndex(
    (op) => op.kind === 'fit' && op.isNew && done.some(({ kind, onto }) => kind === 'fit' && onto === op.part),
  );
  const next = ops[at];
  if (!next || ops.some(({ name, part }) => name === 'compare' && part === next.part)) return ops;
  return ops.toSpliced(at, 0, compareOp(next.part!, next));
}

/** A new base is taken up before anything goes back, also where the plan was made anew once the old one was bare. */
export function withBaseTakenUp(mechanism: Mechanism, state: JobState, ops: readonly Op[]): readonly Op[] {
  const { id } = mechanism.map.parts[mechanism.base]!;
  const isWanted = state.targets.some(
    (each) => 'replace' in each && each.replace === id && isMet(mechanism, state, each),
  );
  const isUp = ops.some(({ name }) => name === 'take-up') || state.steps.has(opId('take-up', id));
  return isWanted && !isUp ? [takeUpOp(id), ...ops] : ops;
}

export function tapesFor(map: Mechanism['map'], state: JobState): Op[] {
  const lifted = new Set(state.done.flatMap((op) => (op.kind === 'lift' ? [op.part!] : [])));
  return crackedGlass(map, state.damage)
    .filter(({ id }) => !lifted.has(id))
    .map(({ id }) => tapeOp(id));
}

/** A new part's film comes off before anything lies over it, also where it was planned for before the plan changed. */
export function withFilmsOff(mechanism: Mechanism, state: JobState, ops: readonly Op[]): readonly Op[] {
  const { map } = mechanism;
  const fitted = new Set(state.done.flatMap((op) => (op.kind === 'fit' && op.new ? [op.part!] : [])));
  return map.parts.reduce<readonly Op[]>((all, part) => {
    const id = opId('film-off', part.id);
    const isCovered = part.film || part.kind === 'display' || part.kind === 'cover';
    if (!isCovered || !fitted.has(part.id) || state.steps.has(id) || all.some((op) => op.id === id)) return all;
    const over = (part.under ?? []).flatMap((entry) => ('part' in entry ? [entry.part] : []));
    const covers = new Set(over.length > 0 ? over : [part.id]);
    const closes = (op: Op) => (op.kind === 'close' || op.kind === 'fit') && covers.has(op.part!);
    const before = all.findIndex((op) => closes(op) || op.id === TEST_AFTER);
    const filmOff = procedureOp({
      name: 'film-off',
      part: part.id,
      seconds: TIMES.filmPart,
      stage: 'rebuild',
      why: 'A film that is left on is sealed in.',
      whyNotEarlier: 'It keeps fingers off until then.',
    });
    return before < 0 ? [...all, filmOff] : all.toSpliced(before, 0, filmOff);
  }, ops);
}

/** The film over the glass comes off at the end, also where it was laid before the plan was made anew. */
export function withGlassFilmOff({ steps }: JobState, ops: readonly Op[]): readonly Op[] {
  const isOn = (steps.get('film') ?? 0) > (steps.get(GLASS_FILM_OFF) ?? 0);
  if (!isOn || ops.some(({ id }) => id === GLASS_FILM_OFF)) return ops;
  const off = procedureOp({
    name: 'film-off',
    of: thingOf(GLASS_FILM_OFF),
    seconds: TIMES.filmPart,
    stage: 'prove',
    why: 'What was put on comes off.',
    whyNotEarlier: 'It keeps the glass from scratches until all is closed.',
  });
  const last = ops.findIndex(({ id }) => id === TEST_AFTER);
  return last < 0 ? [...ops, off] : ops.toSpliced(last, 0, off);
}

/** Tape comes off what was not renewed. */
export function withTapesOff(map: Mechanism['map'], state: JobState, ops: readonly Op[]): readonly Op[] {
  const renewed = new Set(ops.flatMap((op) => (op.kind === 'fit' && op.isNew ? [op.part] : [])));
  const goingOn = new Set(ops.flatMap((op) => (op.name === 'tape' ? [op.part ?? thingOf(op.id)] : [])));
  const taped = map.parts.filter(({ id }) => goingOn.has(id) || isTaped(state, id));
  const offs = taped.filter(({ id }) => !renewed.has(id)).map(({ id }) => tapeOffOp(id));
  const last = ops.findIndex(({ id }) => id === TEST_AFTER);
  return last < 0 ? [...ops, ...offs] : ops.toSpliced(last, 0, ...offs);
}

/** Whatever the work so far and the work ahead have touched is tried, wherever the plan was made from. */
export function withTests(mechanism: Mechanism, state: JobState, plan: Plan, ops: readonly Op[]): readonly Op[] {
  const functions = testedFunctions(mechanism, [...state.done, ...plan.strip, ...plan.rebuild.map(asDone)]);
  const before = ops.findIndex(({ id }) => id === TEST_BEFORE);
  const shown = before < 0 ? triedBefore(state) : showable(mechanism, functions, ops.slice(before + 1));
  const closing = before < 0 ? [...doneSinceTest(state), ...ops] : ops.slice(before + 1);
  const left = triedAtTheEnd(mechanism, functions, shown, closing);
  const tried = (op: Op, these: readonly string[]): Op => ({
    ...op,
    functions: these,
    seconds: testSeconds(mechanism, these),
  });
  const isRest = left.length < functions.length;
  const tested = ops.map((op) => {
    if (op.name !== 'test') return op;
    return op.id === TEST_AFTER ? { ...tried(op, left), ...(isRest ? { isRest } : {}) } : tried(op, shown);
  });
  const isTried = tested.some((op) => op.id === TEST_AFTER) || state.steps.has(TEST_AFTER);
  if (isTried || functions.length === 0 || state.done.length === 0) return tested;
  const last = procedureOp({
    name: 'test',
    of: thingOf(TEST_AFTER),
    seconds: testSeconds(mechanism, left),
    functions: left,
    ...(isRest ? { isRest } : {}),
    stage: 'prove',
    why: 'Whatever could have been touched is tried before it is handed over.',
    whyNotEarlier: 'After everything is back.',
  });
  return [...tested, last];
}

/** What was tried before sealing, and worked, stands. */
function triedBefore({ steps, tests }: JobState): string[] {
  if (!steps.has(TEST_BEFORE)) return [];
  const last = new Map(tests.flatMap((each) => (each.stage === 'before' ? [[each.function, each.result]] : [])));
  return [...last].flatMap(([id, result]) => (result === 'works' ? [id] : []));
}

function doneSinceTest({ inForce }: JobState): DoneStep[] {
  const isTest = (event: JobState['inForce'][number]) =>
    event.type === 'did' && event.data.steps.some(({ id }) => id === TEST_BEFORE);
  const at = inForce.findLastIndex(isTest);
  return inForce.slice(Math.max(at, 0)).flatMap((event) => (event.type === 'did' ? event.data.steps : []));
}

function asDone({ isNew, ...op }: Op) {
  return { ...op, ...(isNew ? { new: true } : {}) };
}

/** Solvent was used: the bench is aired before it is heated again, and at the latest at the end, as its drops need. */
export function aired(ops: readonly Op[], { opening, limits }: JobState): readonly Op[] {
  const drops = dropsOf(opening);
  const { seconds } = airing(Math.max(drops, USUAL_DROPS), limits);
  const timed = ops.map((op) => (op.name === 'vent' ? { ...op, wait_s: seconds } : op));
  if (drops === 0) return timed;
  const heat = timed.findIndex((op) => op.name === 'heat');
  const vent = timed.findIndex((op) => op.name === 'vent');
  if (vent >= 0 && (heat < 0 || vent < heat)) return timed;
  const at = heat < 0 ? timed.length : heat;
  const vented = procedureOp({
    name: 'vent',
    of: timed[heat]?.joint ?? 'bench',
    seconds: TIMES.vent,
    wait_s: seconds,
    stage: timed[heat]?.stage ?? 'close',
    why: `${drops} drops of solvent were used: their vapour can catch fire at the ${heat < 0 ? 'next heat source' : 'heat source'}.`,
    whyNotEarlier: 'After the last solvent.',
  });
  return timed.toSpliced(at, 0, vented);
}

/** A new board is reset on what the cell is known to hold; from empty where nobody has read it. */
export function charged(map: Mechanism['map'], ops: readonly Op[], { charges, limits }: JobState): readonly Op[] {
  const charge = charges.at(-1)?.charge ?? 0;
  return ops.map(({ wait_s, ...op }) => {
    if (op.name !== 'charge') return wait_s === undefined ? op : { ...op, wait_s };
    return charge < limits.resetFloor ? { ...op, wait_s: secondsUp(map, charge, limits.resetFloor, limits) } : op;
  });
}

/** What a plan takes for granted until it is counted (common practice: a few drops). */
const USUAL_DROPS = 5;
