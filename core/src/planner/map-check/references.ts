import {
  type BondStack,
  type DeviceMap,
  isSelfParting,
  type Joint,
  type UnderEntry,
} from '../../model/device-map/index.ts';
import { type Problem, wrong } from '../../model/refusal/index.ts';

/** What one field says of another: ids that must exist, be single, and make sense together. */
export function referenceErrors(map: DeviceMap): Problem[] {
  const ids = {
    part: new Set(map.parts.map((each) => each.id)),
    joint: new Set(map.joints.map((each) => each.id)),
    fastener: new Set(map.fasteners.map((each) => each.id)),
    function: new Set(map.functions.map((each) => each.id)),
  };
  const found: Problem[] = [];
  const refuse = (path: string, message: string, cure: string) => found.push(wrong(path, message, cure));
  const known = (path: string, what: keyof typeof ids, id: string | undefined) => {
    if (id !== undefined && !ids[what].has(id)) {
      refuse(path, `There is no ${what} "${id}" in this map.`, `Correct the id or add the ${what}.`);
    }
  };
  const eitherKnown = (path: string, id: string | undefined) => {
    if (id !== undefined && !ids.part.has(id) && !ids.joint.has(id)) {
      refuse(path, `There is no part or joint "${id}" in this map.`, 'Correct the id or add it.');
    }
  };
  const selfParting = new Set(map.joints.filter(isSelfParting).map((each) => each.id));
  const checkUnder = (path: string, under: readonly UnderEntry[] | undefined) =>
    under?.forEach((entry, index) => {
      const at = `${path}.under[${index}]`;
      if ('part' in entry) return known(`${at}.part`, 'part', entry.part);
      known(`${at}.joint`, 'joint', entry.joint);
      if (selfParting.has(entry.joint)) {
        refuse(
          `${at}.joint`,
          `"${entry.joint}" parts by itself and holds nothing back, so nothing can wait for it.`,
          'Name the part that it serves.',
        );
      }
    });

  for (const [list, path] of [
    [map.parts, 'parts'],
    [map.joints, 'joints'],
    [map.fasteners, 'fasteners'],
    [map.functions, 'functions'],
    [map.pinHoles ?? [], 'pinHoles'],
  ] as const) {
    repeats(list.map((each) => each.id)).forEach(([index, id]) =>
      refuse(`${path}[${index}].id`, `"${id}" is used twice in ${path}.`, 'Every id must be its own.'),
    );
  }

  if (map.battery) known('battery.part', 'part', map.battery.part);
  map.functions.forEach((each, index) =>
    each.needs?.forEach((id, need) => eitherKnown(`functions[${index}].needs[${need}]`, id)),
  );

  map.pinHoles?.forEach((each, index) => known(`pinHoles[${index}].part`, 'part', each.part));
  const bases = map.parts.flatMap((each, index) => (each.base ? [index] : []));
  if (bases.length === 0) refuse('parts', 'No part is the base.', 'Mark the chassis or mid-frame with base: true.');
  bases
    .slice(1)
    .forEach((index) =>
      refuse(
        `parts[${index}].base`,
        `"${map.parts[index]!.id}" is a second base beside "${map.parts[bases[0]!]!.id}".`,
        'Only one part is the base: take the mark off the other.',
      ),
    );

  const held = new Set(map.joints.flatMap((each) => each.holds));
  map.parts.forEach((part, index) => {
    const at = `parts[${index}]`;
    if (!part.base && !held.has(part.id)) {
      refuse(at, `"${part.id}" is held by nothing.`, 'Add the joint that holds it, if only a seat.');
    }
    part.functions?.forEach((id, n) => known(`${at}.functions[${n}]`, 'function', id));
    part.onReplace?.forEach((each, n) => known(`${at}.onReplace[${n}].function`, 'function', each.function));
    part.through?.forEach((each, n) => known(`${at}.through[${n}].part`, 'part', each.part));
    part.mixUpWith?.forEach((id, n) => known(`${at}.mixUpWith[${n}]`, 'part', id));
    known(`${at}.staysWith`, 'part', part.staysWith);
    known(`${at}.ifFailed.replace`, 'part', part.ifFailed?.replace);
    checkUnder(at, part.under);
  });

  map.joints.forEach((joint, index) => {
    const at = `joints[${index}]`;
    joint.holds.forEach((id, n) => {
      known(`${at}.holds[${n}]`, 'part', id);
      if (id === joint.to) refuse(`${at}.to`, `"${joint.id}" holds "${id}" to itself.`, 'Name the part it is held to.');
    });
    known(`${at}.to`, 'part', joint.to);
    if (isSelfParting(joint) && joint.under?.length) {
      refuse(
        `${at}.under`,
        `"${joint.id}" parts by itself and can't wait.`,
        'Put the entry on the part that covers it.',
      );
    }
    checkUnder(at, joint.under);
    found.push(...jointErrors(map, joint, at, known, eitherKnown));
  });
  return found;
}

function jointErrors(
  map: DeviceMap,
  joint: Joint,
  at: string,
  known: (path: string, what: 'part' | 'joint' | 'fastener' | 'function', id: string | undefined) => void,
  eitherKnown: (path: string, id: string | undefined) => void,
): Problem[] {
  const found: Problem[] = [];
  const pointIds = 'points' in joint ? (joint.points ?? []).map((each) => each.id) : [];
  repeats(pointIds).forEach(([index, id]) =>
    found.push(
      wrong(
        `${at}.points[${index}].id`,
        `Point "${id}" is there twice in "${joint.id}".`,
        'Every point needs its own id.',
      ),
    ),
  );
  switch (joint.type) {
    case 'screw': {
      known(`${at}.fastener`, 'fastener', joint.fastener);
      const fasteners = new Map(map.fasteners.map((each) => [each.id, each]));
      const first = fasteners.get(joint.points[0]!.fastener ?? joint.fastener);
      joint.points.forEach((point, index) => {
        known(`${at}.points[${index}].fastener`, 'fastener', point.fastener);
        const own = fasteners.get(point.fastener ?? joint.fastener);
        if (own && first && own.drive !== first.drive) {
          const drives = `${first.drive} and ${own.drive}`;
          found.push(
            wrong(
              `${at}.points[${index}].fastener`,
              `The points of "${joint.id}" need different drives (${drives}).`,
              'Make them two joints.',
            ),
          );
        }
        if (own && own.length > point.depth + 1e-9) {
          found.push(
            wrong(
              `${at}.points[${index}].depth`,
              `Screw "${own.id}" is ${own.length} mm long, but its own hole "${point.id}" takes at most ${point.depth} mm.`,
              'Correct the length or the depth.',
            ),
          );
        }
      });
      break;
    }
    case 'bond':
      joint.seam?.between.forEach((id, n) => known(`${at}.seam.between[${n}]`, 'part', id));
      found.push(...stackErrors(joint.stack, `${at}.stack`));
      joint.endangers?.forEach((id, n) => known(`${at}.endangers[${n}]`, 'part', id));
      joint.segments?.forEach((each, n) => eitherKnown(`${at}.segments[${n}].near`, each.near));
      repeats((joint.segments ?? []).map((each) => each.id)).forEach(([index, id]) =>
        found.push(
          wrong(
            `${at}.segments[${index}].id`,
            `Segment "${id}" is there twice in "${joint.id}".`,
            'Every segment needs its own id.',
          ),
        ),
      );
      break;
    case 'connector':
    case 'solder':
      joint.functions?.forEach((id, n) => known(`${at}.functions[${n}]`, 'function', id));
  }
  return found;
}

function stackErrors(stack: BondStack | undefined, at: string): Problem[] {
  if (!stack) return [];
  const count = stack.layers.length;
  const layers = [
    { path: `${at}.bondLayer`, layer: stack.bondLayer },
    ...stack.watch.map(({ layer }, n) => ({ path: `${at}.watch[${n}].layer`, layer })),
  ];
  return layers.flatMap(({ path, layer }) =>
    layer < count
      ? []
      : [wrong(path, `The stack has ${count} layers; there is no ${layer}.`, 'Name one of them, counted from 0.')],
  );
}

function repeats(ids: readonly string[]): [number, string][] {
  const seen = new Set<string>();
  return ids.flatMap((id, index): [number, string][] => {
    if (seen.has(id)) return [[index, id]];
    seen.add(id);
    return [];
  });
}
