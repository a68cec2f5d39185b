import {
  type BondJoint,
  type BondSegment,
  type ClipJoint,
  type DeviceMap,
  type Edge,
  isTether,
  type Part,
  partById,
} from '../../model/device-map/index.ts';
import { cutPace } from '../drafts/index.ts';
import { type CutPlan, planCut } from './cut-plan.ts';
import type { CutRequest } from './cut-request.ts';
import { withZone } from './zoned.ts';

/** How a bond is cut on its device. */
export interface BondCut extends CutPlan {
  readonly joint: string;
  /** the edge that stays down: it is opened toward it */
  readonly toward: Edge | null;
  /** how far it may be opened while something still tethers it */
  readonly gap_mm: number | null;
  readonly angle: number | null;
  /** joints that must come off before it is opened further */
  readonly tethers: readonly string[];
  /** hooks that want a slide before it is lifted, mm */
  readonly slide: { readonly dx: number; readonly dy: number } | null;
  readonly startWhy: string;
}

/** Null where the map says of no segment how deep it may be cut. @param given speed along a thin bond */
export function cutOfBond(
  map: DeviceMap,
  bond: BondJoint,
  given: Pick<CutRequest, 'speed_mm_s' | 'heat' | 'warm'>,
): BondCut | null {
  const segments = bond.segments ?? [];
  const cut = segments.filter((each) => each.depth !== undefined);
  if (cut.length === 0) return null;
  const held = partById(map, bond.holds[0])!;
  const notch = startAt(held, cut);
  const toward = held.opens?.edge ?? null;
  const plan = planCut({
    ...given,
    speed_mm_s: given.speed_mm_s / cutPace(bond),
    segments,
    ...(notch ? { start: notch.id } : {}),
    ...(toward ? { hinge: toward } : {}),
  });
  const clips = map.joints.filter(
    (each): each is ClipJoint => each.type === 'clip' && each.slide !== undefined && each.holds.includes(held.id),
  );
  const tethers = map.joints.filter(
    (each) => isTether(each) && each.type !== 'hinge' && (each.holds.includes(held.id) || each.to === held.id),
  );
  return {
    ...plan,
    joint: bond.id,
    toward,
    gap_mm: held.opens?.gap ?? null,
    angle: held.opens?.angle ?? null,
    tethers: tethers.map(({ id }) => id),
    slide: clips[0]?.slide ?? null,
    startWhy: startWhy(cut, notch, plan.edges[0]!.segment),
  };
}

/** A bond whose segments have the zones of a way of warming, for what asks where it is warm. */
export function warmedAs(map: DeviceMap, bond: BondJoint, warm: CutRequest['warm']): BondJoint {
  const cut = warm === undefined || warm === 'as-mapped' ? null : cutOfBond(map, bond, { speed_mm_s: 1, warm });
  if (!cut) return bond;
  const zones = new Map(cut.edges.map(({ segment, zone }) => [segment, zone]));
  return { ...bond, segments: bond.segments!.map((each) => withZone(each, zones.get(each.id))) };
}

/** The segment nearest to where the map says to pry; none where the map gives an order of its own. */
function startAt({ liftFrom }: Part, cut: readonly BondSegment[]): BondSegment | null {
  if (!liftFrom || cut.some((each) => each.order !== undefined)) return null;
  const away = ({ from, to }: BondSegment) =>
    Math.hypot((from.x + to.x) / 2 - liftFrom.x, (from.y + to.y) / 2 - liftFrom.y);
  return cut.reduce((best, each) => (away(each) < away(best) ? each : best));
}

function startWhy(cut: readonly BondSegment[], notch: BondSegment | null, first: string): string {
  const segment = cut.find((each) => each.id === first)!;
  if (segment.order !== undefined) return 'The map begins here.';
  if (notch) return 'The map has a place to pry here.';
  return segment.near === undefined ? 'Nothing lies behind it.' : 'The pick may go deepest here.';
}
