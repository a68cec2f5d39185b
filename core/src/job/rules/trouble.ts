import { temperature, type TemperatureUnit } from '../../model/units/index.ts';
import { wrong } from '../../model/refusal/index.ts';
import { opId } from '../../planner/drafts/index.ts';
import { type BondJoint, fastenerAt, isOuter, jointById } from '../../model/device-map/index.ts';
import { heldName, pointName } from '../../planner/words/index.ts';
import { SOFTENS_C } from '../../physics/heat/index.ts';
import type { Mechanism } from '../../planner/holds/index.ts';
import { type Ledger, lose, type Screw } from '../../screws/screws/index.ts';
import type { EventData } from '../events/index.ts';
import { type Correction, grown, type JobState, type Outcome, type Trouble } from '../state/index.ts';

/** Records a trouble and what follows from it: operations added, counts corrected, a part that has to be new. */
export function withTrouble(mechanism: Mechanism, state: JobState, trouble: Trouble): Outcome {
  const recorded = { ...state, troubles: grown(state.troubles, trouble) };
  const { data } = trouble;
  switch (data.kind) {
    case 'will-not-lift': {
      const step = data.next === 'solvent' ? 'soak' : 'heat';
      return { state: withStep(mechanism, harder(mechanism, recorded, data), step, data.joint) };
    }
    case 'drags':
      return drags(mechanism, recorded, data);
    case 'grabbed-again':
      return { state: withStep(mechanism, recorded, 'heat', data.joint) };
    case 'cup-slips':
      return { state: withTapeOn(mechanism, recorded, data.joint) };
    case 'cut-too-deep':
      return cutTooDeep(mechanism, recorded, trouble);
    case 'clip-broken':
      return { state: withLook(mechanism, recorded, 'make', data.joint) };
    case 'tab-snapped':
      return { state: withStep(mechanism, recorded, 'soak', data.joint) };
    case 'part-cracked':
      return { state: withTape(mechanism, withReplacement(mechanism, recorded, data.part), data.part) };
    case 'connector-damaged':
      return { state: withReplacement(mechanism, recorded, data.part) };
    case 'screw-lost':
      return withScrew(mechanism, recorded, trouble, (ledger, screw) => lose(ledger, screw));
    case 'screw-never-there':
      return withScrew(mechanism, recorded, trouble, (ledger, screw) => ({
        ...ledger,
        neverThere: new Set([...ledger.neverThere, `${screw.joint}/${screw.point}`]),
        onMat: ledger.onMat.filter((each) => each.joint !== screw.joint || each.point !== screw.point),
      }));
    case 'no-place':
      return withScrew(mechanism, recorded, trouble, leftOver);
    case 'another-length':
      return withScrew(mechanism, recorded, trouble, (ledger, screw) => ({
        ...ledger,
        onMat: ledger.onMat.map((each) =>
          each.joint === screw.joint && each.point === screw.point ? { ...each, length_mm: data.length_mm! } : each,
        ),
      }));
    case 'one-screw-more': {
      if (!data.joint || !data.fastener)
        return { problem: wrong('joint', 'Nothing says which screw is one more.', 'Name its joint and its kind.') };
      const extra = { joint: data.joint, point: `more-${recorded.troubles.length}`, fastener: data.fastener };
      const ledger = { ...state.ledger, onMat: grown(state.ledger.onMat, extra) };
      return { state: { ...recorded, ledger, corrections: grown(state.corrections, correction(mechanism, trouble)) } };
    }
    case 'screw-stripped':
    case 'other':
      return { state: recorded };
  }
}

/** How much hotter a bond that would not lift is thought to soften, past what it had (guess). */
const HARDER_C = 3;
/** The same where nobody knows what it had. */
const HARDER_UNKNOWN_C = 5;
/** No adhesive of a front or back asks for more (common practice). */
const HARDEST_C = 85;

/** A bond that would not lift was not soft at the temperature it had then: it is taken to soften hotter than that. */
function harder(mechanism: Mechanism, state: JobState, { joint, bond_C }: EventData['trouble']): JobState {
  const bond = jointById(mechanism.map, joint);
  if (bond?.type !== 'bond' || !bond.heat) return state;
  const before = state.opening.softens.get(bond.id) ?? bond.soften_C ?? SOFTENS_C;
  const taught = bond_C === undefined ? before + HARDER_UNKNOWN_C : Math.max(before, bond_C + HARDER_C);
  const to = Math.round(Math.max(before, Math.min(HARDEST_C, taught)));
  if (to <= before) return state;
  const softens = new Map(state.opening.softens).set(bond.id, to);
  const correction = {
    path: `joints[${mechanism.joint.get(bond.id)}].soften_C`,
    from: bond.soften_C ?? null,
    to,
    text: `${bond.id} would not lift`,
    softensFrom_C: to,
  };
  // the last word of several counts
  const others = state.corrections.filter(({ path }) => path !== correction.path);
  return { ...state, corrections: [...others, correction], opening: { ...state.opening, softens } };
}

/** A proposed correction of the map, in words. @param unit what the bench reads temperatures in */
export function correctionText({ text, softensFrom_C }: Correction, unit: TemperatureUnit): string {
  return softensFrom_C === undefined ? text : `${text}: it seems to soften from ${temperature(softensFrom_C, unit)}`;
}

/** More heat, never more force; a bond that is not heated gets solvent. */
function drags(mechanism: Mechanism, state: JobState, { joint, segment }: EventData['trouble']): Outcome {
  const bond = jointById(mechanism.map, joint);
  if (bond?.type !== 'bond') return { problem: wrong('joint', 'Nothing says which bond drags.', 'Name it.') };
  if (segment !== undefined && !bond.segments?.some(({ id }) => id === segment)) {
    return { problem: wrong('segment', `“${segment}” is no edge of this bond.`, 'Name one of its edges.') };
  }
  return { state: withStep(mechanism, state, 'heat', bond.id) };
}

/** Where a bond softens as far as is known: the map's figure, and what refusals to lift have taught since. */
export function softensAt(state: JobState, bond: BondJoint): number {
  return state.opening.softens.get(bond.id) ?? bond.soften_C ?? SOFTENS_C;
}

/** A cup that slips gets tape to hold on to; cracked glass gets it to hold its splinters. */
function withTapeOn(mechanism: Mechanism, state: JobState, joint: string | undefined): JobState {
  return withTape(mechanism, state, jointById(mechanism.map, joint)?.holds[0]);
}

function withTape(mechanism: Mechanism, state: JobState, part: string | undefined): JobState {
  const index = mechanism.part.get(part ?? '');
  const each = index === undefined ? undefined : mechanism.map.parts[index];
  if (!each || state.device.status[index!] !== 0 || !(isOuter(each) || each.kind === 'lens')) return state;
  const bond = mechanism.map.joints.find((one) => one.type === 'bond' && one.holds.includes(each.id));
  if (!bond || state.added.some(({ step }) => step === opId('tape', each.id))) return state;
  return withAddedStep(state, opId('tape', each.id), opId('release', bond.id));
}

/** The same trouble told twice, before the step that answers it was done, asks for that step once. */
function withAddedStep(state: JobState, step: string, before: string): JobState {
  if (state.added.some((each) => each.step === step && each.before === before)) return state;
  return { ...state, added: [...state.added, { step, before }] };
}

function withLook(
  mechanism: Mechanism,
  state: JobState,
  before: 'release' | 'make',
  joint: string | undefined,
): JobState {
  if (joint === undefined || !mechanism.joint.has(joint)) return state;
  return withAddedStep(state, opId('look', joint), `${before}:${joint}`);
}

/** What lies behind the edge is looked at before anything goes on; where that is a cell, the work stops as well. */
function cutTooDeep(mechanism: Mechanism, state: JobState, { data }: Trouble): Outcome {
  const bond = jointById(mechanism.map, data.joint);
  if (bond?.type !== 'bond')
    return { problem: wrong('joint', 'Nothing says which bond was cut too deep.', 'Name it.') };
  return { state: withLook(mechanism, state, 'release', bond.id) };
}

/**
 * Only a bond is helped by heat or solvent: for any other joint that will not lift the trouble is recorded, and no
 * step is added.
 */
function withStep(
  mechanism: Mechanism,
  state: JobState,
  procedure: 'heat' | 'soak',
  joint: string | undefined,
): JobState {
  const bond = jointById(mechanism.map, joint);
  if (bond?.type !== 'bond') return state;
  // what the map lets no heat come near is soaked
  const step = procedure === 'heat' && !bond.heat ? 'soak' : procedure;
  return withAddedStep(state, `${step}:${bond.id}`, opId('release', bond.id));
}

function withReplacement(mechanism: Mechanism, state: JobState, part: string | undefined): JobState {
  if (part === undefined || !mechanism.part.has(part)) return state;
  if (state.targets.some((each) => 'replace' in each && each.replace === part)) return state;
  return { ...state, targets: [...state.targets, { replace: part }] };
}

function withScrew(
  mechanism: Mechanism,
  state: JobState,
  trouble: Trouble,
  change: (ledger: Ledger, screw: Screw) => Ledger,
): Outcome {
  const { data } = trouble;
  const joint = jointById(mechanism.map, data.joint);
  const point = joint?.type === 'screw' ? joint.points.find((each) => each.id === data.point) : undefined;
  if (joint?.type !== 'screw' || !point)
    return { problem: wrong('point', 'Nothing says which screw it is.', 'Name its joint and its point.') };
  if (data.kind === 'another-length' && data.length_mm === undefined)
    return { problem: wrong('length_mm', 'Another length, and nothing says which.', 'Give it in mm.') };
  const screw = { joint: joint.id, point: point.id, fastener: fastenerAt(joint, point) };
  const ledger = change(state.ledger, screw);
  const corrections =
    data.kind === 'screw-lost' ? state.corrections : grown(state.corrections, correction(mechanism, trouble));
  return { state: { ...state, ledger, corrections } };
}

/** It is kept as left over; its hole is not waited for. */
function leftOver(ledger: Ledger, screw: Screw): Ledger {
  const isIt = (each: Screw) => each.joint === screw.joint && each.point === screw.point;
  return {
    ...ledger,
    neverThere: new Set([...ledger.neverThere, `${screw.joint}/${screw.point}`]),
    onMat: ledger.onMat.filter((each) => !isIt(each)),
    leftOut: [...ledger.leftOut, ...ledger.onMat.filter(isIt)],
  };
}

/** The change to the map that this trouble suggests, by its JSON path. */
function correction(mechanism: Mechanism, { data }: Trouble) {
  const number = mechanism.joint.get(data.joint!) ?? -1;
  const joint = mechanism.map.joints[number];
  const points = joint?.type === 'screw' ? joint.points : [];
  const index = points.findIndex((each) => each.id === data.point);
  const path = `joints[${number}].points${index < 0 ? '' : `[${index}]`}`;
  const from = index < 0 ? null : points[index];
  const named = pointName(mechanism.map, data.joint!, data.point ?? '');
  switch (data.kind) {
    case 'screw-never-there':
      return { path, from, to: null, text: `There never was a ${named}.` };
    case 'no-place':
      return { path, from, to: null, text: `There is no place for the ${named}.` };
    case 'another-length':
      return {
        path,
        from,
        to: { ...from, length_mm: data.length_mm },
        text: `The ${named} is ${data.length_mm} mm long.`,
      };
    default:
      return {
        path,
        from,
        to: { fastener: data.fastener },
        text: `${heldName(mechanism.map, data.joint!)} has one screw more than the map says.`,
      };
  }
}
