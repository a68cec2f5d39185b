import { temperature, type TemperatureUnit } from '../../model/units/index.ts';
import { type BondJoint, type DeviceMap, jointById, type Part, partById } from '../../model/device-map/index.ts';
import { overLimit, stackOfBond } from '../../physics/heat/index.ts';
import type { Mechanism } from '../../planner/holds/index.ts';
import type { BenchEvent, StopReason } from '../events/index.ts';
import { grown, type JobState, type Stop } from '../state/index.ts';

export function withStop(state: JobState, stop: Stop): JobState {
  const stops = grown(state.stops, stop);
  return { ...state, stops, stopped: stops[0]! };
}

/** The stops of another state of the same job, which stay whatever was taken back. */
export function withStopsOf(state: JobState, { stops, stopped, cleared }: JobState): JobState {
  return { ...state, stops, stopped, cleared };
}

/** The stop that is named; where none is, all: before several could hold there was one. */
export function withCleared(state: JobState, { at, by, data }: BenchEvent & { type: 'clear' }): JobState {
  const isMeant = ({ id }: Stop) => data.stop === undefined || data.stop === id;
  const stops = state.stops.filter((each) => !isMeant(each));
  const cleared = state.stops
    .filter(isMeant)
    .reduce((all, each) => grown(all, { ...each, clearedBy: by, clearedAt: at, why: data.text }), state.cleared);
  return { ...state, stops, stopped: stops[0] ?? null, cleared };
}

/** The stop that an event raises beside what else it says; null where it raises none. */
export function stopOf(mechanism: Mechanism, state: JobState, event: BenchEvent): Stop | null {
  const found = reasonToStop(mechanism, state, event);
  return found && { ...found, id: event.id, at: event.at, by: event.by };
}

type Reason = Pick<Stop, 'text' | 'read'> & { readonly reason: StopReason };

/** What raised a stop. @param unit what the bench reads temperatures in */
export function stopText({ text, read }: Pick<Stop, 'text' | 'read'>, unit: TemperatureUnit): string {
  if (!read) return text;
  const { what, temp_C, max_C } = read;
  return `${what} read at ${temperature(temp_C, unit, 1)}, and ${temperature(max_C, unit)} is the most: ${text}`;
}

function reasonToStop(mechanism: Mechanism, state: JobState, event: BenchEvent): Reason | null {
  const { map } = mechanism;
  if (event.unreadable) return { reason: 'other', text: damaged(state, event) };
  switch (event.type) {
    case 'stop':
      return { reason: event.data.reason, text: event.data.text };
    case 'damage': {
      const { kind, part, text } = event.data;
      if (kind !== 'swelling') return null;
      const where = partById(map, part)?.name ?? 'the device';
      return { reason: 'swelling', text: `marked on ${where}${text ? `: ${text}` : ''}` };
    }
    case 'measure':
      return swollen(mechanism, state, event.data);
    case 'trouble':
      return event.data.kind === 'cut-too-deep' ? cutIntoCell(map, event.data) : null;
    case 'heat-reading':
      return tooHot(mechanism, event.data);
    default:
      return null;
  }
}

/** Nobody knows what it told: it may have been a stop, solvent, a plug. */
function damaged({ events }: JobState, { type, by }: BenchEvent): string {
  return `entry ${events.length + 1} of the record (${type}, ${by}) is damaged on the disk and was left out: look at the device and the bench before anything else`;
}

/** Thicker than the map by more than the workshop's limit; once for the same thing, however often it is measured. */
function swollen(
  mechanism: Mechanism,
  state: JobState,
  { part, thickness_mm }: { readonly part?: string; readonly thickness_mm: number },
): Reason | null {
  const mapped_mm = mappedThickness_mm(mechanism, part);
  if (!mapped_mm) return null;
  const over_percent = (thickness_mm / mapped_mm - 1) * 100;
  const limit = state.limits.swelling_percent;
  if (over_percent <= limit) return null;
  const whose = part === undefined ? 'the device' : part;
  const raisedIt = ({ id }: Stop) =>
    state.events.some((event) => event.id === id && event.type === 'measure' && event.data.part === part);
  if (state.stops.some(raisedIt)) return null;
  const text = `measured, ${whose}: ${thickness_mm} mm, ${over_percent.toFixed(1)} % over the map's ${mapped_mm.toFixed(1)} mm; the limit is ${limit} %`;
  return { reason: 'swelling', text };
}

/** Of the whole device, or of a part; null where the map has no such part. */
export function mappedThickness_mm(mechanism: Mechanism, id: string | undefined): number | null {
  if (id === undefined) return mechanism.map.outline.thickness;
  const part = partById(mechanism.map, id);
  return part ? part.z.bottom - part.z.top : null;
}

function cutIntoCell(
  map: DeviceMap,
  { joint, segment }: { readonly joint?: string; readonly segment?: string },
): Reason | null {
  const bond = jointById(map, joint);
  if (bond?.type !== 'bond') return null;
  const cell = behindEdge(map, bond, segment).find((part) => part.hazards?.includes('lithium'));
  if (!cell) return null;
  const text = `cut too deep over ${cell.name}: look for a cut, a dent, a smell or warmth before anything else`;
  return { reason: 'puncture', text };
}

/** Parts that the map names behind an edge of a bond; behind any of them where nobody said which. */
export function behindEdge(map: DeviceMap, bond: BondJoint, segment: string | undefined): Part[] {
  const edges = (bond.segments ?? []).filter((each) => segment === undefined || each.id === segment);
  const near = edges.flatMap((each) => (each.near === undefined ? [] : [each.near]));
  const joints = map.joints.filter(({ id }) => near.includes(id)).flatMap(({ holds, to }) => [...holds, to]);
  return map.parts.filter(
    (part) => !bond.holds.includes(part.id) && !part.base && [...near, ...joints].includes(part.id),
  );
}

/**
 * A watched place was read over its limit. That raises a stop, so that the source comes off and the lead looks before
 * any more heat.
 */
function tooHot(
  mechanism: Mechanism,
  { joint, readings }: (BenchEvent & { type: 'heat-reading' })['data'],
): Reason | null {
  const { map } = mechanism;
  const bond = jointById(map, joint);
  if (bond?.type !== 'bond') return null;
  const stack = stackOfBond(map, bond);
  for (const reading of readings) {
    const over = overLimit(map, stack, reading);
    if (!over) continue;
    return { reason: 'heat', text: 'take the source off and away', read: { ...over, temp_C: reading.temp_C } };
  }
  return null;
}
