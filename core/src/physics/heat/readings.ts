import { temperature, type TemperatureUnit } from '../../model/units/index.ts';
import { type Problem, wrong } from '../../model/refusal/index.ts';
import { type Reach } from '../../model/sources/index.ts';
import { type BondStack, type DeviceMap, partById } from '../../model/device-map/index.ts';
import { cellLimit_C } from './cells.ts';
import type { HeatSetting } from './setting.ts';

/** What a thermometer showed, and when after the source was put on. */
export interface Reading {
  readonly at_s: number;
  readonly temp_C: number;
  /** on the heated face, in the seam, on the far face (`face`, `bond`, `far`), or a part's id */
  readonly spot: string;
}

/** A thermometer may be off by so much before its reading is not believed (guess). */
const SLACK_C = 5;
/** Nothing in a device warms faster than this, under any source of a bench (guess). */
const FASTEST_C_s = 15;

/** Why a reading can't be right, with the cure; null where it can. */
export function readingProblem(
  reading: Reading,
  earlier: readonly Reading[],
  setting: HeatSetting,
  room_C: number,
  unit: TemperatureUnit,
): Problem | null {
  const { at_s, temp_C, spot } = reading;
  const figure = (value_C: number) => temperature(value_C, unit, 1);
  const last = earlier.findLast((each) => each.spot === spot);
  if (last && at_s <= last.at_s) {
    return wrong(
      'readings',
      `This reading is for ${at_s} s, but the last one was for ${last.at_s} s.`,
      'Readings go forward in time.',
    );
  }
  if (temp_C > setting.temp_C + SLACK_C) {
    return wrong(
      'readings',
      `${figure(temp_C)} is hotter than the source at ${figure(setting.temp_C)}.`,
      'Check the thermometer and the setting.',
    );
  }
  if (temp_C < room_C - 2 * SLACK_C) {
    return wrong(
      'readings',
      `${figure(temp_C)} is colder than the room at ${figure(room_C)}.`,
      'Check the thermometer.',
    );
  }
  if (last && Math.abs(temp_C - last.temp_C) > SLACK_C + FASTEST_C_s * (at_s - last.at_s)) {
    return wrong(
      'readings',
      `From ${figure(last.temp_C)} to ${figure(temp_C)} in ${Number((at_s - last.at_s).toFixed(1))} s is faster than anything warms.`,
      'Check that the thermometer touches.',
    );
  }
  return null;
}

/**
 * What a reading says that is too hot: a cell over its limit, or a place whose layer is watched. Null where nothing is.
 * A cell hotter than the source is believed: it may heat itself.
 */
export function overLimit(
  map: DeviceMap,
  { layers, bondLayer, watch }: BondStack,
  { spot, temp_C }: Reading,
): { readonly what: string; readonly max_C: number } | null {
  const layer = { face: 0, bond: bondLayer, far: layers.length - 1 }[spot];
  const part = partById(map, spot);
  const there = watch.filter(
    (each) => each.layer === layer || (layer === undefined && (each.what === part?.name || each.what === spot)),
  );
  const cell = part?.hazards?.includes('lithium') ? [{ what: part.name, max_C: cellLimit_C(map) }] : [];
  const [lowest] = [...cell, ...there].toSorted((a, b) => a.max_C - b.max_C);
  return lowest && temp_C > lowest.max_C ? { what: lowest.what, max_C: lowest.max_C } : null;
}

/** A transfer that readings have taught. */
export interface Fit {
  readonly transfer: Reach;
  /** what the readings still differ by, root mean square */
  readonly residual_C: number;
  readonly readings: number;
  /**
   * false where no transfer explains the readings: the thermometer is elsewhere or has come off, and nothing is
   * learned
   */
  readonly isSound: boolean;
}

/** A source with what readings have taught about it. */
export function fitted(setting: HeatSetting, { transfer, residual_C, readings }: Fit): HeatSetting {
  return { ...setting, transfer, origin: `measured, ${readings} readings, ${residual_C.toFixed(1)} °C left over` };
}
