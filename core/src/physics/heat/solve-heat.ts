import { Balance } from './balance.ts';
import { Integration } from './integrate.ts';
import type { HeatRequest, HeatSource } from './heat-request.ts';
import { meetingOf, Slab } from './slab.ts';
import { probeWeights, type Stack, stackOf } from './stack.ts';

/** docs/http.md, compute/heat. */
export interface HeatResult {
  readonly times_s: readonly number[];
  readonly probes: Readonly<Record<string, readonly number[]>>;
  /** share of the heat that was exchanged for which the balance does not account; 0 where next to none was */
  readonly energyError: number;
  /** when the bond was first soft; null where it never was */
  readonly ready_s: number | null;
  /** when the first limit was reached */
  readonly limit_s: number | null;
  /** from the end of heating until the bond is stiff again; null where it never was soft, or still is at the end */
  readonly workingTime_s: number | null;
  readonly warnings: readonly string[];
}

/** A source hotter than this ruins a device whatever its limits say (guess). */
const DESTRUCTIVE_C = 150;
/** Nothing conducts better than a few thousand W/m·K. */
const BELIEVABLE_K = 5000;

/** Moments shown: evenly over the whole time, and closer together after the source comes and goes. */
const EVEN = 200;
const CLOSE = 40;

/** What was done to it before: a source on it, or none, for so long. */
export interface Phase {
  readonly source: HeatSource;
  readonly seconds: number;
}

/**
 * Transient conduction through a stack in one dimension, from the heated face. Follows the exact solution within 0.2 °C.
 * The request has passed `heatRequest`.
 * @param past phases before its time begins, in order, each with the far face and the bare face of the request
 */
export function heatThrough(request: HeatRequest, past: readonly Phase[] = []): HeatResult {
  const { source, after, far, initial_C, total_s, probes } = request;
  const until_s = Math.min(request.heat_s, total_s);
  const heat_s = source.kind === 'none' ? 0 : until_s;
  const stack = stackOf(request.layers);
  const readings = probes.map((probe) => probeWeights(stack, probe));
  const times_s = momentsOf(heat_s, total_s);
  const values = probes.map((): number[] => []);

  const cells = stack.capacity.length;
  const heating = meetingOf(source, after);
  const lead = heat_s > 0 && heating.kind === 'pack' ? 1 : 0;
  const start = new Float64Array(cells + lead);
  start.set(
    past.reduce<Float64Array>(
      (temps, phase) => afterPhase(stack, phase, request, temps),
      new Float64Array(cells).fill(initial_C),
    ),
    lead,
  );
  if (lead && source.kind === 'pack') start[0] = source.temp_C;
  let slab = new Slab(stack, heat_s > 0 ? heating : meetingOf({ kind: 'none' }, after), far);
  let run = new Integration(slab, start, total_s * 1e-9);
  const balance = new Balance();
  let before = start.slice();
  const note = () => readings.forEach((reading, index) => values[index]!.push(slab.read(run.temps, reading)));

  note();
  for (let moment = 1; moment < times_s.length; moment++) {
    run.advance(times_s[moment]! - times_s[moment - 1]!);
    note();
    if (heat_s > 0 && times_s[moment] === heat_s && heat_s < total_s) {
      balance.add(slab, before, run.temps, run.passed, heat_s);
      const temps = run.temps.slice(lead);
      slab = new Slab(stack, meetingOf({ kind: 'none' }, after), far);
      before = temps.slice();
      run = new Integration(slab, temps, total_s * 1e-9);
    }
  }
  balance.add(slab, before, run.temps, run.passed, heat_s < total_s ? total_s - heat_s : total_s);

  const series = new Map(probes.map(({ id }, index) => [id, values[index]!]));
  const bond = request.bond && series.get(request.bond.probe);
  const soften_C = request.bond?.soften_C ?? 0;
  const ready_s = bond ? firstAt(times_s, bond, soften_C) : null;
  const reached = (request.limits ?? [])
    .map(({ probe, max_C }) => firstAt(times_s, series.get(probe)!, max_C))
    .filter((each) => each !== null);
  return {
    times_s,
    probes: Object.fromEntries(series),
    energyError: balance.error,
    ready_s,
    limit_s: reached.length > 0 ? Math.min(...reached) : null,
    workingTime_s: bond && ready_s !== null ? workingTime(times_s, bond, soften_C, until_s, ready_s) : null,
    warnings: warningsOf(request),
  };
}

function afterPhase(
  stack: Stack,
  { source, seconds }: Phase,
  { after, far }: HeatRequest,
  temps: Float64Array,
): Float64Array {
  const meeting = meetingOf(source, after);
  const lead = meeting.kind === 'pack' ? 1 : 0;
  const start = new Float64Array(temps.length + lead);
  start.set(temps, lead);
  if (lead && source.kind === 'pack') start[0] = source.temp_C;
  const run = new Integration(new Slab(stack, meeting, far), start, seconds * 1e-9);
  run.advance(seconds);
  return run.temps.slice(lead);
}

function momentsOf(heat_s: number, total_s: number): number[] {
  const moments = new Set([0, heat_s, total_s]);
  for (let n = 1; n < EVEN; n++) moments.add((n * total_s) / EVEN);
  for (const from of [0, heat_s]) {
    for (let n = 0; n < CLOSE; n++) {
      const at = from + (total_s / EVEN) * 10 ** (-4 + (5 * n) / CLOSE);
      if (at < total_s && (from === heat_s || at < heat_s || heat_s === 0)) moments.add(at);
    }
  }
  return [...moments].toSorted((a, b) => a - b);
}

/** When a temperature is first reached, on straight lines between moments. */
function firstAt(times: readonly number[], values: readonly number[], wanted: number): number | null {
  const index = values.findIndex((each) => each >= wanted);
  if (index <= 0) return index < 0 ? null : times[0]!;
  return crossing(times, values, index, wanted);
}

function crossing(times: readonly number[], values: readonly number[], index: number, wanted: number): number {
  const [a, b] = [values[index - 1]!, values[index]!];
  return times[index - 1]! + ((wanted - a) / (b - a)) * (times[index]! - times[index - 1]!);
}

function workingTime(
  times: readonly number[],
  values: readonly number[],
  soften_C: number,
  heat_s: number,
  ready_s: number,
): number | null {
  const from = Math.max(heat_s, ready_s);
  const index = times.findIndex((time, n) => time > from && values[n]! < soften_C);
  if (index < 0) return null;
  if (values[index - 1]! < soften_C) return 0;
  return Math.max(0, crossing(times, values, index, soften_C) - heat_s);
}

function warningsOf({ source, layers }: HeatRequest): string[] {
  const found: string[] = [];
  if (source.kind !== 'none' && source.temp_C > DESTRUCTIVE_C) {
    found.push('A source this hot destroys displays, cells and adhesive. This is computed, not advised.');
  }
  layers.forEach((layer, index) => {
    if ('k' in layer && layer.k > BELIEVABLE_K) {
      found.push(`layers[${index}]: no material conducts ${layer.k} W/m·K. Check the unit.`);
    }
  });
  return found;
}
