import { temperature, type TemperatureUnit } from '../../model/units/index.ts';
import { type BondJoint, type DeviceMap, jointById } from '../../model/device-map/index.ts';
import { cellHeatedBy } from '../../physics/heat/index.ts';
import { type Mechanism, OFF } from '../../planner/holds/index.ts';
import { asItLies } from './as-it-lies.ts';
import type { BenchEvent } from '../events/index.ts';
import { lastWarmed, pastOf } from './opening-state.ts';
import type { JobState } from './job-state.ts';

/**
 * That a source would bring a cell past its limit, as is foreseen of it; null where it would not, or no cell is there.
 * Begins a sentence.
 */
export function pastTheCell(
  mechanism: Mechanism,
  state: JobState,
  event: BenchEvent,
  unit: TemperatureUnit = 'C',
): string | null {
  if (event.type !== 'heat-on') return null;
  const bond = jointById(mechanism.map, event.data.joint);
  if (bond?.type !== 'bond' || !hasCellNear(mechanism.map, state, bond)) return null;
  const { setting, heat_s, zone } = event.data;
  const before = lastWarmed(state.opening, bond.id, zone);
  const gap_s = before ? (Math.max(0, Date.parse(event.at) - Date.parse(before.offAt)) / 1000) * before.pace : 0;
  const lying = asItLies(mechanism.map, state.device, bond);
  const past = cellHeatedBy(lying.map, lying.bond, { setting, heat_s, past: pastOf(before, gap_s) });
  if (!past) return null;
  return `${past.what} would come to ${temperature(past.peak_C, unit)}, and ${temperature(past.max_C, unit)} is its limit: that is for a lead to allow (less heat, or a shorter time, needs no lead)`;
}

/** Is a cell there that a bond could warm, as long as that holds? One that is out, or lies elsewhere, is not. */
export function hasCellNear(map: DeviceMap, { device }: JobState, bond: BondJoint): boolean {
  if (device.released[map.joints.indexOf(bond)]) return false;
  const group = device.group[map.parts.findIndex(({ id }) => id === bond.to)];
  return map.parts.some(
    ({ hazards }, index) =>
      hazards?.includes('lithium') && device.status[index] !== OFF && device.group[index] === group,
  );
}

/** Does a cell lie behind an edge of a bond, where a pick would meet it, as long as that is there? */
export function isCellBehind(map: DeviceMap, state: JobState, bond: BondJoint): boolean {
  if (!hasCellNear(map, state, bond)) return false;
  const near = new Set([...(bond.endangers ?? []), ...(bond.segments ?? []).map((each) => each.near)]);
  return map.parts.some(({ id, hazards }) => hazards?.includes('lithium') && near.has(id) && !bond.holds.includes(id));
}
