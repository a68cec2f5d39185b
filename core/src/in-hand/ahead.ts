import { type Mechanism, SEATED } from '../holds/index.ts';
import type { Budget } from '../order/index.ts';
import type { Joint } from '../device-map/index.ts';
import {
  type Op,
  showable,
  testedFunctions,
  testSeconds,
  TIMES,
  GLASS_FILM_OFF,
  opId,
  procedureOp,
  TEST_AFTER,
  thingOf,
} from '../drafts/index.ts';
import { opTitle } from '../words/index.ts';
import { compareOp, inspectOp, type OwnTime, type Plan, planRepair } from '../plan/index.ts';
import { settled } from '../policy/index.ts';
import {
  agreeOp,
  certainCuts,
  type ChargeNeed,
  chargeNeed,
  chargeSchool,
  chargeOp,
  crackedGlass,
  type OwnerItem,
  ownerMustKnow,
  prepareOp,
  secondsUp,
  tapeOffOp,
  tapeOp,
  tellAnyhow,
  WET_OPS,
  withFrameMended,
  withTape,
} from '../prepare/index.ts';
import {
  asFound,
  type DoneStep,
  isChargeSettled,
  isDrying,
  isPrepared,
  isTaped,
  notThere,
  targetsForNow,
  targetsFound,
  dropsOf,
  type JobState,
  behindEdge,
} from '../job/index.ts';
import { type FailedTest, failedWithCosts } from './failed.ts';
import { withPressedHome } from './press-home.ts';
import { withExtras } from './extras.ts';
import { airing } from '../solvent/index.ts';

/** What is still to be done: the plan from the job's present state, less the procedures that were done already. */
export interface Ahead {
  readonly plan: Plan;
  readonly ops: readonly Op[];
  /** what has to happen to the charge first; null where it is right */
  readonly charge: ChargeNeed | null;
  /** what the owner must know, and which of it was not agreed yet */
  readonly owner: readonly OwnerItem[];
  readonly untold: readonly OwnerItem[];
  /** functions that failed, which keep it from being closed */
  readonly failed: readonly FailedTest[];
}

/** @throws PlanError where the targets can't be reached from here */
export function planAhead(
  mechanism: Mechanism,
  state: JobState,
  budget: Budget,
  times: readonly OwnTime[] = [],
): Ahead {
  const { map } = mechanism;
  const drying = isDrying(state);
  const found = asFound(mechanism, state);
  const targets = targetsFound(found, targetsForNow(mechanism, state));
  const plan = planRepair({ ...found, targets, times }, budget);
  const isGone = takesOffWhatIsNot(mechanism, state);
  const once = (op: Op) => (op.kind !== 'procedure' || !state.steps.has(op.id)) && !isGone(op);
  const planned = drying
    ? [...plan.strip, ...WET_OPS]
    : withExtras(state, withDifferent(state, withComparison(state, [...plan.strip, ...plan.rebuild]), mechanism));
  const before = beforeOpening(mechanism, state, plan, drying);
  const taped = withTape(map, planned.filter(once), tapesFor(map, state).filter(once));
  const mended = withFrameMended(map, taped, state.damage, (part) => comesOff(plan, state, part)).filter(once);
  const firstBack = mended.find(({ id }) => plan.rebuild.some((op) => op.id === id))?.id;
  const owed = drying
    ? taped
    : withTests(
        mechanism,
        state,
        plan,
        withTapesOff(
          map,
          state,
          withGlassFilmOff(state, withFilmsOff(mechanism, state, withPressedHome(map, state, mended, firstBack))),
        ),
      );
  const failed = failedWithCosts(mechanism, state, budget);
  return {
    ...before,
    plan,
    failed,
    ops: [...before.ops, ...charged(map, aired(withAdded(map, owed, state), state), state)],
  };
}

/** What stands before a closed device is opened: the owner's word, the charge, the bench. */
function beforeOpening(
  mechanism: Mechanism,
  state: JobState,
  plan: Plan,
  drying: boolean,
): Pick<Ahead, 'ops' | 'charge' | 'owner' | 'untold'> {
  const { map } = mechanism;
  const failing = state.tests.flatMap((each) =>
    each.stage === 'intake' && each.result === 'fails' ? [each.function] : [],
  );
  const owner = drying ? [] : ownerMustKnow(map, plan, state.targets, state.parts, failing);
  const told = new Set(state.agreed?.items);
  const untold = state.steps.has('agree') && !state.agreed ? [] : owner.filter(({ text }) => !told.has(text));
  const isClosed = !isPrepared(mechanism, state);
  const { policy } = settled(map, state.policy);
  const last = state.charges.at(-1)?.charge ?? null;
  const needFor = (cuts: Parameters<typeof chargeNeed>[1]) =>
    chargeNeed(map, cuts, chargeSchool(map, state.targets, policy), state.limits, last);
  // what the plan cuts, and what the gate asks for without a plan
  const charge =
    isClosed && !drying && !isChargeSettled(state)
      ? (needFor(plan.strip) ?? needFor(certainCuts(map, targetsForNow(mechanism, state), policy)))
      : null;
  const waits = charge && !state.steps.has(charge.way) ? [chargeOp(charge)] : [];
  // what changed half way is told as well, once the owner had been asked
  const anyhow = new Set(tellAnyhow(map, state.targets));
  const wasAsked = isClosed || state.agreed !== null;
  const asks = untold.some(({ text }) => wasAsked || (anyhow.has(text) && !state.prepared?.told?.includes(text)));
  const opens = isClosed && plan.strip.length > 0;
  return {
    ops: [...(asks ? [agreeOp(untold.length)] : []), ...waits, ...(opens ? [prepareOp()] : [])],
    charge,
    owner,
    untold,
  };
}

/** Nobody takes off what is not there, though a new one goes in for it. */
function takesOffWhatIsNot({ map }: Mechanism, state: JobState): (op: Op) => boolean {
  const missing = notThere(state);
  return (op) => {
    if (missing.size === 0 || !['release', 'open', 'lift'].includes(op.kind)) return false;
    const about = op.part === undefined ? map.joints.find(({ id }) => id === op.joint)!.holds : [op.part];
    return about.every((id) => missing.has(id));
  };
}

/** What moved over before the plan was made anew is compared all the same, before the new part goes in. */
function withComparison({ done }: JobState, ops: readonly Op[]): readonly Op[] {
  const at = ops.findIndex(
    (op) => op.kind === 'fit' && op.isNew && done.some(({ kind, onto }) => kind === 'fit' && onto === op.part),
  );
  const next = ops[at];
  if (!next || ops.some(({ name, part }) => name === 'compare' && part === next.part)) return ops;
  return ops.toSpliced(at, 0, compareOp(next.part!, next));
}

/** What differs from its map and is not taken off is looked at where it is. */
function withDifferent({ found, device }: JobState, ops: readonly Op[], { part }: Mechanism): readonly Op[] {
  const seen = new Set(
    ops.flatMap((op) => (op.name === 'inspect' || (op.kind === 'fit' && op.isNew) ? [op.part!] : [])),
  );
  const here = [...found.different].filter((id) => !seen.has(id) && device.status[part.get(id)!] === SEATED);
  return [...here.map((id) => inspectOp(id, { stage: 'strip' })), ...ops];
}

function tapesFor(map: Mechanism['map'], state: JobState): Op[] {
  const lifted = new Set(state.done.flatMap((op) => (op.kind === 'lift' ? [op.part!] : [])));
  return crackedGlass(map, state.damage)
    .filter(({ id }) => !lifted.has(id))
    .map(({ id }) => tapeOp(id));
}

/** Procedures that trouble has added stand before the operation they are for. */
function withAdded(map: Mechanism['map'], ops: readonly Op[], state: JobState): Op[] {
  return ops.flatMap((op) => {
    const before = state.added.filter((each) => each.before === op.id);
    return [...before.map((each) => addedOp(map, each.step, op, state.troubles)), op];
  });
}

/** A new part's film comes off before anything lies over it, also where it was planned for before the plan changed. */
function withFilmsOff(mechanism: Mechanism, state: JobState, ops: readonly Op[]): readonly Op[] {
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
function withGlassFilmOff({ steps }: JobState, ops: readonly Op[]): readonly Op[] {
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

/** Is a part off already, or will it be? */
function comesOff({ strip }: Plan, { done }: JobState, part: string): boolean {
  const isOff = (op: { readonly kind: string; readonly part?: string }) => op.kind === 'lift' && op.part === part;
  return done.some(isOff) || strip.some(isOff);
}

/** Tape comes off what was not renewed. */
function withTapesOff(map: Mechanism['map'], state: JobState, ops: readonly Op[]): readonly Op[] {
  const renewed = new Set(ops.flatMap((op) => (op.kind === 'fit' && op.isNew ? [op.part] : [])));
  const goingOn = new Set(ops.flatMap((op) => (op.name === 'tape' ? [op.part ?? thingOf(op.id)] : [])));
  const taped = map.parts.filter(({ id }) => goingOn.has(id) || isTaped(state, id));
  const offs = taped.filter(({ id }) => !renewed.has(id)).map(({ id }) => tapeOffOp(id));
  const last = ops.findIndex(({ id }) => id === TEST_AFTER);
  return last < 0 ? [...ops, ...offs] : ops.toSpliced(last, 0, ...offs);
}

/** Whatever the work so far and the work ahead have touched is tried, wherever the plan was made from. */
function withTests(mechanism: Mechanism, state: JobState, plan: Plan, ops: readonly Op[]): readonly Op[] {
  const functions = testedFunctions(mechanism, [...state.done, ...plan.strip, ...plan.rebuild.map(asDone)]);
  const tested = ops.map((op, at) => {
    if (op.name !== 'test') return op;
    const shown = op.id === TEST_AFTER ? functions : showable(mechanism, functions, ops.slice(at + 1));
    return { ...op, functions: shown, seconds: testSeconds(mechanism, shown) };
  });
  const isTried = tested.some((op) => op.id === TEST_AFTER) || state.steps.has(TEST_AFTER);
  if (isTried || functions.length === 0 || state.done.length === 0) return tested;
  const last = procedureOp({
    name: 'test',
    of: thingOf(TEST_AFTER),
    seconds: testSeconds(mechanism, functions),
    functions,
    stage: 'prove',
    why: 'Whatever could have been touched is tried before it is handed over.',
    whyNotEarlier: 'After everything is back.',
  });
  return [...tested, last];
}

function asDone({ isNew, ...op }: Op) {
  return { ...op, ...(isNew ? { new: true } : {}) };
}

/** Solvent was used: the bench is aired before it is heated again, and at the latest at the end, as its drops need. */
function aired(ops: readonly Op[], { opening, limits }: JobState): readonly Op[] {
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
function charged(map: Mechanism['map'], ops: readonly Op[], { charges, limits }: JobState): readonly Op[] {
  const charge = charges.at(-1)?.charge ?? 0;
  return ops.map(({ wait_s, ...op }) => {
    if (op.name !== 'charge') return wait_s === undefined ? op : { ...op, wait_s };
    return charge < limits.resetFloor ? { ...op, wait_s: secondsUp(map, charge, limits.resetFloor, limits) } : op;
  });
}

/** What a plan takes for granted until it is counted (common practice: a few drops). */
const USUAL_DROPS = 5;

type AddedName = 'heat' | 'soak' | 'tape' | 'look';

function addedOp(map: Mechanism['map'], step: string, before: Op, troubles: JobState['troubles']): Op {
  const name = step.slice(0, step.indexOf(':')) as AddedName;
  const joint = map.joints.find((each) => each.id === before.joint)!;
  const at = { joint: joint.id, face: before.face, stage: before.stage };
  const whyNotEarlier = `Before ${opTitle(map, before)}.`;
  if (name === 'tape') {
    const why = 'Clear tape over the whole face holds splinters and gives a cup a surface.';
    return { ...tapeOp(thingOf(step), at), why, whyNotEarlier };
  }
  return procedureOp({
    name,
    of: thingOf(step),
    ...at,
    ...timesOf(name, joint),
    why: whyAdded(map, name, joint, troubles),
    whyNotEarlier,
  });
}

/** Where the map has no recipe: what is usual for a plate (common practice). */
const USUAL_HEAT_S = 300;

function timesOf(name: Exclude<AddedName, 'tape'>, joint: Joint): { seconds: number; wait_s?: number } {
  const bond = joint.type === 'bond' ? joint : undefined;
  switch (name) {
    case 'heat':
      // it is warm from before: half the time
      return { seconds: TIMES.heat, wait_s: Math.round((bond?.recipe?.seconds ?? USUAL_HEAT_S) / 2) };
    case 'soak':
      return { seconds: TIMES.soak, wait_s: bond?.solvent?.soak_s ?? TIMES.cellSoak };
    case 'look':
      return { seconds: TIMES.inspect };
  }
}

function whyAdded(
  map: Mechanism['map'],
  name: Exclude<AddedName, 'tape'>,
  joint: Joint,
  troubles: JobState['troubles'],
): string {
  switch (name) {
    case 'heat':
      return 'It would not lift, or has grown stiff: more heat, not more force.';
    case 'soak':
      return 'The tab snapped: fetch it with blunt tweezers first; else solvent and patience.';
    case 'look': {
      if (joint.type !== 'bond') return 'A clip broke: see that it sits flush all round, else the part is renewed.';
      const cut = troubles.findLast(({ data }) => data.kind === 'cut-too-deep' && data.joint === joint.id);
      const behind = behindEdge(map, joint, cut?.data.segment).map((part) => part.name);
      return `It was cut too deep. Look for damage${behind.length > 0 ? ` at ${behind.join(', ')}` : ' behind the edge'} before going on.`;
    }
  }
}

/** A plan's operation as the step that an event records. */
export function doneStep(op: Op): DoneStep {
  const { id, kind, joint, part, onto, staysOpen, name, isNew } = op;
  return {
    id,
    kind,
    ...(joint === undefined ? {} : { joint }),
    ...(part === undefined ? {} : { part }),
    ...(onto === undefined ? {} : { onto }),
    ...(staysOpen ? { staysOpen } : {}),
    ...(name === undefined ? {} : { name }),
    ...(isNew ? { new: true } : {}),
  };
}
