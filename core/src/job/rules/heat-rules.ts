import { jointById } from '../../model/device-map/index.ts';
import { temperature, type TemperatureUnit, temperatures } from '../../model/units/index.ts';
import { notInMap, type Problem, wrong } from '../../model/refusal/index.ts';
import { isSoftened } from '../../planner/drafts/index.ts';
import { settled } from '../../model/policy/index.ts';
import { sourceNamed } from '../../model/sources/index.ts';
import { COOLED_s, hottest_C, readingProblem, ROOM_C, stackOfBond } from '../../physics/heat/index.ts';
import type { Mechanism } from '../../planner/holds/index.ts';
import { thingName } from '../../planner/words/index.ts';
import { soakProblem } from '../../physics/solvent/index.ts';
import {
  airingLeft_s,
  type BenchUse,
  dropCount,
  dropsOf,
  type JobState,
  ONLY_BENCH,
  type Surroundings,
  useAt,
  type Warmed,
} from '../state/index.ts';
import type { BenchEvent, DoneStep, OpeningEventData } from '../events/index.ts';
import { lyingOver } from './steps.ts';

/** A source stays on for no longer. */
const LONGEST_s = 3600;

/** Why a source may not be put on, solvent not be used, or a bench not be called aired; null where it may. */
export function heatProblem(
  mechanism: Mechanism,
  state: JobState,
  event: BenchEvent,
  around: Surroundings,
): Problem | null {
  // waits are over when the server's clock says so, not when somebody does
  const now = around.now ?? Date.parse(event.at);
  switch (event.type) {
    case 'heat-on':
      return (
        outOfRange(event.data, around.unit) ??
        notToBeHeated(mechanism, state, event.data.joint) ??
        vapourAt(state, useAt(state, event.data.bench, around), now)
      );
    case 'heat-reading':
      return notBelieved(mechanism, state, event.data, around.unit);
    case 'solvent':
      return noBond(mechanism, event.data.joint) ?? nearHeat(mechanism, state, event.data, around, now);
    case 'aired':
      return event.data.anyway === undefined ? airedTooSoon(state, useAt(state, event.data.bench, around), now) : null;
    case 'edge':
    case 'screw':
      return releasedWhileOn(mechanism, state, event.data.joint);
    case 'did':
      return event.data.steps.reduce<Problem | null>(
        (found, step) => found ?? stepProblem(mechanism, state, step, now, around),
        null,
      );
    default:
      return null;
  }
}

function outOfRange({ setting, heat_s }: OpeningEventData['heat-on'], unit: TemperatureUnit): Problem | null {
  const { least_C, most_C } = sourceNamed(setting.kind);
  if (setting.temp_C < least_C || setting.temp_C > most_C) {
    return wrong(
      'setting.temp_C',
      `${temperature(setting.temp_C, unit)} is not from ${temperatures(least_C, most_C, unit)}, which is what a ${setting.kind} is set to.`,
      'Set it within that.',
    );
  }
  if (heat_s < 1 || heat_s > LONGEST_s)
    return wrong('heat_s', `${heat_s} s is not from 1 s to an hour.`, 'Give a time within that.');
  return null;
}

function noBond({ map }: Mechanism, joint: string): Problem | null {
  return map.joints.some(({ id, type }) => id === joint && type === 'bond') ? null : notInMap('joint', 'bond', joint);
}

/** Why a bond is not warmed: its map lets no heat come near it, or something else lies over it still. */
function notToBeHeated(mechanism: Mechanism, state: JobState, id: string): Problem | null {
  const { map } = mechanism;
  const bond = jointById(map, id);
  if (bond?.type !== 'bond') return noBond(mechanism, id);
  const cells = new Set(mechanism.isolation.cells.map((cell) => map.parts[cell]!.id));
  if (!bond.heat && !isSoftened(bond, cells, settled(map, state.policy).policy)) {
    return wrong('joint', `The map does not let ${thingName(map, id)} be heated.`, 'Use solvent, or change the map.');
  }
  // warmed through its other face, what lies over this one is not in the way
  if (bond.heatFace !== undefined && bond.heatFace !== bond.face) return null;
  const over = lyingOver(mechanism, state, id);
  if (over.length === 0) return null;
  return wrong('joint', `${thingName(map, id)} does not lie bare.`, `First: ${over.join('; ')}.`);
}

/** A reading that can't be right is taken again; a cell that is hotter than anything near it is believed. */
function notBelieved(
  { map }: Mechanism,
  { opening: { heating } }: JobState,
  { joint, readings }: OpeningEventData['heat-reading'],
  unit: TemperatureUnit,
): Problem | null {
  if (heating?.joint !== joint) return null;
  const cells = new Set(map.parts.flatMap(({ id, hazards }) => (hazards?.includes('lithium') ? [id] : [])));
  const earlier = [...heating.readings];
  for (const reading of readings) {
    const problem = cells.has(reading.spot) ? null : readingProblem(reading, earlier, heating.setting, ROOM_C, unit);
    if (problem) return problem;
    earlier.push(reading);
  }
  return null;
}

function vapourAt(state: JobState, use: BenchUse, now: number): Problem | null {
  if (use.drops.length === 0) return null;
  const left_s = Math.ceil(airingLeft_s(use, state.limits, now));
  const wait = left_s > 0 ? `Air the bench for ${left_s} s more` : 'Air the bench, and say so,';
  return wrong(
    '',
    `Solvent was used (${dropCount(use.drops)} drops): its vapour can catch fire.`,
    `${wait} before any heat.`,
  );
}

function nearHeat(
  mechanism: Mechanism,
  state: JobState,
  data: OpeningEventData['solvent'],
  around: Surroundings,
  now: number,
): Problem | null {
  const computed_C = warmest_C(mechanism, state, data.joint, now, state.limits.solventBelow_C);
  // what is said may only raise it
  const bond_C = Math.max(computed_C, data.bond_C ?? ROOM_C);
  const { sourceOn } = useAt(state, data.bench, around);
  return soakProblem({ heating: sourceOn !== null, bond_C, away: data.away }, state.limits, around.unit);
}

/** Alcohol is wiped onto a bond as solvent is put to one: not while it, or anything beside it, is hot. Null where it may be. */
export function tooWarmForAlcohol(
  mechanism: Mechanism,
  state: JobState,
  joint: string,
  now: number,
  unit: TemperatureUnit = 'C',
): Problem | null {
  const { heating, warmed } = state.opening;
  if (warmed.length === 0 && !heating) return null;
  const below_C = state.limits.solventBelow_C;
  const bond_C = warmest_C(mechanism, state, joint, now, below_C);
  return soakProblem({ heating: heating !== null, bond_C, away: true }, state.limits, unit);
}

/** So many coolings are computed; what was warmed before them is taken to be as hot as its source was. */
const MOST_COMPUTED = 3;

/**
 * The most that a bond, or anything warmed beside it, may have at a moment, °C: by what was done and read, whatever a
 * client says. A stand-in's clock runs at its pace. What is hotter than `enough_C` is found out no further.
 */
function warmest_C(mechanism: Mechanism, { opening }: JobState, joint: string, now: number, enough_C: number): number {
  const own = opening.warmed.filter((each) => each.joint === joint);
  const others = opening.warmed.filter((each) => each.joint !== joint && !own.some((one) => one.offAt === each.offAt));
  const computed = [...others.slice(-MOST_COMPUTED), ...own.slice(-MOST_COMPUTED)];
  const left = opening.warmed.length > computed.length ? opening.warmed.filter((each) => !computed.includes(each)) : [];
  let warmest = ROOM_C;
  for (const each of left) if (since_s(each, now) < COOLED_s) warmest = Math.max(warmest, each.setting.temp_C);
  for (const each of computed) {
    if (warmest > enough_C) return warmest;
    const bond = jointById(mechanism.map, each.joint);
    if (bond?.type !== 'bond') continue;
    warmest = Math.max(warmest, hottest_C(stackOfBond(mechanism.map, bond), each, since_s(each, now)));
  }
  return warmest;
}

function since_s({ offAt, pace }: Warmed, now: number): number {
  return (Math.max(0, now - Date.parse(offAt)) / 1000) * pace;
}

function airedTooSoon(state: JobState, use: BenchUse, now: number): Problem | null {
  const left_s = Math.ceil(airingLeft_s(use, state.limits, now));
  if (left_s === 0) return null;
  return wrong(
    '',
    `${dropCount(use.drops)} drops, the last not long ago: their vapour can catch fire.`,
    `Air it for ${left_s} s more.`,
  );
}

/** A step that is only ticked: what goes with heat and solvent is said before it, or it is not taken. */
function stepProblem(
  mechanism: Mechanism,
  state: JobState,
  { kind, name, joint }: DoneStep,
  now: number,
  around: Surroundings,
): Problem | null {
  if (kind === 'release' && joint !== undefined) return releasedWhileOn(mechanism, state, joint);
  if (kind !== 'procedure') return null;
  const benches = [...new Set([ONLY_BENCH, ...state.opening.solvent.keys()])];
  const uses = benches.map((bench) => useAt(state, bench, around));
  switch (name) {
    case 'heat':
      return (
        (joint === undefined ? null : notToBeHeated(mechanism, state, joint)) ??
        uses.reduce<Problem | null>((found, use) => found ?? vapourAt(state, use, now), null)
      );
    case 'soak':
      return state.inForce.some((each) => each.type === 'solvent' && each.data.joint === joint)
        ? null
        : wrong(
            '',
            'Nobody said how many drops went on.',
            'Say so first (solvent), so that the bench is aired for as long as they ask.',
          );
    case 'wipe':
      return joint === undefined ? null : tooWarmForAlcohol(mechanism, state, joint, now, around.unit);
    case 'vent':
      return dropsOf(state.opening) > 0
        ? wrong(
            '',
            'Drops are in the air.',
            'Say when the bench was aired (aired), which counts the time since the last of them.',
          )
        : null;
    default:
      return null;
  }
}

/** Nothing is released while its source is on, also where it is only warmed along with another. */
function releasedWhileOn(mechanism: Mechanism, { opening }: JobState, id: string): Problem | null {
  const heated = jointById(mechanism.map, opening.heating?.joint);
  const joint = jointById(mechanism.map, id);
  if (heated?.type !== 'bond' || !joint) return null;
  const isWarmedWith = joint.type === 'bond' && joint.heatGroup !== undefined && joint.heatGroup === heated.heatGroup;
  if (joint !== heated && !isWarmedWith) return null;
  return wrong(
    '',
    `The heat source of ${thingName(mechanism.map, heated.id)} is still on.`,
    'Take it off before you cut or release.',
  );
}
