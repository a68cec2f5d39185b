import type { HeatSetting, Past, Reading } from '../../physics/heat/index.ts';
import type { OpeningEventData, Placeholder } from '../events/index.ts';
import type { Drops } from './surroundings.ts';

/** What is warm, cut, wedged and wet while a device is opened. */
export interface Opening {
  readonly heating: Heating | null;
  /** bonds whose source is off again, the last time of each, in the order in which they were warmed; zones apart */
  readonly warmed: readonly Warmed[];
  /** edges that are cut, by joint */
  readonly cut: ReadonlyMap<string, ReadonlySet<string>>;
  /** what a bond's refusals to lift have taught about where it softens, °C */
  readonly softens: ReadonlyMap<string, number>;
  readonly placeholders: ReadonlyMap<string, { readonly material: Placeholder; readonly count: number }>;
  /** drops of solvent since the bench was last aired, by bench */
  readonly solvent: ReadonlyMap<string, readonly Drops[]>;
  /** when a bench was last aired, by an event of this job */
  readonly airedAt: ReadonlyMap<string, string>;
  /** the latest moment of heat or solvent that is kept here, ms since 1970 */
  readonly latest_ms: number;
}

export type Heating = OpeningEventData['heat-on'] & {
  readonly bench: string;
  readonly startedAt: string;
  readonly readings: readonly Reading[];
  /** what was done to this bond before */
  readonly past: Past;
  /** readings that came from an instrument that only stands in for one */
  readonly simulatedReadings: boolean;
};

export type Zone = string | number;

export interface Warmed {
  readonly joint: string;
  /** where only a zone of it was warmed */
  readonly zone?: Zone;
  /** as readings have taught it */
  readonly setting: HeatSetting;
  /** as it was set: what guards a person goes by whichever is hotter */
  readonly set: HeatSetting;
  readonly seconds: number;
  readonly past: Past;
  /** the later of told and received */
  readonly offAt: string;
  /** a stand-in's clock, how many times faster */
  readonly pace: number;
  /** the source only stood in for one */
  readonly simulated?: true;
  /** the hottest that it was read or said to be, °C */
  readonly reached_C?: number;
}

/** Drops of solvent that this job has put to anything since it was last aired, over all benches. */
export function dropsOf({ solvent }: Opening): number {
  return [...solvent.values()].flat().reduce((sum, each) => sum + each.drops, 0);
}

/** The last time that a bond was warmed, whole or in part; of a zone, by itself or with the whole. */
export function lastWarmed({ warmed }: Opening, joint: string, zone?: Zone): Warmed | undefined {
  const reaches = (each: Warmed) => zone === undefined || each.zone === undefined || each.zone === zone;
  return warmed.findLast((each) => each.joint === joint && reaches(each));
}

/** After so long a bond is as cold as the room (guess). */
const COLD_s = 2400;

/** What was done to a bond, for a warming that begins so many seconds after its last. */
export function pastOf(warmed: Warmed | undefined, gap_s: number): Past {
  if (!warmed || gap_s > COLD_s) return [];
  const { past, setting, seconds } = warmed;
  return [...past.slice(-MOST_PHASES), { setting, seconds }, { setting: null, seconds: gap_s }];
}

/** So many phases of a bond's past are kept: what lies farther back no longer changes what is computed. */
const MOST_PHASES = 6;

export const CLOSED: Opening = {
  heating: null,
  warmed: [],
  cut: new Map(),
  softens: new Map(),
  placeholders: new Map(),
  solvent: new Map(),
  airedAt: new Map(),
  latest_ms: 0,
};
