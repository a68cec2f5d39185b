import { type Reach } from '../../model/sources/index.ts';
import type { BondJoint, DeviceMap } from '../../model/device-map/index.ts';
import {
  type CutTimes,
  type DeviceWarming,
  type Drag,
  dragsBelow,
  type Fit,
  type Foresight,
  heatClock,
  likelyBelow_s,
  type HeatClock,
  type HeatSetting,
  type Material,
  reachAt,
  stackOfBond,
  untilBelow_s,
  type Warming,
} from '../../physics/heat/index.ts';
import { asItLies, type Heating, type JobState, type Warmed } from '../../job/state/index.ts';
import { softensAt } from '../../job/rules/index.ts';

/** Nobody warms for longer (guess): a foresight to here has all that a count-down asks for. */
const LONG_S = 1500;
/** How far a working time is looked at. */
export const COOLING_S = 600;
/** The same for the whole device, which takes longer to compute. */
const FIELD_S = 300;
/** A limit that is nearer than this is said before all else (guess). */
export const LIMIT_NEAR_S = 60;

/** How warm a bond is, as foreseen from what was done and read. */
export interface WarmBond {
  /** the source is on: how long it has been, and what is foreseen */
  readonly on: {
    readonly elapsed_s: number;
    readonly clock: HeatClock | null;
    readonly foresight: Foresight | null;
    readonly fit: Fit | null;
    readonly setting: HeatSetting;
    /** how long it stays soft if the source is taken off now */
    readonly workingNow_s: number | null;
  } | null;
  /** the source is gone: since when, and how long the cut may go on from then; null where it never was soft for certain */
  readonly off: {
    readonly since_s: number;
    /** it came off before the bond was soft by the slow end */
    readonly isEarly: boolean;
    readonly working_s: number | null;
    /** how long an open seam is cut on before it drags; null where that is later than is looked at */
    readonly drags_s: number | null;
    /** both by edge, once the whole device has been computed */
    readonly byEdge: CutTimes | null;
    /** until it is cool enough for solvent; null where that is later than is looked at */
    readonly coolIn_s: number | null;
  } | null;
  readonly bond_C: Reach | null;
  readonly soften_C: number;
  /** where an open seam drags, as the map or the workshop has it */
  readonly drag: Drag;
  readonly problem: string | null;
}

/** A bond as it is to be foreseen: its layers, where it softens, and the figures of its materials. */
export type BondBasis = Pick<Warming, 'stack' | 'soften_C' | 'materials'>;

export function bondBasis(
  map: DeviceMap,
  bond: BondJoint,
  state: JobState,
  materials: readonly Material[] | undefined,
): BondBasis {
  const lying = asItLies(map, state.device, bond);
  return {
    stack: stackOfBond(lying.map, lying.bond),
    soften_C: softensAt(state, bond),
    ...(materials ? { materials } : {}),
  };
}

/** Seconds since the source was put on, by its own clock: a stand-in's may run faster. */
export function elapsed_s({ startedAt, pace = 1 }: Pick<Heating, 'startedAt' | 'pace'>, now: number): number {
  return (Math.max(0, now - Date.parse(startedAt)) / 1000) * pace;
}

/** With the source left on. @param setting what readings have taught of it, else as it was set up */
export function whileOn(basis: BondBasis, { past }: Heating, setting: HeatSetting): Warming {
  return { ...basis, setting, past, heat_s: LONG_S, total_s: LONG_S };
}

/** With the source taken off now; asked in steps of ten seconds, which is as fine as it is shown. */
export function ifOffNow(basis: BondBasis, { past }: Heating, setting: HeatSetting, on_s: number): Warming {
  const heat_s = Math.max(20, Math.ceil(on_s / 10) * 10);
  return { ...basis, setting, past, heat_s, total_s: heat_s + COOLING_S };
}

/** After the source came off. */
export function afterwards(basis: BondBasis, { setting, past, seconds }: Warmed): Warming {
  return { ...basis, setting, past, heat_s: seconds, total_s: seconds + COOLING_S };
}

/**
 * The whole device after the source came off, by the slow end of what is known of every source: an edge grows stiff no
 * sooner than this says.
 */
export function deviceAfterwards(
  map: DeviceMap,
  bond: BondJoint,
  { stack, materials }: BondBasis,
  { setting, seconds, past, zone }: Warmed,
): DeviceWarming {
  return {
    map,
    bond,
    stack,
    setting: slowest(setting),
    touch: 'all',
    heat_s: seconds,
    total_s: seconds + FIELD_S,
    past: past.map((phase) => ({ ...phase, setting: phase.setting && slowest(phase.setting) })),
    ...(zone === undefined ? {} : { zone }),
    ...(materials ? { materials } : {}),
  };
}

function slowest(setting: HeatSetting): HeatSetting {
  return { ...setting, transfer: { ...setting.transfer, likely: setting.transfer.low } };
}

interface Foreseen {
  readonly foresight: Foresight | null;
  readonly problem: string | null;
}

/** Where a bond gives way to a pick. */
export type Yields = Pick<WarmBond, 'soften_C' | 'drag'>;

export function yieldsOf(state: JobState, bond: BondJoint, told: readonly number[]): Yields {
  const soften_C = softensAt(state, bond);
  return { soften_C, drag: dragsBelow(bond, soften_C, told) };
}

/** A bond with its source on. @param offNow foresight of the source taken off now */
export function heatingBond(
  heating: Heating,
  yields: Yields,
  setting: HeatSetting,
  fit: Fit | null,
  { foresight, problem }: Foreseen,
  offNow: Foresight | null,
  now: number,
): WarmBond {
  const on_s = elapsed_s(heating, now);
  const clock = foresight && heatClock(foresight, on_s);
  return {
    on: { elapsed_s: on_s, clock, foresight, fit, setting, workingNow_s: offNow?.working_s ?? null },
    off: null,
    bond_C: clock?.bond_C ?? null,
    ...yields,
    problem,
  };
}

/** A bond whose source is off, or that nothing has warmed. */
export function coolingBond(
  warmed: Warmed | null,
  yields: Yields,
  { foresight, problem }: Foreseen,
  byEdge: CutTimes | null,
  solventBelow_C: number,
  now: number,
): WarmBond {
  const cold: WarmBond = { on: null, off: null, bond_C: null, ...yields, problem };
  if (!warmed || !foresight) return cold;
  const since_s = (Math.max(0, now - Date.parse(warmed.offAt)) / 1000) * warmed.pace;
  const at_s = warmed.seconds + since_s;
  const isOver = at_s >= foresight.times_s.at(-1)!;
  const coolIn_s = isOver ? 0 : untilBelow_s(foresight, solventBelow_C, at_s);
  const isEarly = foresight.ready.late === null;
  const drags_s = likelyBelow_s(foresight, yields.drag.likely, warmed.seconds);
  const off = { since_s, isEarly, working_s: foresight.working_s, drags_s, byEdge, coolIn_s };
  return { ...cold, off, bond_C: isOver ? null : reachAt(foresight, 'bond', at_s) };
}

/** Is the bond soft by the slow end? Where it never is for certain, what is likely has to do. */
export function isSoft({ on }: WarmBond): boolean {
  const clock = on?.clock;
  return clock ? (clock.toSoft_s ?? clock.toLikely_s) === 0 : false;
}

/** What has come about with the source on: a limit is near, which is said before all else, or the bond is soft. */
export function alarmOf(warm: WarmBond): 'limit' | 'soft' | null {
  const limit = warm.on?.clock?.toLimit;
  if (limit && limit.seconds < LIMIT_NEAR_S) return 'limit';
  return isSoft(warm) ? 'soft' : null;
}
