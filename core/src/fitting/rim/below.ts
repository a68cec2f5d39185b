import type { DeviceMap, Face, Point } from '../../model/device-map/index.ts';

/** What lies below a place of a rim and may hold it up. */
export interface Below {
  readonly kind: 'clip' | 'flex' | 'screw' | 'hook';
  /** a joint, or a part where it is a flex or lead */
  readonly id: string;
  /** of a clip or screw with several points: which */
  readonly point?: string;
  readonly away_mm: number;
}

/** What is farther is looked at when these are not it. */
const MOST = 3;

/** Farther away holds up another place (guess). */
const NEAR_MM = 18;

/** The clips, flexes, screws and hooks near a place, the nearest first: what is looked at where a part will not lie down. */
export function belowRim({ joints, parts, battery }: DeviceMap, part: string, at: Point, face: Face): Below[] {
  const found: Below[] = [];
  const far = ({ x, y }: Point) => Math.hypot(x - at.x, y - at.y);
  const add = (below: Omit<Below, 'away_mm'>, place: Point) => found.push({ ...below, away_mm: far(place) });
  for (const joint of joints) {
    const holds = joint.holds.includes(part);
    if (joint.type === 'clip' && holds) {
      for (const point of joint.points ?? []) add({ kind: 'clip', id: joint.id, point: point.id }, point);
      if (joint.slide && !joint.points) add({ kind: 'hook', id: joint.id }, joint.at ?? at);
    }
    if (joint.type === 'screw' && (holds || joint.face === face)) {
      for (const point of joint.points) add({ kind: 'screw', id: joint.id, point: point.id }, point);
    }
  }
  for (const { id, kind, box } of parts) {
    if (kind !== 'flex' && kind !== 'lead' && kind !== 'antenna') continue;
    if (id === battery?.part) continue;
    const x = Math.min(Math.max(at.x, box.x), box.x + box.w);
    const y = Math.min(Math.max(at.y, box.y), box.y + box.h);
    add({ kind: 'flex', id }, { x, y });
  }
  const nearest = new Map<string, Below>();
  for (const each of found.toSorted((a, b) => a.away_mm - b.away_mm)) {
    const key = `${each.kind} ${each.id}`;
    if (each.away_mm <= NEAR_MM && !nearest.has(key)) nearest.set(key, each);
  }
  return [...nearest.values()].slice(0, MOST);
}

/** Places round a part where its rim is felt: the corners, and the middles of its sides. */
export function rimPlaces({ box }: DeviceMap['parts'][number]): Point[] {
  const [left, mid, right] = [box.x, box.x + box.w / 2, box.x + box.w];
  const [top, half, low] = [box.y, box.y + box.h / 2, box.y + box.h];
  return [
    { x: left, y: top },
    { x: mid, y: top },
    { x: right, y: top },
    { x: right, y: half },
    { x: right, y: low },
    { x: mid, y: low },
    { x: left, y: low },
    { x: left, y: half },
  ];
}
