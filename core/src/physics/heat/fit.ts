import { levenbergMarquardt } from 'ml-levenberg-marquardt';
import { phasesOf, probesOf, requestOf, type Spot, type Warming } from './foresee.ts';
import type { Fit, Reading } from './readings.ts';
import { valueAt } from './series.ts';
import { heatThrough } from './solve-heat.ts';

const IN_THE_STACK: ReadonlySet<string> = new Set<Spot>(['face', 'bond', 'far']);

/** Fewer say nothing. */
const FEWEST = 3;
/** A thermometer pressed on by hand (guess); the reach of a fit is not narrower than this makes it. */
const THERMOMETER_C = 0.7;
/** A fit that leaves more than this over is none (guess). */
const UNSOUND_C = 2;
/** No fit is trusted to better than this share: the stack itself is known no better (guess). */
const CLOSEST = 0.06;
/** Transfers that any source of a bench could have, W/m²K. */
const LEAST = 5;
const MOST = 5000;

/**
 * The transfer that explains readings best: least squares (Levenberg and Marquardt) in its logarithm, with the reach of
 * two standard deviations. Null while there are too few.
 */
export function fitTransfer(warming: Warming, readings: readonly Reading[]): Fit | null {
  // a thermometer on some part of the device says nothing of the stack
  const used = readings.filter(({ at_s, spot }) => at_s > 0 && at_s <= warming.heat_s && IN_THE_STACK.has(spot));
  if (used.length < FEWEST) return null;
  const temps = modelOf(warming, used);
  const start = Math.log(warming.setting.transfer.likely);
  const { parameterValues } = levenbergMarquardt(
    { x: used.map((_, index) => index), y: used.map(({ temp_C }) => temp_C) },
    ([log]) => {
      const model = temps(Math.exp(log!));
      return (index) => model[index]!;
    },
    {
      initialValues: [start],
      minValues: [Math.log(LEAST)],
      maxValues: [Math.log(MOST)],
      gradientDifference: 0.02,
      maxIterations: 12,
      errorTolerance: used.length * 1e-4,
      damping: 0.1,
    },
  );
  const log = parameterValues[0]!;
  const best = temps(Math.exp(log));
  const residual_C = Math.sqrt(
    used.reduce((sum, { temp_C }, index) => sum + (temp_C - best[index]!) ** 2, 0) / used.length,
  );
  const spread = 2 * spreadOf(temps, log, best, Math.max(residual_C, THERMOMETER_C));
  const reach = Math.max(Math.log(1 + CLOSEST), spread);
  const likely = Math.exp(log);
  return {
    transfer: {
      low: Math.max(LEAST, likely / Math.exp(reach)),
      likely,
      high: Math.min(MOST, likely * Math.exp(reach)),
    },
    residual_C,
    readings: used.length,
    isSound: residual_C <= UNSOUND_C,
  };
}

/** Standard deviation of the logarithm, from how much it moves the temperatures. */
function spreadOf(temps: Model, log: number, best: readonly number[], sd_C: number): number {
  const step = 0.05;
  const moved = temps(Math.exp(log + step));
  const squares = best.reduce((sum, temp, index) => sum + ((moved[index]! - temp) / step) ** 2, 0);
  return squares > 0 ? sd_C / Math.sqrt(squares) : Infinity;
}

type Model = (transfer: number) => readonly number[];

/** What each reading would be with a transfer. */
function modelOf(warming: Warming, readings: readonly Reading[]): Model {
  const probes = probesOf(warming.stack);
  const total_s = Math.max(...readings.map(({ at_s }) => at_s));
  return (transfer) => {
    const request = { ...requestOf(warming, transfer), heat_s: total_s, total_s, probes };
    const { times_s, probes: series } = heatThrough(request, phasesOf(warming.past, 'likely'));
    return readings.map(({ at_s, spot }) => valueAt(times_s, series[spot]!, at_s));
  };
}
