import { describe, expect, it } from 'vitest';
import { coefficient, eigenvalue, planeWall } from '../../../test/plane-wall.ts';
import { readAt } from '../../../test/read-at.ts';
import { type HeatRequest, materialNamed } from './index.ts';

/** Within this of the exact solution (docs/http.md, compute/heat). */
const NEAR_C = 0.2;
const INSULATED = { h_W_m2K: 0, temp_C: 20 };

/** erf by its series, and by its continued fraction where that converges slowly (Abramowitz & Stegun, 7.1.5, 7.1.14). */
function erf(x: number): number {
  if (x < 0) return -erf(-x);
  if (x > 3) {
    let fraction = 0;
    for (let n = 60; n > 0; n--) fraction = n / 2 / (x + fraction);
    return 1 - Math.exp(-x * x) / (Math.sqrt(Math.PI) * (x + fraction));
  }
  let term = x;
  let sum = x;
  for (let n = 1; n < 80; n++) {
    term *= (-x * x) / n;
    sum += term / (2 * n + 1);
  }
  return (2 / Math.sqrt(Math.PI)) * sum;
}

/** exp(x²)·erfc(x), without overflow. */
function scaledErfc(x: number): number {
  if (x < 3) return Math.exp(x * x) * (1 - erf(x));
  let fraction = 0;
  for (let n = 60; n > 0; n--) fraction = n / 2 / (x + fraction);
  return 1 / (Math.sqrt(Math.PI) * (x + fraction));
}

/** One thick layer, of which only the first part ever gets warm. */
function halfSpace(
  more: Partial<HeatRequest>,
  depth_m: number,
  thick_m: number,
  soil = { k: 0.52, rho: 2050, cp: 1840 },
) {
  return {
    layers: [{ ...soil, thickness_mm: thick_m * 1000 }],
    source: { kind: 'plate', temp_C: -15, contact_W_m2K: 1e9 },
    after: INSULATED,
    far: INSULATED,
    initial_C: 20,
    heat_s: 1e8,
    total_s: 60 * 86_400,
    probes: [{ id: 'depth', layer: 0, fraction: depth_m / thick_m }],
    ...more,
  } as HeatRequest;
}

describe('conduction, against closed forms', () => {
  it('half space, surface held: erf (Carslaw & Jaeger, ch. 2); erf(0.5) = 0.5205', () => {
    expect(erf(0.5)).toBeCloseTo(0.5205, 4);
    const alpha = 0.52 / (2050 * 1840);
    for (const depth of [0.05, 0.2, 0.68, 1.5]) {
      for (const days of [1, 10, 60]) {
        const exact = -15 + 35 * erf(depth / (2 * Math.sqrt(alpha * days * 86_400)));
        expect(Math.abs(readAt(halfSpace({}, depth, 8), 'depth', days * 86_400) - exact)).toBeLessThan(NEAR_C);
      }
    }
  });

  it('soil at 20 °C, −15 °C for 60 days: 0 °C at 0.68 m (Incropera & DeWitt, ch. 5 worked example, from memory)', () => {
    expect(Math.abs(readAt(halfSpace({}, 0.68, 8), 'depth', 60 * 86_400))).toBeLessThan(0.3);
  });

  it('half space with convection (Incropera & DeWitt, ch. 5)', () => {
    const material = { k: 1.4, rho: 2500, cp: 750 };
    const alpha = 1.4 / (2500 * 750);
    const h = 60;
    const request = halfSpace({ source: { kind: 'air', temp_C: 80, h_W_m2K: h }, total_s: 900 }, 0.004, 0.3, material);
    for (const time of [20, 100, 400, 900]) {
      const x = 0.004;
      const root = Math.sqrt(alpha * time);
      const [a, b] = [x / (2 * root), (h * root) / 1.4];
      // exp(hx/k + h²αt/k²)·erfc(a + b) = exp(−a²)·scaledErfc(a + b)
      const share = 1 - erf(a) - Math.exp(-a * a) * scaledErfc(a + b);
      expect(Math.abs(readAt(request, 'depth', time) - (20 + 60 * share))).toBeLessThan(NEAR_C);
    }
  });

  it('plane wall: its series, whose first terms are those of table 5.1 (Incropera & DeWitt, ch. 5)', () => {
    const L = 0.01;
    const { k, rho, cp } = { k: 1, rho: 1000, cp: 1000 };
    for (const [Bi, zeta, C] of [
      [0.1, 0.3111, 1.0161],
      [1, 0.8603, 1.1191],
      [10, 1.4289, 1.262],
    ] as const) {
      expect(eigenvalue(Bi, 0)).toBeCloseTo(zeta, 4);
      expect(coefficient(eigenvalue(Bi, 0))).toBeCloseTo(C, 4);
      const face = { h_W_m2K: (Bi * k) / L, temp_C: 0 };
      const request: HeatRequest = {
        layers: [{ k, rho, cp, thickness_mm: 2 * L * 1000 }],
        source: { kind: 'none' },
        after: face,
        far: face,
        initial_C: 100,
        heat_s: 0,
        total_s: 400,
        probes: [
          { id: 'middle', layer: 0, fraction: 0.5 },
          { id: 'face', layer: 0, fraction: 1 },
        ],
      };
      for (const time of [2, 10, 25, 60, 150]) {
        const Fo = (time * k) / (rho * cp * L * L);
        const exact = (x: number) => 100 * planeWall(Bi, Fo, x);
        expect(Math.abs(readAt(request, 'middle', time) - exact(0))).toBeLessThan(NEAR_C);
        expect(Math.abs(readAt(request, 'face', time) - exact(1))).toBeLessThan(NEAR_C);
      }
    }
  });

  it('steady composite wall: q = ΔT / Σ(1/h, L/k) (Incropera & DeWitt, ch. 3)', () => {
    const layers = [
      { material: 'soda-lime glass', thickness_mm: 0.7 },
      { material: 'acrylic foam tape', thickness_mm: 0.3 },
      { material: 'aluminium alloy', thickness_mm: 1.2 },
    ];
    const request: HeatRequest = {
      layers,
      source: { kind: 'plate', temp_C: 70, contact_W_m2K: 400 },
      after: INSULATED,
      far: { h_W_m2K: 10, temp_C: 22 },
      initial_C: 22,
      heat_s: 1e5,
      total_s: 1e5,
      probes: layers.flatMap((_, layer) => [0, 1].map((fraction) => ({ id: `${layer} ${fraction}`, layer, fraction }))),
    };
    const resistances = layers.map(({ material, thickness_mm }) => thickness_mm / 1000 / materialNamed(material)!.k);
    const q = 48 / (1 / 400 + resistances.reduce((sum, each) => sum + each, 0) + 1 / 10);
    let temp = 70 - q / 400;
    layers.forEach((_, layer) => {
      expect(readAt(request, `${layer} 0`, 1e5)).toBeCloseTo(temp, 3);
      temp -= q * resistances[layer]!;
      expect(readAt(request, `${layer} 1`, 1e5)).toBeCloseTo(temp, 3);
    });
  });

  it('a lump with a pack: two bodies that share their heat, in closed form', () => {
    // so thin and well conducting that it has one temperature: C₁ = 2 700, C₂ = 5 000 J/m²K, 200 W/m²K between them
    const request: HeatRequest = {
      layers: [{ k: 1e4, rho: 3000, cp: 900, thickness_mm: 1 }],
      source: { kind: 'pack', temp_C: 60, capacity_J_m2K: 5000, contact_W_m2K: 200 },
      after: INSULATED,
      far: INSULATED,
      initial_C: 20,
      heat_s: 200,
      total_s: 400,
      probes: [{ id: 'lump', layer: 0, fraction: 0.5 }],
    };
    const end = (60 * 5000 + 20 * 2700) / 7700;
    const rate = 200 * (1 / 2700 + 1 / 5000);
    for (const time of [2, 10, 40, 200]) {
      const exact = end + (20 - end) * Math.exp(-rate * time);
      expect(Math.abs(readAt(request, 'lump', time) - exact)).toBeLessThan(0.02);
    }
    // taken away, and insulated: it stays as warm as it was
    expect(readAt(request, 'lump', 400)).toBeCloseTo(readAt(request, 'lump', 200), 4);
  });
});
