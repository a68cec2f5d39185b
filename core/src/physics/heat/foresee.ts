import type { BondStack } from '../../model/device-map/index.ts';
import { figuresOfLayers, type Material, MATERIALS } from './materials.ts';
import type { HeatRequest } from './heat-request.ts';
import { BARE_W_m2K, FAR_W_m2K, type HeatSetting, ROOM_C, sourceOf } from './setting.ts';
import { heatThrough, type Phase } from './solve-heat.ts';

/** What is to be warmed, how, and for how long. */
export interface Warming {
  readonly stack: BondStack;
  readonly soften_C: number;
  readonly setting: HeatSetting;
  readonly heat_s: number;
  /** how far to look; half as long again where it is left out, at least five minutes on */
  readonly total_s?: number;
  readonly room_C?: number;
  /** what was done to it before, where it is warmed again */
  readonly past?: Past;
  readonly materials?: readonly Material[];
}

/** A source on it, or none, one after the other. */
export type Past = readonly { readonly setting: HeatSetting | null; readonly seconds: number }[];

/** A temperature over time with the reach that the transfer gives it. */
export interface Band {
  readonly id: string;
  readonly what: string;
  readonly low: readonly number[];
  readonly likely: readonly number[];
  readonly high: readonly number[];
  readonly max_C?: number;
}

export type Advice =
  /** ready by its slow end, within every limit by its fast end */
  | 'ready'
  /** ready as is likely, not by its slow end */
  | 'perhaps'
  /** a limit is reached, by the fast end, with the source on or after it: heat goes on inwards for a while */
  | 'limit'
  /** not ready while the source is on */
  | 'not-ready'
  /** no time is long enough: the source is not hot enough, or a pack has given what it has */
  | 'never';

export interface Foresight {
  readonly times_s: readonly number[];
  /** the bond first, then what is watched, then the heated face and the far one */
  readonly bands: readonly Band[];
  /** when the bond is soft enough: by the fast end, as is likely, and by the slow end; null where it is not */
  readonly ready: { readonly early: number | null; readonly likely: number | null; readonly late: number | null };
  /** the first limit that the fast end reaches, whenever that is */
  readonly limit: { readonly seconds: number; readonly what: string; readonly max_C: number } | null;
  /** how long a cut can go on once the source is gone, by the end that cools it first */
  readonly working_s: number | null;
  /** what the bond could come to with this source at most, by the fast end, however long it is on */
  readonly most_C: number;
  readonly advice: Advice;
  /** what makes the figures doubtful or the setting a bad one, in words */
  readonly warnings: readonly string[];
}

/** Softening is gradual: a cut that was begun goes on until the bond is so much colder (guess). */
export const CUTS_ON_C = 5;

const ENDS = ['low', 'likely', 'high'] as const;

/**
 * Foresees a warming with the reach of its guesses. The advice is safe for the whole of it: *ready* by the slow end, a
 * *limit* by the fast one.
 */
export function foresee(warming: Warming): Foresight {
  const { stack, soften_C, setting, heat_s } = warming;
  const probes = probesOf(stack);
  const limits = stack.watch.map(({ max_C }, index) => ({ probe: `watch-${index}`, max_C }));
  const runs = ENDS.map((end) => {
    const request = { ...requestOf(warming, setting.transfer[end]), probes, bond: { probe: 'bond', soften_C }, limits };
    return heatThrough(request, phasesOf(warming.past, end));
  });
  const [low, likely, high] = runs as [Run, Run, Run];
  const whats = ['Bond', ...stack.watch.map(({ what }) => what), 'Heated face', 'Far face'];
  const bands = probes.map(({ id }, index) => ({
    id,
    what: whats[index]!,
    low: low.probes[id]!,
    likely: likely.probes[id]!,
    high: high.probes[id]!,
    ...(id.startsWith('watch-') ? { max_C: stack.watch[index - 1]!.max_C } : {}),
  }));
  const isIn = (at: number | null) => (at !== null && at <= heat_s ? at : null);
  const ready = { early: isIn(high.ready_s), likely: isIn(likely.ready_s), late: isIn(low.ready_s) };
  const limit = firstLimit(high, stack);
  const most_C = mostOf(warming, high);
  const working = runs.map((run) => cutsOn_s(run, heat_s, soften_C - CUTS_ON_C)).filter((each) => each !== null);
  return {
    times_s: likely.times_s,
    bands,
    ready,
    limit,
    working_s: ready.late === null || working.length < runs.length ? null : Math.min(...working),
    most_C,
    advice: adviceFor(soften_C, most_C, ready, limit),
    warnings: likely.warnings,
  };
}

type Run = ReturnType<typeof heatThrough>;

/** From the end of heating until the bond is too stiff to go on; null where that is later than is looked at. */
function cutsOn_s({ times_s, probes }: Run, heat_s: number, stiff_C: number): number | null {
  const bond = probes['bond']!;
  const index = times_s.findIndex((time, n) => time > heat_s && bond[n]! < stiff_C);
  if (index < 0) return null;
  const [a, b] = [bond[index - 1]!, bond[index]!];
  const share = a > b ? Math.min(1, Math.max(0, (a - stiff_C) / (a - b))) : 0;
  return times_s[index - 1]! + share * (times_s[index]! - times_s[index - 1]!) - heat_s;
}

/** The past by one end of what was known of its sources. */
export function phasesOf(past: Past = [], end: (typeof ENDS)[number]): Phase[] {
  return past
    .filter(({ seconds }) => seconds > 0)
    .map(({ setting, seconds }) => ({
      source: setting ? sourceOf(setting, setting.transfer[end]) : { kind: 'none' },
      seconds,
    }));
}

/** The solver's request for one transfer; probes and limits are the caller's. */
export function requestOf(warming: Warming, transfer: number): Omit<HeatRequest, 'bond' | 'limits'> {
  const { stack, setting, heat_s, room_C = ROOM_C, materials = MATERIALS } = warming;
  return {
    layers: figuresOfLayers(stack.layers, materials),
    source: sourceOf(setting, transfer),
    after: { h_W_m2K: BARE_W_m2K, temp_C: room_C },
    far: { h_W_m2K: FAR_W_m2K, temp_C: room_C },
    initial_C: room_C,
    heat_s,
    total_s: warming.total_s ?? Math.max(heat_s * 1.5, heat_s + 300),
    probes: [],
  };
}

/** Where a thermometer can be held: on the heated face, in the seam, on the far face. */
export type Spot = 'face' | 'bond' | 'far';

export function probesOf({ layers, bondLayer, watch }: BondStack): HeatRequest['probes'] {
  return [
    { id: 'bond', layer: bondLayer, fraction: 0.5 },
    ...watch.map(({ layer, fraction }, index) => ({ id: `watch-${index}`, layer, fraction })),
    { id: 'face', layer: 0, fraction: 0 },
    { id: 'far', layer: layers.length - 1, fraction: 1 },
  ];
}

function firstLimit(run: Run, { watch }: BondStack): Foresight['limit'] {
  if (run.limit_s === null) return null;
  const reached = watch.map(({ max_C }, index) => run.probes[`watch-${index}`]!.findIndex((temp) => temp >= max_C));
  const first = reached.reduce((best, at, index) => (at >= 0 && (best < 0 || at < reached[best]!) ? index : best), -1);
  const { what, max_C } = watch[first]!;
  return { seconds: run.limit_s, what, max_C };
}

/**
 * A source at a steady temperature brings the bond to what the resistances on both its sides make of it (steady composite
 * wall, Incropera & DeWitt, ch. 3); a pack to where it stands when it has given what it has.
 */
function mostOf(warming: Warming, high: Run): number {
  const { stack, setting, room_C = ROOM_C } = warming;
  const bond = high.probes['bond']!;
  const peak_C = Math.max(...bond);
  if (setting.kind === 'pack') {
    const { heat_s } = warming;
    const end = high.times_s.findLastIndex((time) => time <= heat_s);
    return bond[end]! < Math.max(...bond.slice(0, end + 1)) - 0.05 ? peak_C : Math.max(peak_C, setting.temp_C);
  }
  const { materials = MATERIALS } = warming;
  const resistances = figuresOfLayers(stack.layers, materials).map(({ k, thickness_mm }) => thickness_mm / 1000 / k);
  const upTo = (count: number) => resistances.slice(0, count).reduce((sum, each) => sum + each, 0);
  const front = 1 / setting.transfer.high;
  const toBond = front + upTo(stack.bondLayer) + resistances[stack.bondLayer]! / 2;
  const whole = front + upTo(resistances.length) + 1 / FAR_W_m2K;
  return Math.max(peak_C, setting.temp_C - (setting.temp_C - room_C) * (toBond / whole));
}

function adviceFor(
  soften_C: number,
  most_C: number,
  { likely, late }: Foresight['ready'],
  limit: Foresight['limit'],
): Advice {
  if (most_C <= soften_C) return 'never';
  if (limit !== null) return 'limit';
  if (late !== null) return 'ready';
  return likely !== null ? 'perhaps' : 'not-ready';
}
