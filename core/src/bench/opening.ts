import type { BondJoint } from '../device-map/index.ts';
import { readingProblem, ROOM_C } from '../heat/index.ts';
import type { Mechanism } from '../holds/index.ts';
import { thingName } from '../plan/index.ts';
import { airing, soakProblem } from '../solvent/index.ts';
import type { BenchEvent } from './events.ts';
import { withMark } from './mark.ts';
import type { OpeningEventData } from './opening-events.ts';
import { lastWarmed, type Opening, pastOf, type Warmed } from './opening-state.ts';
import type { JobState, Outcome } from './state.ts';
import { releasedBy } from './steps.ts';
import { isWarmedThrough, zonesOf } from './zones.ts';

export type OpeningEvent = Extract<BenchEvent, { type: keyof OpeningEventData }>;

export function atOpening(mechanism: Mechanism, state: JobState, event: OpeningEvent): Outcome {
  const { opening } = state;
  switch (event.type) {
    case 'heat-on':
      return heatOn(mechanism, state, event.data, event.at);
    case 'heat-reading':
      return readingsTaken(state, event.data);
    case 'heat-off':
      return heatOff(mechanism, state, event.data, event.at);
    case 'edge':
      return edgeCut(mechanism, state, event.data);
    case 'placeholder': {
      const bond = bondOf(mechanism, event.data.joint);
      if (!bond) return { problem: noBond(event.data.joint) };
      const { joint, ...picks } = event.data;
      return opened(state, { placeholders: new Map(opening.placeholders).set(joint, picks) });
    }
    case 'solvent':
      return soaked(mechanism, state, event.data);
    case 'aired':
      return aired(state, event.data);
  }
}

/** A vent of the plan, or one that the solvent of trouble asks for. */
function aired(state: JobState, { step, seconds }: OpeningEventData['aired']): Outcome {
  const needed = airing(state.opening.drops, state.limits).seconds;
  if (seconds < needed) {
    return {
      problem: `${state.opening.drops} drops need ${needed} s of airing; it has been ${Math.round(seconds)} s. Vapour can catch fire.`,
    };
  }
  return { state: withMark(opened(state, { drops: 0 }).state, step) };
}

function opened(state: JobState, change: Partial<Opening>): { readonly state: JobState } {
  return { state: { ...state, paused: false, opening: { ...state.opening, ...change } } };
}

function bondOf(mechanism: Mechanism, id: string): BondJoint | null {
  const joint = mechanism.map.joints.find((each) => each.id === id);
  return joint?.type === 'bond' ? joint : null;
}

function noBond(id: string): string {
  return `There is no bond “${id}” in this map.`;
}

function isReleased(mechanism: Mechanism, state: JobState, id: string): boolean {
  return Boolean(state.device.released[mechanism.joint.get(id)!]);
}

function heatOn(mechanism: Mechanism, state: JobState, data: OpeningEventData['heat-on'], at: string): Outcome {
  const { opening, limits } = state;
  const bond = bondOf(mechanism, data.joint);
  if (!bond) return { problem: noBond(data.joint) };
  if (opening.heating) {
    return {
      problem: `${thingName(mechanism.map, opening.heating.joint)} is being heated. Take the source off first.`,
    };
  }
  if (isReleased(mechanism, state, bond.id))
    return { problem: 'This bond is released already; nothing is to be heated.' };
  const zones = zonesOf(bond);
  if (data.zone !== undefined && !zones.includes(data.zone)) {
    return { problem: `This bond has no zone “${data.zone}”.` };
  }
  if (opening.drops > 0) {
    const { seconds } = airing(opening.drops, limits);
    return {
      problem: `Solvent was used (${opening.drops} drops): its vapour can catch fire. Air the bench for ${seconds} s before any heat.`,
    };
  }
  const soft = [...opening.placeholders].find(([, { material, count }]) => count > 0 && material === 'plastic');
  if (data.setting.kind === 'air' && soft) {
    return { problem: 'Plastic picks are in the gap: hot air softens them. Change them for metal, and say so.' };
  }
  const before = lastWarmed(opening, bond.id, data.zone);
  const gap_s = before ? Math.max(0, (Date.parse(at) - Date.parse(before.offAt)) / 1000) * before.pace : 0;
  const past = pastOf(before, gap_s);
  return opened(state, { heating: { ...data, startedAt: at, readings: [], past, simulatedReadings: false } });
}

function readingsTaken(state: JobState, { joint, readings, simulated }: OpeningEventData['heat-reading']): Outcome {
  const { heating } = state.opening;
  if (heating?.joint !== joint) return { problem: 'No source is on this bond. Put it on before you read.' };
  let all = heating.readings;
  for (const reading of readings) {
    const problem = readingProblem(reading, all, heating.setting, ROOM_C);
    if (problem) return { problem };
    all = [...all, reading];
  }
  const simulatedReadings = heating.simulatedReadings || simulated === true;
  return opened(state, { heating: { ...heating, readings: all, simulatedReadings } });
}

/** A bond that is warmed with another is warm as well. */
function heatOff(mechanism: Mechanism, state: JobState, data: OpeningEventData['heat-off'], at: string): Outcome {
  const { heating } = state.opening;
  if (heating?.joint !== data.joint) return { problem: 'No source is on this bond.' };
  const bond = bondOf(mechanism, data.joint)!;
  const { zone } = heating;
  const warmed: Omit<Warmed, 'joint'> = {
    ...(zone === undefined ? {} : { zone }),
    setting: data.setting ?? heating.setting,
    seconds: data.seconds,
    offAt: at,
    past: heating.past,
    pace: heating.pace ?? 1,
  };
  const together = mechanism.map.joints.flatMap((each) =>
    each.type === 'bond' && (each.id === bond.id || (bond.heatGroup !== undefined && each.heatGroup === bond.heatGroup))
      ? [each.id]
      : [],
  );
  const isOver = (each: Warmed) => together.includes(each.joint) && (zone === undefined || each.zone === zone);
  const after = opened(state, {
    heating: null,
    warmed: [
      ...state.opening.warmed.filter((each) => !isOver(each)),
      ...together.map((joint) => ({ joint, ...warmed })),
    ],
  });
  return isWarmedThrough(mechanism.map, after.state.opening, bond)
    ? { state: withMark(after.state, `heat:${bond.id}`) }
    : after;
}

function edgeCut(mechanism: Mechanism, state: JobState, { joint, segment }: OpeningEventData['edge']): Outcome {
  const bond = bondOf(mechanism, joint);
  if (!bond) return { problem: noBond(joint) };
  if (state.opening.heating?.joint === joint) {
    return { problem: 'The heat source is still on. Take it off before you cut.' };
  }
  const cut = (bond.segments ?? []).filter((each) => each.depth !== undefined);
  if (!cut.some((each) => each.id === segment)) {
    return { problem: `“${segment}” is no edge of this bond that is cut.` };
  }
  const before = state.opening.cut.get(joint) ?? new Set();
  if (before.has(segment)) return { problem: 'This edge is cut already.' };
  const all = new Set([...before, segment]);
  const release = releasedBy(mechanism, state, joint);
  if ('problem' in release) return release;
  if (all.size < cut.length) return opened(state, { cut: new Map(state.opening.cut).set(joint, all) });
  return { state: release.state };
}

function soaked(mechanism: Mechanism, state: JobState, data: OpeningEventData['solvent']): Outcome {
  const bond = bondOf(mechanism, data.joint);
  if (!bond) return { problem: noBond(data.joint) };
  const { opening, limits } = state;
  const conditions = { heating: opening.heating !== null, bond_C: data.bond_C, away: data.away };
  const problem = soakProblem(conditions, limits);
  return problem ? { problem } : opened(state, { drops: opening.drops + data.drops });
}
