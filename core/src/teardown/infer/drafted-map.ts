import type { DeviceMap, Fastener, Joint, Part, Point, SeatJoint } from '../../model/device-map/index.ts';
import { type Entry, type Line, type ReleasedJoint, type SeenPart, type Teardown, thingKey } from '../record/index.ts';

export type Release = Extract<Line, { kind: 'release' }>;

/** Every joint that was released, as it was told when it first was: in the record, else in a later repair. */
export function releasedJoints({ record, repairs }: Teardown): ReadonlyMap<string, Release> {
  const found = new Map<string, Release>();
  for (const line of [...record, ...repairs.flat()]) {
    if (line.kind === 'release' && line.type !== undefined && !found.has(line.joint)) found.set(line.joint, line);
  }
  return found;
}

/** What is guessed of a device: where joints without a `to` are held, and what lies under what. */
export interface Guessed {
  readonly hosts: ReadonlyMap<string, string>;
  /** by the key of a thing */
  readonly under: ReadonlyMap<string, readonly Entry[]>;
}

/** The device map of a teardown, with what was not told filled in (docs/map-from-teardown.md). */
export function draftedMap(told: Teardown, { hosts, under }: Guessed): DeviceMap {
  const base = told.parts.find((part) => part.base)!.id;
  const underOf = (key: string) => {
    const entries = under.get(key) ?? [];
    return entries.length > 0 ? { under: entries } : {};
  };
  const boxes = new Map(told.parts.map(({ id, box }) => [id, box]));
  const released = [...releasedJoints(told)].map(([id, line]): Joint => ({
    ...jointOf(line, told.fasteners, hosts.get(id) ?? base, boxes.get(line.holds?.[0] ?? base)),
    ...underOf(thingKey({ joint: id })),
  }));
  const joints: Joint[] = [...released, ...told.hinges];
  const held = new Set(joints.flatMap(({ holds }) => holds));
  const ids = new Set(joints.map(({ id }) => id));
  const seats = told.parts.flatMap((part) =>
    part.base || held.has(part.id) ? [] : [seatOf(part, onWhich(told, part.id) ?? base, ids)],
  );
  const { device } = told;
  return {
    ...device,
    format: 'nibrel.device-map',
    version: 1,
    fasteners: told.fasteners,
    functions: device.functions ?? [],
    parts: told.parts.map((part) => ({ ...withDepth(told, part), ...underOf(thingKey({ part: part.id })) })),
    joints: [...joints, ...seats],
  };
}

/** The part on the mat on which a part was moved first. */
function onWhich({ record }: Teardown, id: string): string | undefined {
  return record.find((line) => (line.kind === 'open' || line.kind === 'lift') && line.part === id)?.on;
}

function seatOf({ id, face }: SeenPart, to: string, taken: Set<string>): SeatJoint {
  let name = `${id}-seat`;
  while (taken.has(name)) name += '-2';
  taken.add(name);
  return { id: name, type: 'seat', holds: [id], to, face };
}

function jointOf(
  line: Release,
  fasteners: readonly Fastener[],
  host: string,
  held: SeenPart['box'] | undefined,
): Joint {
  const { kind: _, joint: id, on: __, points: places, count, unplaced: ___, ...told } = line;
  // what was told without a place stands round what it holds
  const points: ReleasedJoint['points'] = places ?? (count === undefined || !held ? undefined : round(held, count));
  const common = { ...told, id, to: line.to ?? host };
  switch (line.type) {
    case 'screw':
      return {
        ...common,
        points: (points ?? []).map((each, at) => ({ ...hole(line, each, fasteners), id: each.id ?? `p${at + 1}` })),
      } as Joint;
    case 'clip':
    case 'solder':
      return {
        ...common,
        ...(points && points.length > 0
          ? { points: points.map((each, at) => ({ ...each, id: each.id ?? `p${at + 1}` })) }
          : {}),
      } as Joint;
    default:
      return { ...common, ...(points && points.length > 0 && !line.at ? { at: mean(points) } : {}) } as Joint;
  }
}

/** So many points along the edge of a box, a little within it. */
function round({ x, y, w, h }: SeenPart['box'], count: number): readonly Point[] {
  const inset = Math.min(INSET_mm, w / 4, h / 4);
  const [left, top, right, bottom] = [x + inset, y + inset, x + w - inset, y + h - inset];
  const way = 2 * (right - left + bottom - top);
  return Array.from({ length: count }, (_, at) => {
    const along = (at * way) / count;
    const [wide, high] = [right - left, bottom - top];
    if (along < wide) return { x: left + along, y: top };
    if (along < wide + high) return { x: right, y: top + along - wide };
    if (along < 2 * wide + high) return { x: right - (along - wide - high), y: bottom };
    return { x: left, y: bottom - (along - 2 * wide - high) };
  });
}

const INSET_mm = 2;

/** A hole is as deep as the screw is long that came out of it, until somebody measures it. */
function hole(line: Release, point: NonNullable<ReleasedJoint['points']>[number], fasteners: readonly Fastener[]) {
  const kind = fasteners.find(({ id }) => id === (point.fastener ?? line.fastener));
  return { depth: kind?.length ?? 0, below: 'metal', ...point };
}

function mean(points: readonly Point[]): Point {
  const sum = points.reduce((all, { x, y }) => ({ x: all.x + x, y: all.y + y }), { x: 0, y: 0 });
  return { x: sum.x / points.length, y: sum.y / points.length };
}

/** How deep a part lies, from its layer: layers of one face are taken to be as thick as each other. */
function withDepth({ parts, device }: Teardown, seen: SeenPart): Part {
  const { layer, unplaced: _, ...part } = seen;
  const deepest = (face: Part['face']) =>
    Math.max(-1, ...parts.filter((each) => each.face === face).map((each) => each.layer)) + 1;
  const { thickness } = device.outline;
  const step = thickness / Math.max(1, deepest('front') + deepest('back'), deepest('edge'));
  const from = layer * step;
  const thousandths = (mm: number) => Math.round(mm * 1000) / 1000;
  const [top, bottom] = part.face === 'back' ? [thickness - from - step, thickness - from] : [from, from + step];
  return { ...part, z: { top: thousandths(top), bottom: thousandths(bottom) } };
}
