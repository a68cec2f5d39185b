import { runDown } from '../../model/battery/index.ts';
import { type BondJoint, type DeviceMap, type Part, partById } from '../../model/device-map/index.ts';
import type { Op } from '../../planner/drafts/index.ts';
import type { Policy } from '../../model/policy/index.ts';
import type { Target } from '../../planner/search/index.ts';
import type { Limits } from '../../model/limits/index.ts';

/** Operations, as far as they say what is cut and when the cell is out. */
type Cutting = Pick<Op, 'kind' | 'joint' | 'part'>;

/** What has to happen to the charge before the device is opened. */
export interface ChargeNeed {
  readonly way: 'run-down' | 'charge-up';
  /** 0 to 1 */
  readonly target: number;
  /** the last reading; null: nobody has read it yet */
  readonly charge: number | null;
  /** by the map's capacity and the load or charger that is set (a guess); null while the charge is not known */
  readonly seconds: number | null;
  readonly why: string;
}

/**
 * Run down before a bond near the cell is cut, or charged enough to try the result (common practice). Null where the
 * charge is right, or the device has no battery.
 */
export function chargeNeed(
  map: DeviceMap,
  ops: readonly Cutting[],
  school: Policy['batteryBefore'],
  limits: Limits,
  charge: number | null,
): ChargeNeed | null {
  if (!map.battery) return null;
  const near = cutsNearCell(map, ops);
  if (school === 'run-down' && near) {
    const target = limits.runDownTo;
    if (charge !== null && charge <= target) return null;
    const why = `${near.name} is cut free near the cell: less charge, less to burn if the pick slips (common practice: below ${percent(target)}).`;
    return {
      way: 'run-down',
      target,
      charge,
      seconds: charge === null ? null : secondsDown(map, charge, target, limits),
      why,
    };
  }
  const target = school === 'charged' ? Math.max(limits.testCharge, limits.resetFloor) : limits.resetFloor;
  const isKnownLow = charge !== null && charge < target;
  if (!isKnownLow && !(school === 'charged' && charge === null)) return null;
  const why =
    school === 'charged'
      ? `So that the result can be tested; a reset refuses under ${percent(limits.resetFloor)} (common practice).`
      : `A reset or set-up refuses to run under ${percent(limits.resetFloor)} (common practice).`;
  return {
    way: 'charge-up',
    target,
    charge,
    seconds: charge === null ? null : secondsUp(map, charge, target, limits),
    why,
  };
}

/** A cell that a new one goes in for is not charged first: nobody tests the result with it. */
export function chargeSchool(
  { battery }: DeviceMap,
  targets: readonly Target[],
  { batteryBefore }: Pick<Policy, 'batteryBefore'>,
): Policy['batteryBefore'] {
  const isRenewed = targets.some((each) => 'replace' in each && each.replace === battery?.part);
  return isRenewed ? 'run-down' : batteryBefore;
}

export function secondsDown(map: DeviceMap, charge: number, target: number, { load_W }: Limits): number {
  const { cells, wiring } = map.battery!;
  return Math.round(runDown({ cells, wiring, charge, target, load_W }).seconds);
}

export function secondsUp(map: DeviceMap, charge: number, target: number, { charger_W }: Limits): number {
  const { cells, wiring } = map.battery!;
  return Math.round(runDown({ cells, wiring, charge: target, target: charge, load_W: charger_W }).seconds);
}

/** The first part that is cut free over or beside the cell, while that is in. */
export function cutsNearCell(map: DeviceMap, ops: readonly Cutting[]): Part | null {
  const cell = partById(map, map.battery?.part);
  if (!cell) return null;
  for (const op of ops) {
    if (op.kind === 'lift' && op.part === cell.id) return null;
    const joint = map.joints.find((each) => op.kind === 'release' && each.id === op.joint);
    if (joint?.type !== 'bond' || !isCut(joint)) continue;
    const held = map.parts.filter((each) => joint.holds.includes(each.id));
    const near = joint.endangers?.includes(cell.id) || held.some((each) => each.id === cell.id || overlaps(each, cell));
    if (near) return held[0] ?? null;
  }
  return null;
}

function isCut(bond: BondJoint): boolean {
  return bond.style === 'perimeter' || bond.style === 'pad';
}

function overlaps({ box: a }: Part, { box: b }: Part): boolean {
  return a.x < b.x + b.w && b.x < a.x + a.w && a.y < b.y + b.h && b.y < a.y + a.h;
}

function percent(share: number): string {
  return `${Math.round(share * 100)} %`;
}
