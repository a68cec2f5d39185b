import {
  type DeviceMap,
  isSelfParting,
  isTether,
  type Joint,
  type Part,
  type Point,
} from '../../model/device-map/index.ts';
import { cellsAt, isCellWatched, materialNamed } from '../../physics/heat/index.ts';
import { type Problem, wrong } from '../../model/refusal/index.ts';

/** What is probably forgotten, though the map can be used (docs/device-map.md, "warned"). */
export function mapWarnings(map: DeviceMap): Problem[] {
  return [
    ...coveredParts(map),
    ...coveredJoints(map),
    ...unrankedHosts(map),
    ...harmlessBattery(map),
    ...untamedLithium(map),
    ...unservedFunctions(map),
    ...pointlessIsolation(map),
    ...strangeMaterials(map),
    ...unwatchedCells(map),
  ];
}

function coveredParts(map: DeviceMap): Problem[] {
  return map.parts.flatMap((part, index) => {
    const joints = map.joints.filter((each) => each.holds.includes(part.id));
    if (part.base || part.under?.length || joints.some((each) => each.under?.length)) return [];
    const centre = { x: part.box.x + part.box.w / 2, y: part.box.y + part.box.h / 2 };
    const over = map.parts.find((each) => each !== part && !each.base && covers(each, part, centre));
    if (!over || joints.some((each) => each.to === over.id)) return [];
    return [
      wrong(
        `parts[${index}]`,
        `"${part.id}" is drawn beneath "${over.id}", but nothing says that it waits for it.`,
        'Add an under entry if it does.',
      ),
    ];
  });
}

function coveredJoints(map: DeviceMap): Problem[] {
  const byId = new Map(map.parts.map((each) => [each.id, each]));
  return map.joints.flatMap((joint, index) => {
    if (isSelfParting(joint) || joint.under?.length || joint.face === 'edge') return [];
    const tied = [...joint.holds, joint.to];
    const top = byId.get(joint.holds[0]!)!;
    const over = map.parts.find(
      (each) =>
        !each.base && !tied.includes(each.id) && placesOf(joint).some((place) => covers(each, top, place, joint.face)),
    );
    if (!over) return [];
    return [
      wrong(
        `joints[${index}]`,
        `"${joint.id}" lies beneath "${over.id}", but nothing says that it waits for it.`,
        'Add an under entry if it does.',
      ),
    ];
  });
}

function placesOf(joint: Joint): readonly Point[] {
  if (joint.at) return [joint.at];
  return 'points' in joint ? (joint.points ?? []) : [];
}

/** Does `over` lie between the observer and `part` at this place? */
function covers(over: Part, part: Part, place: Point, face = part.face): boolean {
  if (face === 'edge' || over.face !== face) return false;
  const nearer = face === 'front' ? over.z.bottom <= part.z.top : over.z.top >= part.z.bottom;
  return nearer && (over.outline ? inPolygon(over.outline, place) : inBox(over, place));
}

function inBox({ box }: Part, { x, y }: Point): boolean {
  return x > box.x && x < box.x + box.w && y > box.y && y < box.y + box.h;
}

function inPolygon(polygon: readonly (readonly [number, number])[], { x, y }: Point): boolean {
  let inside = false;
  polygon.forEach(([x1, y1], index) => {
    const [x2, y2] = polygon[(index + 1) % polygon.length]!;
    if (y1 > y !== y2 > y && x < ((x2 - x1) * (y - y1)) / (y2 - y1) + x1) inside = !inside;
  });
  return inside;
}

function unrankedHosts(map: DeviceMap): Problem[] {
  const jointById = new Map(map.joints.map((each) => [each.id, each]));
  return map.parts.flatMap((part, index) => {
    const joints = map.joints.filter((each) => each.holds.includes(part.id) && !isSelfParting(each) && !isTether(each));
    const hosts = [...new Set(joints.map((each) => each.to))];
    if (hosts.length < 2) return [];
    const group = new Set([part.id, ...hosts]);
    const tied = map.joints.filter((each) => each.holds.some((id) => group.has(id)));
    const entries = [
      ...map.parts.filter((each) => group.has(each.id)).flatMap((each) => each.under ?? []),
      ...tied.flatMap((each) => each.under ?? []),
    ];
    const ranked = entries.some((entry) => {
      if ('part' in entry) return group.has(entry.part);
      const named = jointById.get(entry.joint);
      return named !== undefined && named.holds.some((id) => group.has(id));
    });
    if (ranked) return [];
    return [
      wrong(
        `parts[${index}]`,
        `"${part.id}" is held to ${hosts.map((id) => `"${id}"`).join(' and ')}, and nothing says which comes away first.`,
        'Add an under entry.',
      ),
    ];
  });
}

function harmlessBattery({ battery, parts }: DeviceMap): Problem[] {
  return parts.flatMap((part, index) => {
    if (part.id !== battery?.part || part.hazards?.includes('lithium')) return [];
    return [
      wrong(
        `parts[${index}].hazards`,
        `"${part.id}" is the battery and is not said to hold lithium: no cut, heat or stop minds it.`,
        'Add lithium to its hazards if it does.',
      ),
    ];
  });
}

function untamedLithium(map: DeviceMap): Problem[] {
  const isolates = map.joints.some((each) => each.type === 'connector' && each.isolates);
  return map.parts.flatMap((part, index) => {
    if (!part.hazards?.includes('lithium') || isolates) return [];
    const joints = map.joints.filter((each) => each.holds.includes(part.id));
    if (joints.every((each) => isSelfParting(each) || each.type === 'clip')) return [];
    return [
      wrong(
        `parts[${index}]`,
        `"${part.id}" holds lithium, does not lift out by hand and has no joint that isolates it.`,
        'Mark its connector with isolates: true.',
      ),
    ];
  });
}

function unservedFunctions(map: DeviceMap): Problem[] {
  const served = new Set([
    ...map.parts.flatMap((each) => each.functions ?? []),
    ...map.joints.flatMap((each) => ('functions' in each ? (each.functions ?? []) : [])),
  ]);
  return map.functions.flatMap((each, index) => {
    if (served.has(each.id)) return [];
    return [
      wrong(
        `functions[${index}]`,
        `No part or connector serves "${each.id}".`,
        'Name it in the functions of what it needs.',
      ),
    ];
  });
}

function pointlessIsolation(map: DeviceMap): Problem[] {
  if (map.battery) return [];
  return map.joints.flatMap((each, index) => {
    if (each.type !== 'connector' || !each.isolates) return [];
    return [
      wrong(
        `joints[${index}].isolates`,
        `"${each.id}" is said to isolate, but the map has no battery: nothing will wait for it.`,
        'Add the battery or drop isolates.',
      ),
    ];
  });
}

/** A workshop may have materials of its own, so that one which is not in the table is no reason to refuse a map. */
function strangeMaterials(map: DeviceMap): Problem[] {
  return map.joints.flatMap((joint, index) => {
    const layers = joint.type === 'bond' ? (joint.stack?.layers ?? []) : [];
    return layers.flatMap(({ material }, layer) =>
      materialNamed(material)
        ? []
        : [
            wrong(
              `joints[${index}].stack.layers[${layer}].material`,
              `"${material}" is no material that everybody has.`,
              "Where this bond is heated, the workshop's table needs it.",
            ),
          ],
    );
  });
}

/** The cell is watched all the same where it is heated; but the map's author meant a place, and has none. */
function unwatchedCells(map: DeviceMap): Problem[] {
  return map.joints.flatMap((joint, index) => {
    const stack = joint.type === 'bond' ? joint.stack : undefined;
    if (joint.type !== 'bond' || !stack) return [];
    return cellsAt(map, joint)
      .filter((cell) => !isCellWatched(stack, cell))
      .map(({ id }) =>
        wrong(
          `joints[${index}].stack.watch`,
          `"${id}" holds lithium and lies at this stack, but nothing of it is watched.`,
          'Add a place in its layer with its max_C.',
        ),
      );
  });
}
