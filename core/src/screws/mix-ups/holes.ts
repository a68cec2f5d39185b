import {
  type DeviceMap,
  type Fastener,
  fastenerAt,
  type ScrewJoint,
  type ScrewPoint,
} from '../../model/device-map/index.ts';

/** A hole with the kind that belongs in it. */
export interface Hole {
  readonly joint: ScrewJoint;
  readonly point: ScrewPoint;
  readonly kind: Fastener;
}

/** A screw kind and every hole that it belongs in. */
export interface KindHoles {
  readonly kind: Fastener;
  readonly holes: readonly Hole[];
}

/** The holes of screw joints, in the order of the map; all of the map's where no joints are named. */
export function holesOf(map: DeviceMap, joints?: readonly string[]): Hole[] {
  const kinds = new Map(map.fasteners.map((each) => [each.id, each]));
  const wanted = joints && new Set(joints);
  return map.joints.flatMap((joint) => {
    if (joint.type !== 'screw' || (wanted && !wanted.has(joint.id))) return [];
    return joint.points.map((point) => ({ joint, point, kind: kinds.get(fastenerAt(joint, point))! }));
  });
}

/** Holes by the kind that comes out of them; captive ones stay in their part, and nobody mixes them up. */
export function kindsIn(holes: readonly Hole[]): KindHoles[] {
  const kinds = new Map<string, Hole[]>();
  for (const hole of holes) {
    if (hole.kind.captive) continue;
    const own = kinds.get(hole.kind.id);
    if (own) own.push(hole);
    else kinds.set(hole.kind.id, [hole]);
  }
  return [...kinds.values()].map((own) => ({ kind: own[0]!.kind, holes: own }));
}
