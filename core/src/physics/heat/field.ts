import { Refusal, wrong } from '../../model/refusal/index.ts';
import { materialNamed } from './materials.ts';
import type { Boundary, HeatSource } from './heat-request.ts';
import { meetingOf } from './slab.ts';
import { type Direction, type Lines, Splitting } from './splitting.ts';

/**
 * A device from above: columns and rows of one size, and levels that all of it shares. What a level is made of differs by
 * region: over the cell, over the frame, over air.
 */
export interface FieldRequest {
  readonly width_mm: number;
  readonly height_mm: number;
  readonly columns: number;
  readonly rows: number;
  /** from the heated face on; `cells` cuts a level further, 1 where it is left out */
  readonly levels: readonly { readonly thickness_mm: number; readonly cells?: number }[];
  /** materials by level */
  readonly regions: readonly (readonly LevelMaterial[])[];
  /** the region of each column and row, row by row */
  readonly regionOf: ArrayLike<number>;
  readonly source: HeatSource;
  /** where the source touches: 1 heated, 0 not; all of it where it is left out */
  readonly heated?: ArrayLike<number>;
  readonly after: Boundary;
  readonly far: Boundary;
  /** what the rim loses; nothing where it is left out */
  readonly rim?: Boundary;
  readonly initial_C: number;
  /** what was on it before the time that is looked at, each with its own source; null where it was left to cool */
  readonly past?: readonly { readonly source: HeatSource | null; readonly seconds: number }[];
  readonly heat_s: number;
  readonly total_s: number;
  /** the step, the same however well anything conducts */
  readonly step_s: number;
  /** the level that is looked at, in its middle */
  readonly watch: number;
  /** a picture every so many steps */
  readonly every: number;
}

/** What a level is made of in a region. */
export type LevelMaterial =
  | { readonly material: string }
  | { readonly k: number; readonly rho: number; readonly cp: number; readonly kInPlane?: number };

export interface FieldResult {
  readonly times_s: readonly number[];
  /** the watched level at each time, row by row, °C */
  readonly frames: readonly Float32Array[];
  readonly energyError: number;
}

/**
 * Conduction through and along a device, by finite volumes. The directions are taken one after the other, there and back
 * (Strang, 1968), each implicitly, so that aluminium and air take the same step.
 * @param onProgress called with the share that is done, 0 to 1
 */
export function heatField(request: FieldRequest, onProgress?: (share: number) => void): FieldResult {
  const grid = gridOf(request);
  const { total_s, step_s } = request;
  const steps = Math.max(1, Math.round(total_s / step_s));
  const dt = total_s / steps;
  const heatedSteps = request.source.kind === 'none' ? 0 : Math.min(steps, Math.round(request.heat_s / dt));
  const temps = new Float64Array(grid.capacity.length).fill(request.initial_C);
  const splitting = new Splitting(temps, grid.capacity);
  const [halfX, wholeX] = [dt / 2, dt].map((step) => splitting.prepared(grid.x, step));
  const halfY = splitting.prepared(grid.y, dt / 2);
  for (const { source, seconds } of request.past ?? []) {
    const phase = splitting.prepared(throughOf(request, grid, source), dt);
    for (let step = 0; step < Math.round(seconds / dt); step++) {
      for (const direction of [halfX!, halfY, phase, halfY, halfX!]) splitting.advance(direction);
    }
  }
  splitting.passed.in = 0;
  splitting.passed.out = 0;
  let through = splitting.prepared(throughOf(request, grid, heatedSteps > 0 ? request.source : null), dt);
  const times_s = [0];
  const frames = [frameOf(request, grid, temps)];
  const start = splitting.stored();
  splitting.advance(halfX!);
  for (let step = 1; step <= steps; step++) {
    splitting.advance(halfY);
    splitting.advance(through);
    splitting.advance(halfY);
    const isShown = step % request.every === 0 || step === steps;
    if (isShown) {
      splitting.advance(halfX!);
      times_s.push(step * dt);
      frames.push(frameOf(request, grid, temps));
      onProgress?.(step / steps);
    }
    if (step === heatedSteps) through = splitting.prepared(throughOf(request, grid, null), dt);
    // the half step that ends one round and the one that begins the next are one, where nobody looks between them
    if (step < steps) splitting.advance(isShown ? halfX! : wholeX!);
  }
  const gained = splitting.stored() - start;
  const moved = splitting.passed.in + splitting.passed.out + Math.abs(gained);
  const balance = splitting.passed.in - splitting.passed.out - gained;
  return { times_s, frames, energyError: moved > 0 ? Math.abs(balance) / moved : 0 };
}

interface Grid {
  readonly depth: number;
  /** J/K of each cell; cells lie level by level within a column, columns within a row */
  readonly capacity: Float64Array;
  /** from a cell's middle to its upper and lower side, K/W */
  readonly halfThrough: Float64Array;
  readonly area_m2: number;
  readonly x: Direction;
  readonly y: Direction;
  readonly through: Lines;
  /** which cells lie in which level */
  readonly levelOf: readonly number[];
}

function gridOf(request: FieldRequest): Grid {
  const { columns, rows, levels, regions, regionOf, rim } = request;
  const slices = levels.flatMap(({ thickness_mm, cells = 1 }, level) =>
    Array.from({ length: cells }, () => ({ level, thickness_m: thickness_mm / 1000 / cells })),
  );
  const depth = slices.length;
  const size = columns * rows * depth;
  const [dx, dy] = [request.width_mm / 1000 / columns, request.height_mm / 1000 / rows];
  const capacity = new Float64Array(size);
  const halfThrough = new Float64Array(size);
  const halfX = new Float64Array(size);
  const halfY = new Float64Array(size);
  const figures = regions.map((region) => region.map(figuresOf));
  for (let place = 0; place < columns * rows; place++) {
    const region = figures[regionOf[place]!]!;
    slices.forEach(({ level, thickness_m }, slice) => {
      const { k, rho, cp, kInPlane } = region[level]!;
      const cell = place * depth + slice;
      capacity[cell] = rho * cp * dx * dy * thickness_m;
      halfThrough[cell] = thickness_m / 2 / k / (dx * dy);
      halfX[cell] = dx / 2 / kInPlane / (dy * thickness_m);
      halfY[cell] = dy / 2 / kInPlane / (dx * thickness_m);
    });
  }
  const link = (half: Float64Array, stride: number) => (cell: number) => 1 / (half[cell]! + half[cell + stride]!);
  const rimOf = (half: Float64Array, side_m: number) => (cell: number) => {
    if (!rim || rim.h_W_m2K === 0) return 0;
    return 1 / (1 / (rim.h_W_m2K * side_m * slices[cell % depth]!.thickness_m) + half[cell]!);
  };
  const rim_C = () => rim?.temp_C ?? 0;
  const wide = columns * depth;
  const upTo = (count: number, step: number) => Array.from({ length: count }, (_, n) => n * step);
  const toRim = (half: Float64Array, side_m: number) => ({
    low: rimOf(half, side_m),
    high: rimOf(half, side_m),
    low_C: rim_C,
    high_C: rim_C,
  });
  const lanes = { lanes: depth, laneStep: 1 };
  return {
    depth,
    capacity,
    halfThrough,
    area_m2: dx * dy,
    x: {
      ...lanes,
      starts: upTo(rows, wide),
      length: columns,
      stride: depth,
      link: link(halfX, depth),
      ...toRim(halfX, dy),
    },
    y: {
      ...lanes,
      starts: upTo(columns, depth),
      length: rows,
      stride: wide,
      link: link(halfY, wide),
      ...toRim(halfY, dx),
    },
    through: { starts: upTo(rows, wide), length: depth, stride: 1, lanes: columns, laneStep: depth },
    levelOf: slices.map(({ level }) => level),
  };
}

function figuresOf(material: LevelMaterial): { k: number; rho: number; cp: number; kInPlane: number } {
  const found = 'material' in material ? materialNamed(material.material) : material;
  if (!found) throw new Refusal(wrong('', `There is no material "${(material as { material: string }).material}".`));
  return { k: found.k, rho: found.rho, cp: found.cp, kInPlane: found.kInPlane ?? found.k };
}

/** Through the thickness: the source where it touches, else what the face meets after it; the far face behind. */
function throughOf(request: FieldRequest, grid: Grid, source: HeatSource | null): Direction {
  const { after, far, heated } = request;
  const { depth, halfThrough, area_m2 } = grid;
  const meeting = meetingOf(source ?? { kind: 'none' }, after);
  const touches = (cell: number) => source !== null && (heated === undefined || heated[Math.floor(cell / depth)] === 1);
  const faceOf = (cell: number) => (touches(cell) && meeting.kind === 'steady' ? meeting.face : after);
  const packAt = (cell: number) => touches(cell) && meeting.kind === 'pack';
  const transfer = (h: number, cell: number) => (h === 0 ? 0 : 1 / (1 / (h * area_m2) + halfThrough[cell]!));
  return {
    ...grid.through,
    link: (cell) => 1 / (halfThrough[cell]! + halfThrough[cell + 1]!),
    low: (cell) => transfer(packAt(cell) && meeting.kind === 'pack' ? meeting.contact : faceOf(cell).h_W_m2K, cell),
    high: (cell) => transfer(far.h_W_m2K, cell),
    low_C: (cell) => (packAt(cell) && source?.kind === 'pack' ? source.temp_C : faceOf(cell).temp_C),
    high_C: () => far.temp_C,
    pack: (cell) => (packAt(cell) && meeting.kind === 'pack' ? meeting.capacity * area_m2 : 0),
  };
}

function frameOf({ columns, rows, watch }: FieldRequest, { depth, levelOf }: Grid, temps: Float64Array): Float32Array {
  const inside = levelOf.flatMap((level, slice) => (level === watch ? [slice] : []));
  const [a, b] = [inside[Math.floor((inside.length - 1) / 2)]!, inside[Math.ceil((inside.length - 1) / 2)]!];
  return Float32Array.from(
    { length: columns * rows },
    (_, place) => (temps[place * depth + a]! + temps[place * depth + b]!) / 2,
  );
}
