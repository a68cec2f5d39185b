import type { HeatSetting } from '../../physics/heat/index.ts';
import { notInMap, wrong } from '../../model/refusal/index.ts';
import { opId } from '../../planner/drafts/index.ts';
import { type BondJoint, jointById, tabsOf } from '../../model/device-map/index.ts';
import type { Mechanism } from '../../planner/holds/index.ts';
import { isSameName } from '../../model/names/index.ts';
import { thingName } from '../../planner/words/index.ts';
import {
  grown,
  type Heating,
  isCellBehind,
  isWarmedThrough,
  type JobState,
  knownBench,
  lastWarmed,
  ONLY_BENCH,
  type Opening,
  type Outcome,
  pastOf,
  type Warmed,
  withKey,
  type Zone,
  zonesOf,
} from '../state/index.ts';
import { type BenchEvent, countsFrom, type OpeningEventData } from '../events/index.ts';
import { withMark } from './mark.ts';
import { releasedBy, releaseProblem } from './steps.ts';

export type OpeningEvent = Extract<BenchEvent, { type: keyof OpeningEventData }>;

export function atOpening(mechanism: Mechanism, state: JobState, event: OpeningEvent): Outcome {
  const { opening } = state;
  switch (event.type) {
    case 'heat-on':
      return heatOn(mechanism, state, event.data, event.at);
    case 'heat-reading':
      return readingsTaken(mechanism, state, event.data);
    case 'heat-off':
      return heatOff(mechanism, state, event.data, countsFrom(event));
    case 'edge':
      return edgeCut(mechanism, state, event.data);
    case 'placeholder': {
      const bond = bondOf(mechanism, event.data.joint);
      if (!bond) return { problem: notInMap('joint', 'bond', event.data.joint) };
      const { joint, ...picks } = event.data;
      return opened(state, { placeholders: new Map(opening.placeholders).set(joint, picks) });
    }
    case 'solvent':
      return soaked(state, event.data, countsFrom(event));
    case 'aired':
      return aired(state, event.data, countsFrom(event));
  }
}

/** A vent of the plan, or one that the solvent of trouble asks for; whether it was long enough is judged before. */
function aired(state: JobState, { step, bench: told = ONLY_BENCH }: OpeningEventData['aired'], at: string): Outcome {
  const { solvent, airedAt } = state.opening;
  const others = new Map([...solvent].filter(([each]) => !isSameName(each, told)));
  const bench = knownBench(airedAt, told);
  return {
    state: withMark(openedAt(state, at, { solvent: others, airedAt: withKey(airedAt, bench, at) }).state, step),
  };
}

function opened(state: JobState, change: Partial<Opening>): { readonly state: JobState } {
  return { state: { ...state, paused: false, opening: { ...state.opening, ...change } } };
}

/** A change from a moment on. */
function openedAt(state: JobState, at: string, change: Partial<Opening>): { readonly state: JobState } {
  return opened(state, { ...change, latest_ms: Math.max(state.opening.latest_ms, Date.parse(at)) });
}

function bondOf(mechanism: Mechanism, id: string): BondJoint | null {
  const joint = jointById(mechanism.map, id);
  return joint?.type === 'bond' ? joint : null;
}

function isReleased(mechanism: Mechanism, state: JobState, id: string): boolean {
  return Boolean(state.device.released[mechanism.joint.get(id)!]);
}

function heatOn(mechanism: Mechanism, state: JobState, data: OpeningEventData['heat-on'], at: string): Outcome {
  const { opening } = state;
  const bond = bondOf(mechanism, data.joint);
  if (!bond) return { problem: notInMap('joint', 'bond', data.joint) };
  if (opening.heating) {
    return {
      problem: wrong(
        '',
        `${thingName(mechanism.map, opening.heating.joint)} is being heated.`,
        'Take the source off first.',
      ),
    };
  }
  if (isReleased(mechanism, state, bond.id))
    return { problem: wrong('joint', 'This bond is released already; nothing is to be heated.') };
  // a bond that was begun in another way of warming goes on in its zones
  const ways = [state.policy.warm, undefined];
  const isZone = (zone: Zone) => ways.some((warm) => zonesOf(mechanism.map, bond, warm).includes(zone));
  if (data.zone !== undefined && !isZone(data.zone)) {
    return { problem: wrong('zone', `This bond has no zone “${data.zone}”.`, 'Name one of its zones.') };
  }
  const soft = [...opening.placeholders].find(([, { material, count }]) => count > 0 && material === 'plastic');
  if (data.setting.kind === 'air' && soft) {
    const cure = isCellBehind(mechanism.map, state, bond)
      ? 'Take them out, and say so: a cell lies behind, which metal can cut.'
      : 'Change them for metal, and say so.';
    return { problem: wrong('setting.kind', 'Plastic picks are in the gap: hot air softens them.', cure) };
  }
  const before = lastWarmed(opening, bond.id, data.zone);
  const gap_s = before ? Math.max(0, (Date.parse(at) - Date.parse(before.offAt)) / 1000) * before.pace : 0;
  const past = pastOf(before, gap_s);
  const { bench = ONLY_BENCH } = data;
  return openedAt(state, at, {
    heating: { ...data, bench, startedAt: at, readings: [], past, simulatedReadings: false },
  });
}

function readingsTaken(
  mechanism: Mechanism,
  state: JobState,
  { joint, readings, simulated }: OpeningEventData['heat-reading'],
): Outcome {
  const { heating } = state.opening;
  if (heating?.joint !== joint)
    return { problem: wrong('joint', 'No source is on this bond.', 'Put it on before you read.') };
  let all = heating.readings;
  for (const reading of readings) {
    const { spot } = reading;
    if (!SPOTS.has(spot) && !mechanism.part.has(spot))
      return {
        problem: wrong('readings', `There is no part “${spot}” to read at.`, 'Name a part, or face, bond or far.'),
      };
    all = grown(all, reading);
  }
  const simulatedReadings = heating.simulatedReadings || simulated === true;
  return opened(state, { heating: { ...heating, readings: all, simulatedReadings } });
}

const SPOTS: ReadonlySet<string> = new Set(['face', 'bond', 'far']);

/** A bond that is warmed with another is warm as well. */
function heatOff(mechanism: Mechanism, state: JobState, data: OpeningEventData['heat-off'], at: string): Outcome {
  const { heating } = state.opening;
  if (heating?.joint !== data.joint) return { problem: wrong('joint', 'No source is on this bond.') };
  const bond = bondOf(mechanism, data.joint)!;
  const { zone } = heating;
  const warmed: Omit<Warmed, 'joint'> = {
    ...(zone === undefined ? {} : { zone }),
    setting: learned(heating.setting, data.setting),
    set: heating.setting,
    // it was on for as long as the clock says, whatever a client does
    seconds: Math.max(data.seconds, Math.round(onFor_s(heating, at))),
    ...reachedBy(data, heating),
    offAt: at,
    past: heating.past,
    pace: heating.pace ?? 1,
    ...(heating.simulated ? { simulated: true } : {}),
  };
  const warmedWith = mechanism.map.joints.flatMap((each) =>
    each.type === 'bond' && (each.id === bond.id || (bond.heatGroup !== undefined && each.heatGroup === bond.heatGroup))
      ? [each.id]
      : [],
  );
  const isOver = (each: Warmed) => warmedWith.includes(each.joint) && (zone === undefined || each.zone === zone);
  const after = openedAt(state, at, {
    heating: null,
    warmed: [
      ...state.opening.warmed.filter((each) => !isOver(each)),
      ...warmedWith.map((joint) => ({ joint, ...warmed })),
    ],
  });
  return isWarmedThrough(mechanism.map, after.state.opening, bond, state.policy.warm)
    ? { state: withMark(after.state, opId('heat', bond.id)) }
    : after;
}

/** What readings have taught of the source that was set: how it gives its heat. What it was, and how hot, they don't change for the milder. */
function learned(set: HeatSetting, taught: HeatSetting | undefined): HeatSetting {
  return taught?.kind === set.kind ? { ...taught, temp_C: Math.max(set.temp_C, taught.temp_C) } : set;
}

function onFor_s({ startedAt, pace = 1 }: Heating, at: string): number {
  return (Math.max(0, Date.parse(at) - Date.parse(startedAt)) / 1000) * pace;
}

/** The hottest that was read in the seam, or is said to have been. */
function reachedBy({ bond_C }: OpeningEventData['heat-off'], { readings }: Heating): Pick<Warmed, 'reached_C'> {
  const read = readings.flatMap(({ spot, temp_C }) => (spot === 'bond' ? [temp_C] : []));
  const all = bond_C === undefined ? read : [...read, bond_C];
  return all.length > 0 ? { reached_C: all.reduce((most, each) => Math.max(most, each)) } : {};
}

function edgeCut(mechanism: Mechanism, state: JobState, { joint, segment }: OpeningEventData['edge']): Outcome {
  const bond = bondOf(mechanism, joint);
  if (!bond) return { problem: notInMap('joint', 'bond', joint) };
  if (state.opening.heating?.joint === joint) {
    return { problem: wrong('', 'The heat source is still on.', 'Take it off before you cut.') };
  }
  const tabs = tabsOf(bond);
  const cut = tabs.length > 0 ? tabs : (bond.segments ?? []).filter((each) => each.depth !== undefined);
  if (!cut.some((each) => each.id === segment)) {
    return {
      problem: wrong(
        'segment',
        `“${segment}” is no edge of this bond that is cut, and no tab that is pulled.`,
        'Name one of them.',
      ),
    };
  }
  const before = state.opening.cut.get(joint) ?? new Set();
  if (before.has(segment))
    return {
      problem:
        tabs.length > 0 ? wrong('segment', 'This tab is out already.') : wrong('segment', 'This edge is cut already.'),
    };
  const all = new Set([...before, segment]);
  if (all.size === cut.length) return releasedBy(mechanism, state, joint);
  const problem = releaseProblem(mechanism, state, joint);
  return problem ? { problem } : opened(state, { cut: new Map(state.opening.cut).set(joint, all) });
}

function soaked(state: JobState, data: OpeningEventData['solvent'], at: string): Outcome {
  const { solvent } = state.opening;
  const { drops } = data;
  const bench = knownBench(solvent, data.bench ?? ONLY_BENCH);
  return openedAt(state, at, { solvent: withKey(solvent, bench, grown(solvent.get(bench) ?? [], { at, drops })) });
}
