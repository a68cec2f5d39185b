import { describe, expect, it } from 'vitest';
import { bondOf, tern5 } from '../../../test/maps.ts';
import {
  fitted,
  fitTransfer,
  foresee,
  heatThrough,
  type Reading,
  readingProblem,
  stackOfBond,
  usualSetting,
} from './index.ts';
import type { Warming } from './foresee.ts';

/** erfc by its continued series and fraction (Abramowitz & Stegun 7.1.5 and 7.1.14, from memory). */
function erfc(x: number): number {
  if (x < 2.5) {
    let [term, sum] = [x, x];
    for (let n = 1; n < 80; n++) {
      term *= (-x * x) / n;
      sum += term / (2 * n + 1);
    }
    return 1 - (2 / Math.sqrt(Math.PI)) * sum;
  }
  let fraction = 0;
  for (let n = 60; n > 0; n--) fraction = n / 2 / (x + fraction);
  return Math.exp(-x * x) / Math.sqrt(Math.PI) / (x + fraction);
}

/** Surface of a half space under convection (Incropera & DeWitt, ch. 5): exact. */
function surface_C(h: number, at_s: number): number {
  const { k, rho, cp } = { k: 0.5, rho: 2000, cp: 900 };
  const x = (h * Math.sqrt((k / (rho * cp)) * at_s)) / k;
  return 22 + (70 - 22) * (1 - Math.exp(x * x) * erfc(x));
}

const halfSpace: Warming = {
  stack: { layers: [{ material: 'display stack', thickness: 120 }], bondLayer: 0, watch: [] },
  soften_C: 50,
  setting: usualSetting('plate'),
  heat_s: 600,
};
const every = (step: number, until: number) => Array.from({ length: until / step }, (_, n) => (n + 1) * step);

/** A thermometer's flicker that is the same in every run. */
const flicker = (index: number) => 0.4 * Math.sin(index * 12.9898) + 0.3 * Math.sin(index * 4.1414);

describe('the transfer learned from a thermometer', () => {
  it.each([90, 180, 420])('is that of the exact solution: %s W/m²K (Incropera & DeWitt, ch. 5)', (h) => {
    const readings = every(5, 120).map((at_s): Reading => ({ at_s, temp_C: surface_C(h, at_s), spot: 'face' }));
    const fit = fitTransfer(halfSpace, readings)!;
    expect(fit.transfer.likely / h).toBeGreaterThan(0.985);
    expect(fit.transfer.likely / h).toBeLessThan(1.015);
    expect(fit.residual_C).toBeLessThan(0.15);
  });

  it('holds the true one within its reach when the thermometer flickers, and the reach is narrower than the guess', () => {
    const readings = every(5, 120).map((at_s, index): Reading => ({
      at_s,
      temp_C: surface_C(250, at_s) + flicker(index),
      spot: 'face',
    }));
    const { transfer, residual_C, readings: used } = fitTransfer(halfSpace, readings)!;
    expect(transfer.low).toBeLessThan(250);
    expect(transfer.high).toBeGreaterThan(250);
    expect(used).toBe(24);
    expect(residual_C).toBeGreaterThan(0.1);
    const guess = usualSetting('plate').transfer;
    expect(transfer.high / transfer.low).toBeLessThan((guess.high / guess.low) * 0.6);
  });

  it('narrows with every reading, and says nothing of fewer than three', () => {
    const all = every(5, 120).map((at_s, index): Reading => ({
      at_s,
      temp_C: surface_C(250, at_s) + flicker(index),
      spot: 'face',
    }));
    const reach = (count: number) => {
      const { transfer } = fitTransfer(halfSpace, all.slice(0, count))!;
      return transfer.high / transfer.low;
    };
    expect(fitTransfer(halfSpace, all.slice(0, 2))).toBeNull();
    expect(reach(24)).toBeLessThan(reach(3));
  });

  it('calls itself unsound where nothing explains the readings', () => {
    const steady = every(5, 120).map((at_s): Reading => ({ at_s, temp_C: at_s < 60 ? 25 : 60, spot: 'face' }));
    expect(fitTransfer(halfSpace, steady)!.isSound).toBe(false);
  });

  it('counts what was done before', () => {
    // a minute on the plate, then it is asked about the next one: the exact solution from 60 s on
    const readings = every(5, 60).map((at_s): Reading => ({ at_s, temp_C: surface_C(180, at_s + 60), spot: 'face' }));
    const setting = { ...usualSetting('plate'), transfer: { low: 180, likely: 180, high: 180 } };
    const again = { ...halfSpace, past: [{ setting, seconds: 60 }] };
    const fit = fitTransfer(again, readings)!;
    expect(fit.isSound).toBe(true);
    expect(Math.abs(fit.transfer.likely / 180 - 1)).toBeLessThan(0.03);
    expect(fitTransfer(halfSpace, readings)!.residual_C).toBeGreaterThan(fit.residual_C);
  });

  it('narrows what is foreseen of a bond, and is kept as a source with what was left over', () => {
    const stack = stackOfBond(tern5(), bondOf(tern5(), 'front-seal'));
    const warming: Warming = { stack, soften_C: 55, setting: usualSetting('plate'), heat_s: 300 };
    const truth = heatThrough({
      layers: stack.layers.map(({ material, thickness }) => ({ material, thickness_mm: thickness })),
      source: { kind: 'plate', temp_C: 70, contact_W_m2K: 270 },
      after: { h_W_m2K: 10, temp_C: 22 },
      far: { h_W_m2K: 8, temp_C: 22 },
      initial_C: 22,
      heat_s: 120,
      total_s: 120,
      probes: [{ id: 'face', layer: 0, fraction: 0 }],
    });
    const readings = truth.times_s.flatMap((at_s, index): Reading[] =>
      at_s > 1 && index % 8 === 0
        ? [{ at_s, temp_C: truth.probes['face']![index]! + flicker(index), spot: 'face' }]
        : [],
    );
    const setting = fitted(warming.setting, fitTransfer(warming, readings)!);
    expect(setting.origin).toMatch(/^measured, \d+ readings, 0\.\d °C left over$/);
    const wide = foresee(warming).ready;
    const narrow = foresee({ ...warming, setting }).ready;
    expect(narrow.late! - narrow.early!).toBeLessThan((wide.late! - wide.early!) / 2);
  });
});

describe('a reading that can not be right', () => {
  const plate = usualSetting('plate');
  const before: Reading[] = [{ at_s: 60, temp_C: 45, spot: 'face' }];
  const said = (at_s: number, temp_C: number, spot: Reading['spot'] = 'face') =>
    readingProblem({ at_s, temp_C, spot }, before, plate, 22, 'C')?.message ?? null;
  it('is refused with what is wrong about it', () => {
    expect(said(70, 48)).toBeNull();
    expect(said(60, 48)).toContain('the last one was');
    expect(said(40, 48)).toContain('the last one was');
    // another place has its own order
    expect(said(40, 40, 'far')).toBeNull();
    expect(said(70, 250)).toContain('hotter than the source');
    expect(said(70, -40)).toContain('colder than the room');
    expect(said(60.5, 68)).toContain('faster than anything warms');
    const inFahrenheit = readingProblem({ at_s: 70, temp_C: 250, spot: 'face' }, before, plate, 22, 'F')!;
    expect(inFahrenheit.message).toMatch(/^482 °F is hotter than the source at \d+ °F\.$/);
  });
});
