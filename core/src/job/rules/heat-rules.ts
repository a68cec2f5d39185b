import { isSoftened } from '../../planner/drafts/index.ts';
import { settled } from '../../model/policy/index.ts';
import { sourceNamed } from '../../model/sources/index.ts';
import { COOLED_s, hottest_C, ROOM_C, stackOfBond } from '../../physics/heat/index.ts';
import type { Mechanism } from '../../planner/holds/index.ts';
import { thingName } from '../../planner/words/index.ts';
import { soakProblem } from '../../physics/solvent/index.ts';
import { airingLeft_s, dropCount, useAt } from '../state/index.ts';
import type { BenchEvent, DoneStep } from '../events/index.ts';
import type { OpeningEventData } from '../events/index.ts';
import { dropsOf, type Warmed } from '../state/index.ts';
import type { JobState } from '../state/index.ts';
import { lyingOver } from './steps.ts';
import { type BenchUse, ONLY_BENCH, type Surroundings } from '../state/index.ts';

/** A source stays on for no longer. */
const LONGEST_s = 3600;

/** Why a source may not be put on, solvent not be used, or a bench not be called aired; null where it may. */
export function heatProblem(
  mechanism: Mechanism,
  state: JobState,
  event: BenchEvent,
  around: Surroundings,
): string | null {
  // waits are over when the server's clock says so, not when somebody does
  const now = around.now ?? Date.parse(event.at);
  switch (event.type) {
    case 'heat-on':
      return (
        outOfRange(event.data) ??
        notToBeHeated(mechanism, state, event.data.joint) ??
        vapourAt(state, useAt(state, event.data.bench, around), now)
      );
    case 'solvent':
      return (
        noBond(mechanism, event.data.joint) ??
        nearHeat(mechanism, state, event.data, useAt(state, event.data.bench, around), now)
      );
    case 'aired':
      return event.data.anyway === undefined ? airedTooSoon(state, useAt(state, event.data.bench, around), now) : null;
    case 'edge':
    case 'screw':
      return releasedWhileOn(mechanism, state, event.data.joint);
    case 'did':
      return event.data.steps.reduce<string | null>(
        (found, step) => found ?? stepProblem(mechanism, state, step, now, around),
        null,
      );
    default:
      return null;
  }
}

function outOfRange({ setting, heat_s }: OpeningEventData['heat-on']): string | null {
  const { least_C, most_C } = sourceNamed(setting.kind);
  if (setting.temp_C < least_C || setting.temp_C > most_C) {
    return `setting.temp_C: ${setting.temp_C} °C is not from ${least_C} to ${most_C} °C, which is what a ${setting.kind} is set to.`;
  }
  if (heat_s < 1 || heat_s > LONGEST_s) return `heat_s: ${heat_s} s is not from 1 s to an hour.`;
  return null;
}

function noBond({ map }: Mechanism, joint: string): string | null {
  return map.joints.some(({ id, type }) => id === joint && type === 'bond')
    ? null
    : `joint: There is no bond “${joint}” in this map.`;
}

/** Why a bond is not warmed: its map lets no heat come near it, or something else lies over it still. */
function notToBeHeated(mechanism: Mechanism, state: JobState, id: string): string | null {
  const { map } = mechanism;
  const bond = map.joints.find((each) => each.id === id);
  if (bond?.type !== 'bond') return noBond(mechanism, id);
  const cells = new Set(mechanism.isolation.cells.map((cell) => map.parts[cell]!.id));
  if (!bond.heat && !isSoftened(bond, cells, settled(map, state.policy).policy)) {
    return `joint: The map does not let ${thingName(map, id)} be heated. Use solvent, or change the map.`;
  }
  // warmed through its other face, what lies over this one is not in the way
  if (bond.heatFace !== undefined && bond.heatFace !== bond.face) return null;
  const over = lyingOver(mechanism, state, id);
  if (over.length === 0) return null;
  return `joint: ${thingName(map, id)} does not lie bare. First: ${over.join('; ')}.`;
}

function vapourAt(state: JobState, use: BenchUse, now: number): string | null {
  if (use.drops.length === 0) return null;
  const left_s = Math.ceil(airingLeft_s(use, state.limits, now));
  const wait = left_s > 0 ? `Air the bench for ${left_s} s more` : 'Air the bench, and say so,';
  return `Solvent was used (${dropCount(use.drops)} drops): its vapour can catch fire. ${wait} before any heat.`;
}

function nearHeat(
  mechanism: Mechanism,
  state: JobState,
  data: OpeningEventData['solvent'],
  use: BenchUse,
  now: number,
): string | null {
  const computed_C = warmest_C(mechanism, state, data.joint, now, state.limits.solventBelow_C);
  // what is said may only raise it
  const bond_C = Math.max(computed_C, data.bond_C ?? ROOM_C);
  return soakProblem({ heating: use.sourceOn !== null, bond_C, away: data.away }, state.limits);
}

/** Alcohol is wiped onto a bond as solvent is put to one: not while it, or anything beside it, is hot. Null where it may be. */
export function tooWarmForAlcohol(mechanism: Mechanism, state: JobState, joint: string, now: number): string | null {
  const { heating, warmed } = state.opening;
  if (warmed.length === 0 && !heating) return null;
  const below_C = state.limits.solventBelow_C;
  const bond_C = warmest_C(mechanism, state, joint, now, below_C);
  return soakProblem({ heating: heating !== null, bond_C, away: true }, state.limits);
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
    const bond = mechanism.map.joints.find(({ id }) => id === each.joint);
    if (bond?.type !== 'bond') continue;
    warmest = Math.max(warmest, hottest_C(stackOfBond(mechanism.map, bond), each, since_s(each, now)));
  }
  return warmest;
}

function since_s({ offAt, pace }: Warmed, now: number): number {
  return (Math.max(0, now - Date.parse(offAt)) / 1000) * pace;
}

function airedTooSoon(state: JobState, use: BenchUse, now: number): string | null {
  const left_s = Math.ceil(airingLeft_s(use, state.limits, now));
  if (left_s === 0) return null;
  return `${dropCount(use.drops)} drops, the last not long ago: ${left_s} s more of airing. Vapour can catch fire.`;
}

/** A step that is only ticked: what goes with heat and solvent is said before it, or it is not taken. */
function stepProblem(
  mechanism: Mechanism,
  state: JobState,
  { kind, name, joint }: DoneStep,
  now: number,
  around: Surroundings,
): string | null {
  if (kind === 'release' && joint !== undefined) return releasedWhileOn(mechanism, state, joint);
  if (kind !== 'procedure') return null;
  const benches = [...new Set([ONLY_BENCH, ...state.opening.solvent.keys()])];
  const uses = benches.map((bench) => useAt(state, bench, around));
  switch (name) {
    case 'heat':
      return (
        (joint === undefined ? null : notToBeHeated(mechanism, state, joint)) ??
        uses.reduce<string | null>((found, use) => found ?? vapourAt(state, use, now), null)
      );
    case 'soak':
      return state.inForce.some((each) => each.type === 'solvent' && each.data.joint === joint)
        ? null
        : 'Nobody said how many drops went on: say so first (solvent), so that the bench is aired for as long as they ask.';
    case 'wipe':
      return joint === undefined ? null : tooWarmForAlcohol(mechanism, state, joint, now);
    case 'vent':
      return dropsOf(state.opening) > 0
        ? 'Drops are in the air: say when the bench was aired (aired), which counts the time since the last of them.'
        : null;
    default:
      return null;
  }
}

/** Nothing is released while its source is on, also where it is only warmed along with another. */
function releasedWhileOn(mechanism: Mechanism, { opening }: JobState, id: string): string | null {
  const heated = mechanism.map.joints.find((each) => each.id === opening.heating?.joint);
  const joint = mechanism.map.joints.find((each) => each.id === id);
  if (heated?.type !== 'bond' || !joint) return null;
  const isWarmedWith = joint.type === 'bond' && joint.heatGroup !== undefined && joint.heatGroup === heated.heatGroup;
  if (joint !== heated && !isWarmedWith) return null;
  return `The heat source of ${thingName(mechanism.map, heated.id)} is still on. Take it off before you cut or release.`;
}
