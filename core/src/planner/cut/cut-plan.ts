import type { BondSegment, Point } from '../../model/device-map/index.ts';
import type { CutRequest } from './cut-request.ts';
import { length_mm, withZone, zonesAlong } from './zoned.ts';

/** One edge of the cut, in its turn. */
export interface CutEdge {
  readonly segment: string;
  /** how deep a pick may go here, mm */
  readonly depth: number;
  readonly seconds: number;
  /** the bond is too stiff by then, or this zone was not heated yet */
  readonly reheatBefore?: true;
  /** pauses on the way, where the edge is longer than the bond stays soft */
  readonly reheatsWithin?: number;
  /** what lies behind it */
  readonly near?: string;
  /** warmed for itself when the cut comes to it */
  readonly zone?: string | number;
}

export interface CutPlan {
  readonly edges: readonly CutEdge[];
  readonly reheats: number;
  /** the first one counted */
  readonly warmings: number;
  /** cutting and heating again */
  readonly seconds: number;
}

/**
 * The order of edges, and where to pause for heat. The map's own order goes first; otherwise it begins where nothing lies
 * behind and the pick may go deepest, follows the edges round, leaves those with something behind them for later, and the
 * side toward which it is opened for the last. Zones, which are heated one after another, are not mixed. Softening is
 * needed for the first gap only; from there the open seam is cut on until it drags.
 */
export function planCut(request: CutRequest): CutPlan {
  const { heat, speed_mm_s, warm: way = 'as-mapped' } = request;
  const order = orderOf(
    way === 'as-mapped' ? request : { ...request, segments: request.segments.map((each) => withZone(each)) },
  );
  const own = new Map(request.segments.map((each) => [each.id, each]));
  const zones = zonesAlong(
    order.map(({ id }) => own.get(id)!),
    way,
  );
  const edges: CutEdge[] = [];
  let [reheats, seconds, warm_s] = [0, 0, 0];
  order.forEach((segment, index) => {
    const own_s = length_mm(segment) / speed_mm_s;
    const zone = zones[index];
    const isNewZone = index > 0 && zone !== undefined && zone !== zones[index - 1];
    const lasts_s = opensFor(heat, segment.id);
    const isStiff = index > 0 && warm_s + own_s > lasts_s;
    const again = isNewZone || isStiff;
    if (again) warm_s = 0;
    // an edge that takes longer than the bond can be cut is paused on its way
    const within = Math.max(0, Math.ceil(own_s / lasts_s - 1e-9) - 1);
    warm_s = within > 0 ? own_s - within * lasts_s : warm_s + own_s;
    reheats += Number(again) + within;
    seconds += own_s;
    edges.push({
      segment: segment.id,
      depth: segment.depth!,
      seconds: own_s,
      ...(again ? { reheatBefore: true } : {}),
      ...(within > 0 ? { reheatsWithin: within } : {}),
      ...(segment.near === undefined ? {} : { near: segment.near }),
      ...(zone === undefined ? {} : { zone }),
    });
  });
  return { edges, reheats, warmings: reheats + 1, seconds: seconds + reheats * (heat?.reheat_s ?? 0) };
}

/** An edge that the field says is never soft is taken by the time of the whole bond: it is no reason to pause for ever. */
function softFor(heat: CutRequest['heat'], segment: string): number {
  return heat?.softFor_s?.[segment] || heat?.workingTime_s || Infinity;
}

/** How long an open seam can be cut; as long as it is soft where nobody knows when it drags. */
function opensFor(heat: CutRequest['heat'], segment: string): number {
  return heat?.dragFor_s?.[segment] || heat?.dragTime_s || softFor(heat, segment);
}

function orderOf({ segments, start, hinge }: CutRequest): BondSegment[] {
  const left = new Set(segments.filter((each) => each.depth !== undefined));
  const outline = boundsOf(segments);
  const isHinge = (each: BondSegment) => each.id === hinge || (hinge !== undefined && liesAt(each, hinge, outline));
  const order: BondSegment[] = [];
  while (left.size > 0) {
    const last = order.at(-1);
    const next = [...left].reduce((best, each) => (comesBefore(each, best, { last, start, isHinge }) ? each : best));
    left.delete(next);
    order.push(next);
  }
  return order;
}

interface Turn {
  readonly last: BondSegment | undefined;
  readonly start: string | undefined;
  isHinge(segment: BondSegment): boolean;
}

/** Is `a` rather to be cut next than `b`? */
function comesBefore(a: BondSegment, b: BondSegment, { last, start, isHinge }: Turn): boolean {
  const ranks = (each: BondSegment): number[] => [
    last === undefined && each.id === start ? 0 : 1,
    each.order ?? Infinity,
    // a zone that was begun is finished first
    last !== undefined && each.zone === last.zone ? 0 : 1,
    isHinge(each) ? 1 : 0,
    each.near === undefined ? 0 : 1,
    last ? Math.round(distance_mm(last, each)) : -each.depth!,
    last ? 0 : -length_mm(each),
  ];
  const [ofA, ofB] = [ranks(a), ranks(b)];
  const differs = ofA.findIndex((each, index) => each !== ofB[index]);
  return differs >= 0 && ofA[differs]! < ofB[differs]!;
}

function apart_mm(a: Point, b: Point): number {
  return Math.hypot(a.x - b.x, a.y - b.y);
}

/** Between the nearest ends of two segments. */
function distance_mm(a: BondSegment, b: BondSegment): number {
  return Math.min(apart_mm(a.from, b.from), apart_mm(a.from, b.to), apart_mm(a.to, b.from), apart_mm(a.to, b.to));
}

interface Bounds {
  readonly left: number;
  readonly right: number;
  readonly top: number;
  readonly bottom: number;
}

function boundsOf(segments: readonly BondSegment[]): Bounds {
  const points = segments.flatMap(({ from, to }) => [from, to]);
  const xs = points.map((each) => each.x);
  const ys = points.map((each) => each.y);
  return { left: Math.min(...xs), right: Math.max(...xs), top: Math.min(...ys), bottom: Math.max(...ys) };
}

/** Does a segment run along an edge of the whole bond, both its ends nearer to that edge than to the one across? */
function liesAt({ from, to }: BondSegment, edge: string, { left, right, top, bottom }: Bounds): boolean {
  const [a, b] = [from, to];
  const [wide, high] = [(right - left) * 0.2, (bottom - top) * 0.2];
  switch (edge) {
    case 'left':
      return a.x < left + wide && b.x < left + wide;
    case 'right':
      return a.x > right - wide && b.x > right - wide;
    case 'top':
      return a.y < top + high && b.y < top + high;
    case 'bottom':
      return a.y > bottom - high && b.y > bottom - high;
    default:
      return false;
  }
}
