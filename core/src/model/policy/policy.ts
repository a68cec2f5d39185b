import Joi from 'joi';
import { type DeviceMap, hasLiftOutCell } from '../device-map/index.ts';
import { SOURCE_KINDS, type SourceKind } from '../sources/index.ts';

/** Where practitioners disagree, both schools are a setting, with its cost and risk shown on the device. */
export interface Policy {
  readonly display: 'taken-off' | 'on-flexes' | 'auto';
  readonly order: 'part-by-part' | 'fewest-changes';
  /** a seal that closes the device: laid on the bare frame with its liner on, or once it has passed its test */
  readonly sealLaid: 'bare-frame' | 'after-test';
  readonly batteryWhilePrying: 'in' | 'out';
  readonly batteryBefore: 'run-down' | 'charged';
  readonly firstGap: 'one-cup' | 'two-cup' | 'edgeless-blade' | 'thin-film' | 'bench-cutter' | 'by-hand';
  /** null: the source of the map's recipe, else the plate */
  readonly heat: SourceKind | null;
  /** how much of a bond is warmed at once */
  readonly warm: 'as-mapped' | 'all-round' | 'halves' | 'start-edge';
  readonly screws: 'map-mat' | 'containers-per-stage' | 'containers-apart';
  readonly tools: 'plastic' | 'fine-metal';
  readonly closing: 'precut' | 'tape' | 'liquid' | null;
  readonly tightening: 'torque' | 'snug';
  readonly test: 'before-and-after' | 'after';
  readonly batteryBond: 'tabs-then-solvent' | 'solvent-and-heat';
  readonly newBattery: 'whole-pack' | 'cell-transplant';
}

export const DEFAULT_POLICY: Policy = {
  display: 'auto',
  order: 'part-by-part',
  sealLaid: 'bare-frame',
  batteryWhilePrying: 'in',
  batteryBefore: 'run-down',
  firstGap: 'one-cup',
  heat: null,
  warm: 'as-mapped',
  screws: 'map-mat',
  tools: 'plastic',
  closing: null,
  tightening: 'torque',
  test: 'before-and-after',
  batteryBond: 'tabs-then-solvent',
  newBattery: 'whole-pack',
};

/** Every option of every question, for checking what comes in and for drawing the switches. */
export const POLICY_OPTIONS = {
  display: ['auto', 'taken-off', 'on-flexes'],
  order: ['part-by-part', 'fewest-changes'],
  sealLaid: ['bare-frame', 'after-test'],
  batteryWhilePrying: ['in', 'out'],
  batteryBefore: ['run-down', 'charged'],
  firstGap: ['one-cup', 'two-cup', 'edgeless-blade', 'thin-film', 'bench-cutter', 'by-hand'],
  heat: SOURCE_KINDS,
  warm: ['as-mapped', 'all-round', 'halves', 'start-edge'],
  screws: ['map-mat', 'containers-per-stage', 'containers-apart'],
  tools: ['plastic', 'fine-metal'],
  closing: ['precut', 'tape', 'liquid'],
  tightening: ['torque', 'snug'],
  test: ['before-and-after', 'after'],
  batteryBond: ['tabs-then-solvent', 'solvent-and-heat'],
  newBattery: ['whole-pack', 'cell-transplant'],
} as const satisfies { [Key in keyof Policy]: readonly NonNullable<Policy[Key]>[] };

/** What is usual on a device: one with a lift-out cell arrives charged, so that its result can be tried. */
export function usualPolicy(map: DeviceMap): Policy {
  return hasLiftOutCell(map) ? { ...DEFAULT_POLICY, batteryBefore: 'charged' } : DEFAULT_POLICY;
}

/** A policy filled up with what is usual on the device, and the questions of which the answer is not known. */
export function settled(map: DeviceMap, given: Partial<Policy> = {}): { policy: Policy; unknown: string[] } {
  const options: Readonly<Record<string, readonly string[] | undefined>> = POLICY_OPTIONS;
  const entries = Object.entries(given).filter(([, value]) => value !== undefined);
  const isKnown = ([key, value]: [string, unknown]) =>
    Object.hasOwn(options, key) && (value === null || options[key]!.includes(value as string));
  return {
    policy: { ...usualPolicy(map), ...(Object.fromEntries(entries.filter(isKnown)) as Partial<Policy>) },
    unknown: entries.filter((entry) => !isKnown(entry)).map(([key]) => key),
  };
}

const option = (key: keyof Policy) => Joi.string().valid(...POLICY_OPTIONS[key]);

/**
 * The policy of a plan. What changes the set of operations must be one of its options; a school that this version does
 * not know is let through, and the plan warns that it goes by the default.
 */
export const policySchema = Joi.object({
  display: option('display'),
  order: option('order'),
  sealLaid: option('sealLaid'),
  warm: option('warm'),
  batteryWhilePrying: option('batteryWhilePrying'),
}).pattern(Joi.string().max(100), Joi.string().max(100).allow(null));
