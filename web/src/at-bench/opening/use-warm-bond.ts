import { type JobState, lastWarmed, softensAt, type Warmed, type Zone } from '@nibrel/core/job';
import type { BondJoint, DeviceMap } from '@nibrel/core/device-map';
import {
  type DeviceWarming,
  type Fit,
  fitted,
  type Foresight,
  heatClock,
  type HeatClock,
  type HeatSetting,
  type Reach,
  type Past,
  reachAt,
  stackOfBond,
  untilBelow_s,
  type Warming,
} from '@nibrel/core/heat';
import type { ShopNow } from '../../app/client.ts';
import { useField, useFit, useForesight } from '../../heat/use-heat.ts';
import { elapsedOf } from './elapsed.ts';

/** Nobody warms for longer: a foresight to here has all that a count-down asks for. */
const LONG_S = 1500;
/** How far a working time is looked at. */
const COOLING_S = 600;
/** The same for the whole device, which takes longer to compute. */
const FIELD_S = 300;

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
    /** the same by edge, once the whole device has been computed */
    readonly softFor_s: Readonly<Record<string, number>> | null;
    /** until it is cool enough for solvent; null where that is later than is looked at */
    readonly coolIn_s: number | null;
  } | null;
  readonly bond_C: Reach | null;
  readonly soften_C: number;
  readonly problem: string | null;
}

/** How warm a bond is now, or a zone of it, as foreseen from what was done and read. */
export function useWarmBond(
  map: DeviceMap,
  bond: BondJoint | null,
  zone: Zone | undefined,
  state: JobState,
  shop: ShopNow | undefined,
  now: number,
): WarmBond | null {
  const heating = bond && state.opening.heating?.joint === bond.id ? state.opening.heating : null;
  const warmed = bond ? (lastWarmed(state.opening, bond.id, zone) ?? null) : null;
  const soften_C = bond ? softensAt(state, bond) : 0;
  const base = bond && shop ? { stack: stackOfBond(map, bond), soften_C, materials: shop.materials } : null;

  const guess: Warming | null = heating && base ? { ...base, ...openEnded(heating.setting, heating.past) } : null;
  const fit = useFit(guess, heating?.readings ?? []);
  const setting = heating ? (fit?.isSound ? fitted(heating.setting, fit) : heating.setting) : null;
  const long = useForesight(guess && setting ? { ...guess, setting } : null);
  const elapsed_s = heating ? elapsedOf(heating, now) : 0;
  const offNow = useForesight(
    base && heating && setting
      ? { ...base, setting, past: heating.past, ...untilOff(Math.max(20, Math.ceil(elapsed_s / 10) * 10)) }
      : null,
  );
  const after = useForesight(
    base && warmed ? { ...base, setting: warmed.setting, past: warmed.past, ...untilOff(warmed.seconds) } : null,
  );
  const isCut = bond?.segments?.some((each) => each.depth !== undefined) ?? false;
  const device = bond && isCut && base && warmed && !heating ? wholeDevice(map, bond, base, warmed) : null;
  const { field } = useField(device, soften_C);
  if (!bond) return null;
  if (heating) {
    const foresight = long.foresight;
    const clock = foresight && heatClock(foresight, elapsed_s);
    return {
      on: { elapsed_s, clock, foresight, fit, setting: setting!, workingNow_s: offNow.foresight?.working_s ?? null },
      off: null,
      bond_C: clock?.bond_C ?? null,
      soften_C,
      problem: long.problem,
    };
  }
  return {
    on: null,
    ...cooling(warmed, after.foresight, field?.softFor_s ?? null, state.limits.solventBelow_C, now),
    soften_C,
    problem: after.problem,
  };
}

function openEnded(setting: HeatSetting, past: Past) {
  return { setting, past, heat_s: LONG_S, total_s: LONG_S };
}

function untilOff(heat_s: number) {
  return { heat_s, total_s: heat_s + COOLING_S };
}

/** The whole device by the slow end of what is known: an edge grows stiff no sooner than this says. */
function wholeDevice(
  map: DeviceMap,
  bond: BondJoint,
  { stack, materials }: Pick<Warming, 'stack' | 'materials'>,
  { setting, seconds, past, zone }: Warmed,
): DeviceWarming {
  const slow = { ...setting, transfer: { ...setting.transfer, likely: setting.transfer.low } };
  const own = materials ? { materials } : {};
  return {
    map,
    bond,
    stack,
    setting: slow,
    touch: 'all',
    heat_s: seconds,
    total_s: seconds + FIELD_S,
    past,
    ...(zone === undefined ? {} : { zone }),
    ...own,
  };
}

function cooling(
  warmed: Warmed | null,
  foresight: Foresight | null,
  softFor_s: Readonly<Record<string, number>> | null,
  solventBelow_C: number,
  now: number,
): Pick<WarmBond, 'off' | 'bond_C'> {
  if (!warmed || !foresight) return { off: null, bond_C: null };
  const since_s = (Math.max(0, now - Date.parse(warmed.offAt)) / 1000) * warmed.pace;
  const at_s = warmed.seconds + since_s;
  const isOver = at_s >= foresight.times_s.at(-1)!;
  const coolIn_s = isOver ? 0 : untilBelow_s(foresight, solventBelow_C, at_s);
  const isEarly = foresight.ready.late === null;
  const off = { since_s, isEarly, working_s: foresight.working_s, softFor_s, coolIn_s };
  if (isOver) return { off, bond_C: null };
  return { off, bond_C: reachAt(foresight, 'bond', at_s) };
}
