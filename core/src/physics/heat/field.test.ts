import { describe, expect, it } from 'vitest';
import { planeWall } from '../../../test/plane-wall.ts';
import { type FieldRequest, heatField, type HeatRequest, heatThrough } from './index.ts';

const NONE = { h_W_m2K: 0, temp_C: 0 };
const AIR = { h_W_m2K: 12, temp_C: 22 };

const stack = [
  { material: 'display stack', thickness_mm: 1.6 },
  { material: 'acrylic foam tape', thickness_mm: 0.3 },
  { material: 'aluminium alloy', thickness_mm: 1 },
  { material: 'pouch cell', thickness_mm: 4.4 },
];

/** A phone of 70 × 140 mm, the same everywhere, on a plate. */
function phone(more: Partial<FieldRequest> = {}): FieldRequest {
  return {
    width_mm: 70,
    height_mm: 140,
    columns: 20,
    rows: 40,
    levels: stack.map(({ thickness_mm }, level) => ({ thickness_mm, cells: level === 0 || level === 3 ? 4 : 2 })),
    regions: [stack.map(({ material }) => ({ material }))],
    regionOf: new Uint8Array(800),
    source: { kind: 'plate', temp_C: 70, contact_W_m2K: 300 },
    after: AIR,
    far: { h_W_m2K: 8, temp_C: 22 },
    initial_C: 22,
    heat_s: 300,
    total_s: 600,
    step_s: 2,
    watch: 1,
    every: 25,
    ...more,
  };
}

function alongOneLine(request: FieldRequest, total_s = request.total_s): HeatRequest {
  const { source, after, far, initial_C, heat_s } = request;
  const probes = [{ id: 'bond', layer: 1, fraction: 0.5 }];
  return { layers: stack, source, after, far, initial_C, heat_s, total_s, probes };
}

const within = (request: FieldRequest, time: number, column: number, row: number) => {
  const { times_s, frames } = heatField(request);
  return frames[times_s.findIndex((each) => Math.abs(each - time) < 1e-6)]![row * request.columns + column]!;
};

function lineAt(request: HeatRequest, time: number): number {
  const { times_s, probes } = heatThrough(request);
  const right = times_s.findIndex((each) => each >= time);
  const [t, v] = [times_s, probes['bond']!];
  return v[right - 1]! + ((time - t[right - 1]!) / (t[right]! - t[right - 1]!)) * (v[right]! - v[right - 1]!);
}

describe('a field in plan', () => {
  it('of a bar is the product of two plane walls (Incropera & DeWitt, ch. 5)', () => {
    const [width, height] = [0.08, 0.12];
    const { k, rho, cp } = { k: 20, rho: 2000, cp: 1000 };
    const h = 400;
    const request = phone({
      width_mm: width * 1000,
      height_mm: height * 1000,
      columns: 40,
      rows: 60,
      levels: [{ thickness_mm: 5 }],
      regions: [[{ k, rho, cp }]],
      regionOf: new Uint8Array(2400),
      source: { kind: 'none' },
      after: NONE,
      far: NONE,
      rim: { h_W_m2K: h, temp_C: 0 },
      initial_C: 100,
      total_s: 200,
      watch: 0,
    });
    const place = (column: number, count: number) => (2 * (column + 0.5)) / count - 1;
    for (const time of [50, 100, 200]) {
      for (const [column, row] of [
        [20, 30],
        [0, 0],
        [5, 50],
      ] as const) {
        const wall = (half: number, x: number) => planeWall((h * half) / k, (k * time) / (rho * cp * half * half), x);
        const exact = 100 * wall(width / 2, place(column, 40)) * wall(height / 2, place(row, 60));
        expect(Math.abs(within(request, time, column, row) - exact)).toBeLessThan(0.3);
      }
    }
  });

  it('far from edges is what one line through it is, within 0.3 °C, for every source', () => {
    const sources = [
      { kind: 'plate', temp_C: 70, contact_W_m2K: 300 },
      { kind: 'air', temp_C: 90, h_W_m2K: 60 },
      { kind: 'pack', temp_C: 75, capacity_J_m2K: 8000, contact_W_m2K: 250 },
      { kind: 'none' },
    ] as const;
    for (const source of sources) {
      const request = phone({ source, columns: 6, rows: 8, regionOf: new Uint8Array(48), step_s: 4, every: 5 });
      for (const time of [40, 100, 300, 320, 400, 600]) {
        expect(Math.abs(within(request, time, 3, 4) - lineAt(alongOneLine(request), time))).toBeLessThan(0.3);
      }
    }
  });

  it('keeps its heat within 0.1 %, with a rim, two regions and half of it heated', () => {
    const frame = stack.map(({ material }, level) => ({ material: level === 3 ? 'aluminium alloy' : material }));
    const request = phone({
      regions: [stack.map(({ material }) => ({ material })), frame],
      regionOf: Uint8Array.from({ length: 800 }, (_, place) => Number(place % 20 < 3 || place % 20 > 16)),
      heated: Uint8Array.from({ length: 800 }, (_, place) => Number(place < 400)),
      rim: AIR,
    });
    const { frames, energyError } = heatField(request);
    expect(energyError).toBeLessThan(1e-3);
    const warm = frames[6]!;
    // the heated half is warm, the other hardly; over the frame it is cooler than over the cell
    expect(warm[10 * 20 + 10]! - warm[35 * 20 + 10]!).toBeGreaterThan(15);
    expect(Math.max(...warm)).toBeLessThan(70.01);
  });

  it('takes the same step for aluminium as for air; five times as long a one differs by half a degree at a sharp edge', () => {
    const coarse = phone({
      step_s: 2.5,
      every: 20,
      columns: 4,
      rows: 20,
      regionOf: new Uint8Array(80),
      heated: Uint8Array.from({ length: 80 }, (_, place) => Number(place < 40)),
    });
    const fine = { ...coarse, step_s: 0.5, every: 100 };
    for (const time of [100, 300, 600]) {
      expect(Math.abs(within(coarse, time, 2, 9) - within(fine, time, 2, 9))).toBeLessThan(0.5);
      expect(Math.abs(within(coarse, time, 2, 4) - within(fine, time, 2, 4))).toBeLessThan(0.1);
    }
  });

  it('tells how far it has come', () => {
    const told: number[] = [];
    heatField(phone({ columns: 4, rows: 4, regionOf: new Uint8Array(16) }), (share) => told.push(share));
    expect(told.at(-1)).toBe(1);
    expect(told).toEqual(told.toSorted((a, b) => a - b));
  });

  it('refuses a material that there is none of', () => {
    expect(() => heatField(phone({ regions: [stack.map(() => ({ material: 'cheese' }))] }))).toThrow('cheese');
  });
});
