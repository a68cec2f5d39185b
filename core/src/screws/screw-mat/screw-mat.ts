import { type DeviceMap, seenX } from '../../model/device-map/index.ts';
import { type Hole, holesOf } from '../mix-ups/index.ts';
import { Refusal, wrong } from '../../model/refusal/index.ts';
import { screwLetters } from '../screws/index.ts';
import { type Area, areaOf, type Paper } from './paper.ts';
import { Room } from './room.ts';

/** Where one screw is laid: on its own outline, at the size that it has. */
export interface MatPlace {
  readonly joint: string;
  readonly point: string;
  readonly letter: string;
  readonly drive: string;
  /** under its head, mm; drawn as long as it is */
  readonly length: number;
  readonly head: number;
  readonly shank: number;
  /** what nothing else may lie on, mm on the sheet */
  readonly box: Area;
  /** the middle of its head */
  readonly at: { readonly x: number; readonly y: number };
  /** the hole on the outline, where the place is not there itself: a leader line runs to it */
  readonly hole: { readonly x: number; readonly y: number } | null;
}

export interface MatSheet {
  readonly title: string;
  readonly paper: Paper;
  /** places are spread by this against the device; outlines of screws never are */
  readonly spread: number;
  /** the device on this sheet, mm; of a tiled one a part of it lies beyond the sheet. Null: only what found no room */
  readonly device: {
    readonly x: number;
    readonly y: number;
    readonly width: number;
    readonly height: number;
    readonly corner: number;
  } | null;
  readonly area: Area;
  readonly places: readonly MatPlace[];
}

/** More would be no mat. */
const MOST_HOLES = 5000;
/** Places are spread no farther (guess): the eye still finds the hole. */
const MOST_SPREAD = 2.5;
/** Room for the letter, and around a screw, mm. */
const LETTER = 6;
const AIR = 1;
const LEAST_HIGH = 5;
/** A place that is nearer to its hole needs no line to it, mm. */
const AT_HOLE = 2;

/**
 * The sheets of a mat: each face of the device, tiled where it is larger than the paper, with a place for every screw that
 * comes out. Screws are drawn as large as they are; no two places overlap.
 * @throws Refusal where the map has more holes than a mat can hold, or a screw is longer than the paper
 */
export function screwMat(map: DeviceMap, paper: Paper): MatSheet[] {
  const holes = holesOf(map).filter(({ kind }) => !kind.captive);
  if (holes.length > MOST_HOLES) {
    throw new Refusal(wrong('joints', `A mat holds ${MOST_HOLES} screws at most; this device has ${holes.length}.`));
  }
  const main = mainFace(holes);
  const faces = (['front', 'back'] as const).filter((face) =>
    holes.some(({ joint }) => joint.face === face || (joint.face === 'edge' && face === main)),
  );
  return faces.flatMap((face) =>
    sheetsOf(
      map,
      holes.filter(({ joint }) => joint.face === face || (joint.face === 'edge' && face === main)),
      face,
      paper,
    ),
  );
}

/** What is worked from the edge is laid with the face that has most screws. */
function mainFace(holes: readonly Hole[]): 'front' | 'back' {
  const count = (face: string) => holes.filter(({ joint }) => joint.face === face).length;
  return count('back') > count('front') ? 'back' : 'front';
}

function sheetsOf(map: DeviceMap, holes: readonly Hole[], face: 'front' | 'back', paper: Paper): MatSheet[] {
  const area = areaOf(paper);
  const { width, height, corner } = map.outline;
  const fits = Math.min(area.w / width, area.h / height, MOST_SPREAD);
  const spread = fits < 1 ? 1 : Math.floor(fits * 10) / 10;
  const columns = Math.max(1, Math.ceil((width * spread) / area.w));
  const rows = Math.max(1, Math.ceil((height * spread) / area.h));
  const middle = columns > 1 ? 0 : (area.w - width * spread) / 2;
  const onFace = (x: number) => middle + seenX(width, x, face) * spread;
  const left: Hole[] = [];
  const sheets = Array.from({ length: columns * rows }, (_, index): MatSheet => {
    const tile = { x: (index % columns) * area.w, y: Math.floor(index / columns) * area.h };
    const own = holes.filter(
      ({ point }) =>
        tileOf(onFace(point.x), area.w, columns) === index % columns &&
        tileOf(point.y * spread, area.h, rows) === Math.floor(index / columns),
    );
    const room = new Room(area);
    const places = own
      .toSorted((a, b) => a.point.y - b.point.y || onFace(a.point.x) - onFace(b.point.x) || byName(a, b))
      .flatMap((hole): MatPlace[] => {
        const at = { x: onFace(hole.point.x) - tile.x, y: hole.point.y * spread - tile.y };
        const place = placed(
          map,
          hole,
          area,
          (w, h, head) => room.near(at.x - LETTER - head / 2, at.y - h / 2, w, h),
          at,
        );
        if (!place) left.push(hole);
        return place ? [place] : [];
      });
    const part = columns * rows > 1 ? `, sheet ${index + 1} of ${columns * rows}` : '';
    const device = {
      x: area.x + middle - tile.x,
      y: area.y - tile.y,
      width: width * spread,
      height: height * spread,
      corner: corner * spread,
    };
    return { title: `${face === 'front' ? 'Front' : 'Back, mirrored'}${part}`, paper, spread, device, area, places };
  });
  return [...sheets, ...overflow(map, left, face, paper)];
}

function tileOf(at: number, size: number, count: number): number {
  return Math.max(0, Math.min(count - 1, Math.floor(at / size)));
}

/** What found no room near its hole, in rows. */
function overflow(map: DeviceMap, holes: readonly Hole[], face: string, paper: Paper): MatSheet[] {
  const area = areaOf(paper);
  const sheets: MatSheet[] = [];
  let left = holes;
  while (left.length > 0) {
    const room = new Room(area);
    const places: MatPlace[] = [];
    for (const hole of left) {
      const place = placed(map, hole, area, (w, h) => room.next(w, h), null);
      if (!place) break;
      places.push(place);
    }
    sheets.push({ title: `More of the ${face}, in rows`, paper, spread: 1, device: null, area, places });
    left = left.slice(places.length);
  }
  return sheets;
}

function placed(
  map: DeviceMap,
  { joint, point, kind }: Hole,
  area: Area,
  find: (w: number, h: number, head: number) => { readonly x: number; readonly y: number } | null,
  hole: { readonly x: number; readonly y: number } | null,
): MatPlace | null {
  const { length, head, thread, drive } = kind;
  const [w, h] = [Math.ceil(LETTER + head + length + AIR), Math.ceil(Math.max(head, LEAST_HIGH) + AIR)];
  if (w > area.w || h > area.h) {
    throw new Refusal(
      wrong('fasteners', `A screw of ${length} mm with a head of ${head} mm is larger than the paper.`),
    );
  }
  const found = find(w, h, head);
  if (!found) return null;
  const box = { x: area.x + found.x, y: area.y + found.y, w, h };
  const at = { x: box.x + LETTER + head / 2, y: box.y + h / 2 };
  const onSheet = hole && { x: area.x + hole.x, y: area.y + hole.y };
  const isThere = onSheet !== null && Math.hypot(onSheet.x - at.x, onSheet.y - at.y) <= AT_HOLE;
  return {
    joint: joint.id,
    point: point.id,
    letter: screwLetters(map).get(kind.id)!.letter,
    drive,
    length,
    head,
    shank: Math.min(head, Number(/^M(\d+(?:\.\d+)?)/.exec(thread)?.[1] ?? head / 2)),
    box,
    at,
    hole: isThere ? null : onSheet,
  };
}

function byName(a: Hole, b: Hole): number {
  return `${a.joint.id}/${a.point.id}` < `${b.joint.id}/${b.point.id}` ? -1 : 1;
}
