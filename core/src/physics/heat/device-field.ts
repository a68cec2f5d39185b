import {
  type BondJoint,
  type BondSegment,
  type BondStack,
  type DeviceMap,
  type Part,
  partById,
  type Point,
} from '../../model/device-map/index.ts';
import type { FieldRequest, FieldResult, LevelMaterial } from './field.ts';
import { CUTS_ON_C, type Past } from './foresee.ts';
import { figuresOfLayers, type Material, MATERIALS, POUCH_CELL } from './materials.ts';
import { BARE_W_m2K, FAR_W_m2K, type HeatSetting, ROOM_C, sourceOf } from './setting.ts';

export const TOUCHES = ['all', 'upper', 'lower', 'top', 'bottom', 'left', 'right'] as const;

/** Where the source touches: all of the face, one of its halves, or a strip along an edge. */
export type Touch = (typeof TOUCHES)[number];

export interface DeviceWarming {
  readonly map: DeviceMap;
  readonly bond: BondJoint;
  readonly stack: BondStack;
  readonly setting: HeatSetting;
  readonly touch: Touch;
  /** where only a zone of the bond is heated: what of the face lies nearest to that zone's edges */
  readonly zone?: BondSegment['zone'];
  readonly heat_s: number;
  readonly total_s: number;
  readonly room_C?: number;
  /** what was done to it before, where it is warmed again */
  readonly past?: Past;
  readonly materials?: readonly Material[];
}

/** Cells along the device's shorter and longer side. */
const ACROSS = 60;
const ALONG = 120;
/** A bond where the map gives it no width (guess). */
const WIDTH_mm = 1.5;
/** Share of the device that a pack on one edge covers (guess). */
const STRIP = 0.3;
/** Equal to the exact solution within 0.3 °C (field.test.ts), and fast enough to wait for. */
const STEP_s = 4;
/** A picture every so many steps. */
const EVERY = 2;
/** A level that is thicker than this bends within itself, and is cut in two (guess). */
const THICK_mm = 2;

/**
 * A device in plan, as the field takes it. Its levels are those of the bond's stack; what they are made of differs by
 * region: on the bond, over the cell, over a board, over the frame, and over air.
 */
export function fieldOfDevice(warming: DeviceWarming): FieldRequest {
  const { map, bond, stack, setting, room_C = ROOM_C } = warming;
  const { width, height } = map.outline;
  const [columns, rows] = width < height ? [ACROSS, ALONG] : [ALONG, ACROSS];
  const regions = regionsOf(warming);
  const regionOf = new Uint8Array(columns * rows);
  const heated = new Uint8Array(columns * rows);
  for (let place = 0; place < regionOf.length; place++) {
    const at = placeOf(place, columns, rows, map);
    regionOf[place] = REGIONS.indexOf(regionAt(map, bond, stack, at));
    heated[place] = isTouched(warming.touch, at, map) && isNearestTo(warming, at) ? 1 : 0;
  }
  return {
    width_mm: width,
    height_mm: height,
    columns,
    rows,
    levels: stack.layers.map(({ thickness }) => ({ thickness_mm: thickness, cells: thickness > THICK_mm ? 2 : 1 })),
    regions,
    regionOf,
    heated,
    source: sourceOf(setting, setting.transfer.likely),
    after: { h_W_m2K: BARE_W_m2K, temp_C: room_C },
    far: { h_W_m2K: FAR_W_m2K, temp_C: room_C },
    rim: { h_W_m2K: BARE_W_m2K, temp_C: room_C },
    initial_C: room_C,
    past: (warming.past ?? []).map(({ setting: then, seconds }) => ({
      source: then && sourceOf(then, then.transfer.likely),
      seconds,
    })),
    heat_s: warming.heat_s,
    total_s: warming.total_s,
    step_s: STEP_s,
    watch: stack.bondLayer,
    every: EVERY,
  };
}

const REGIONS = ['bond', 'cell', 'board', 'frame', 'air'] as const;
type Region = (typeof REGIONS)[number];

/** Levels above the bond are what is held; at its level there is air away from it; below lies what the region says. */
function regionsOf({ map, stack, materials = MATERIALS }: DeviceWarming): LevelMaterial[][] {
  const named = (material: string): LevelMaterial => figuresOf(material, materials);
  const air = named('still air gap');
  const beneath: Readonly<Record<Exclude<Region, 'bond'>, LevelMaterial>> = {
    cell: named(POUCH_CELL),
    board: named('polycarbonate'),
    frame: named(baseMaterial(map)),
    air,
  };
  return REGIONS.map((region) =>
    stack.layers.map(({ material }, level) => {
      if (region === 'bond' || level < stack.bondLayer) return named(material);
      if (level === stack.bondLayer) return air;
      if (material === 'still air gap') return air;
      // the host's own sheet goes on under everything but a cell's pocket
      if (level === stack.bondLayer + 1) return named(material);
      return beneath[region];
    }),
  );
}

function figuresOf(material: string, materials: readonly Material[]): LevelMaterial {
  const { k, rho, cp } = figuresOfLayers([{ material, thickness: 1 }], materials)[0]!;
  const kInPlane = materials.find((each) => each.id === material)?.kInPlane;
  return { k, rho, cp, ...(kInPlane === undefined ? {} : { kInPlane }) };
}

function baseMaterial(map: DeviceMap): string {
  return map.parts.find((each) => each.base)?.kind === 'frame' ? 'aluminium alloy' : 'polycarbonate';
}

function regionAt(map: DeviceMap, bond: BondJoint, stack: BondStack, at: Point): Region {
  const half = Math.max(bond.width ?? WIDTH_mm, (2 * map.outline.width) / ACROSS) / 2;
  if (segmentsOf(map, bond).some((segment) => distance_mm(at, segment) <= half)) return 'bond';
  if (stack.layers.length <= stack.bondLayer + 2) return 'frame';
  const cells = map.parts.filter((part) => part.kind === 'battery');
  if (cells.some((cell) => covers(cell, at))) return 'cell';
  if (map.parts.some((part) => part.kind === 'board' && covers(part, at))) return 'board';
  const others = map.parts.some(
    (part) => !part.base && !bond.holds.includes(part.id) && part.kind !== 'display' && covers(part, at),
  );
  return others ? 'frame' : 'air';
}

function covers({ box }: Part, { x, y }: Point): boolean {
  return x >= box.x && x <= box.x + box.w && y >= box.y && y <= box.y + box.h;
}

/** The bond's own segments, else the outline of what it holds. */
export function segmentsOf(map: DeviceMap, bond: BondJoint): Pick<BondSegment, 'id' | 'from' | 'to'>[] {
  if (bond.segments && bond.segments.length > 0) return [...bond.segments];
  const box = partById(map, bond.holds[0])!.box;
  const [a, b] = [
    { x: box.x, y: box.y },
    { x: box.x + box.w, y: box.y + box.h },
  ];
  return [
    { id: 'top', from: a, to: { x: b.x, y: a.y } },
    { id: 'right', from: { x: b.x, y: a.y }, to: b },
    { id: 'bottom', from: b, to: { x: a.x, y: b.y } },
    { id: 'left', from: { x: a.x, y: b.y }, to: a },
  ];
}

function distance_mm(at: Point, { from, to }: Pick<BondSegment, 'from' | 'to'>): number {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const length2 = dx * dx + dy * dy;
  const share = length2 === 0 ? 0 : ((at.x - from.x) * dx + (at.y - from.y) * dy) / length2;
  const on = Math.min(1, Math.max(0, share));
  return Math.hypot(at.x - from.x - on * dx, at.y - from.y - on * dy);
}

function placeOf(place: number, columns: number, rows: number, { outline }: DeviceMap): Point {
  return {
    x: (((place % columns) + 0.5) / columns) * outline.width,
    y: ((Math.floor(place / columns) + 0.5) / rows) * outline.height,
  };
}

function isTouched(touch: Touch, { x, y }: Point, { outline: { width, height } }: DeviceMap): boolean {
  switch (touch) {
    case 'all':
      return true;
    case 'upper':
      return y < height / 2;
    case 'lower':
      return y >= height / 2;
    case 'top':
      return y < STRIP * height;
    case 'bottom':
      return y > (1 - STRIP) * height;
    case 'left':
      return x < STRIP * width;
    case 'right':
      return x > (1 - STRIP) * width;
  }
}

function isNearestTo({ bond: { segments = [] }, zone }: DeviceWarming, at: Point): boolean {
  // of a way of warming that was changed since: as if all of it had been warmed
  if (zone === undefined || !segments.some((each) => each.zone === zone)) return true;
  return segments.reduce((a, b) => (distance_mm(at, b) < distance_mm(at, a) ? b : a)).zone === zone;
}

/** How long each edge can be cut once the source is gone, s. */
export interface CutTimes {
  /** from the first gap on, while it is soft; 0 where it never was */
  readonly softFor_s: Readonly<Record<string, number>>;
  /** along an open seam, until it drags; 0 where it was colder than that from the start */
  readonly dragFor_s: Readonly<Record<string, number>>;
}

/** Where a bond is soft, and where an open seam drags. */
export interface Yielding {
  readonly soften_C: number;
  readonly drag_C: number;
}

/** By the stiffest place of each edge but its corners, which are cut on the turn. */
export function cutTimesOf(
  warming: Pick<DeviceWarming, 'map' | 'bond' | 'heat_s'>,
  { soften_C, drag_C }: Yielding,
  request: Pick<FieldRequest, 'columns' | 'rows'>,
  result: FieldResult,
): CutTimes {
  return {
    softFor_s: lasting_s(warming, soften_C, soften_C - CUTS_ON_C, request, result),
    dragFor_s: lasting_s(warming, drag_C, drag_C, request, result),
  };
}

/** From the end of heating until an edge that was once so warm has fallen below another temperature. */
function lasting_s(
  { map, bond, heat_s }: Pick<DeviceWarming, 'map' | 'bond' | 'heat_s'>,
  from_C: number,
  stiff_C: number,
  { columns, rows }: Pick<FieldRequest, 'columns' | 'rows'>,
  { times_s, frames }: FieldResult,
): Readonly<Record<string, number>> {
  const entries = segmentsOf(map, bond).map((segment) => {
    const coldest = frames.map((frame) => coldestOf(map, segment, { columns, rows }, frame));
    const off = times_s.findIndex((time) => time >= heat_s);
    if (off < 0 || coldest[off]! < from_C) return [segment.id, 0] as const;
    const stiff = coldest.findIndex((temp, index) => index > off && temp < stiff_C);
    if (stiff < 0) return [segment.id, times_s.at(-1)! - heat_s] as const;
    const [a, b] = [coldest[stiff - 1]!, coldest[stiff]!];
    const share = a === b ? 0 : (a - stiff_C) / (a - b);
    return [segment.id, times_s[stiff - 1]! + share * (times_s[stiff]! - times_s[stiff - 1]!) - heat_s] as const;
  });
  return Object.fromEntries(entries);
}

/** Share of an edge at each end that is a corner (guess). */
const CORNER = 0.08;

/** The stiffest place of a segment in a picture of the field, °C; its corners aside. */
export function coldestOf(
  map: DeviceMap,
  segment: Pick<BondSegment, 'from' | 'to'>,
  { columns, rows }: Pick<FieldRequest, 'columns' | 'rows'>,
  frame: ArrayLike<number>,
): number {
  return Math.min(...placesAlong(segment, columns, rows, map).map((place) => frame[place]!));
}

function placesAlong(
  { from, to }: Pick<BondSegment, 'from' | 'to'>,
  columns: number,
  rows: number,
  { outline }: DeviceMap,
): number[] {
  const count = 40;
  const places = Array.from({ length: count + 1 }, (_, index) => {
    const share = CORNER + (index / count) * (1 - 2 * CORNER);
    const column = Math.floor(((from.x + share * (to.x - from.x)) / outline.width) * columns);
    const row = Math.floor(((from.y + share * (to.y - from.y)) / outline.height) * rows);
    return Math.min(rows - 1, Math.max(0, row)) * columns + Math.min(columns - 1, Math.max(0, column));
  });
  return [...new Set(places)];
}
