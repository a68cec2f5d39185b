import { describe, expect, it } from 'vitest';
import { bondOf, shearwater11, tern5 } from '../../../test/maps.ts';
import type { DeviceMap } from '../../model/device-map/index.ts';
import { cutTimesOf, fieldOfDevice, foresee, heatField, settingFor, stackOfBond, type Touch } from './index.ts';

function warming(map: DeviceMap, joint: string, touch: Touch = 'all', heat_s = 80) {
  const bond = bondOf(map, joint);
  return {
    map,
    bond,
    stack: stackOfBond(map, bond),
    setting: settingFor(bond, null),
    touch,
    heat_s,
    total_s: heat_s + 60,
  };
}

describe('a device in plan', () => {
  it('is bond, cell, board and air where the map has them', () => {
    const { regionOf, columns, rows, regions } = fieldOfDevice(warming(shearwater11(), 'front-bond'));
    expect([columns, rows]).toEqual([60, 120]);
    const at = (x: number, y: number) =>
      regions[regionOf[Math.floor((y / 246) * rows) * columns + Math.floor((x / 170) * columns)]!]!;
    const k = (x: number, y: number, level: number) => (at(x, y)[level] as { k: number }).k;
    // in the seam: foam at the bond's level, everywhere else air
    expect(k(168, 60, 2)).toBe(0.09);
    expect(k(30, 120, 2)).toBe(0.026);
    // beneath: a cell, the main board, the rear frame's metal over nothing
    expect(k(30, 120, 5)).toBe(0.8);
    expect(k(85, 60, 5)).toBe(0.2);
    expect(at(30, 120)[5]).toMatchObject({ kInPlane: 25 });
    expect(k(100, 20, 5)).toBe(0.026);
  });

  it('is what one line through it is, far from its rim, and cooler at the rim', () => {
    const given = warming(tern5(), 'front-seal');
    const request = fieldOfDevice(given);
    const field = heatField({ ...request, watch: 0 });
    const frame = field.frames[field.times_s.findIndex((time) => time >= 80)]!;
    const line = foresee({ ...given, soften_C: 55, heat_s: 80 });
    const glass = line.bands.find(({ id }) => id === 'face')!;
    const index = line.times_s.findIndex((time) => time >= 80);
    // over the cell the bond's level is air, so the glass is a little warmer than over the bond itself
    const middle = frame[60 * request.columns + 20]!;
    expect(Math.abs(middle - glass.likely[index]!)).toBeLessThan(3);
    expect(field.energyError).toBeLessThan(1e-3);
  });

  it('goes on from what was done before', () => {
    const given = warming(tern5(), 'front-seal', 'all', 80);
    const past = [
      { setting: given.setting, seconds: 80 },
      { setting: null, seconds: 40 },
    ];
    const whole = heatField(fieldOfDevice({ ...given, total_s: 120 }));
    const again = heatField(fieldOfDevice({ ...given, total_s: 80, past }));
    const [end, begin] = [whole.frames.at(-1)!, again.frames[0]!];
    expect(Math.max(...end.map((temp, place) => Math.abs(temp - begin[place]!)))).toBeLessThan(0.1);
    expect(again.energyError).toBeLessThan(1e-3);
  });

  it('was warmed before by the source of then, whatever is on it now', () => {
    const { setting, ...given } = warming(tern5(), 'front-seal', 'all', 80);
    const after = (first: typeof setting) =>
      heatField(fieldOfDevice({ ...given, setting, total_s: 80, past: [{ setting: first, seconds: 80 }] })).frames[0]!;
    const hottest = (frame: Float32Array) => frame.reduce((most, each) => Math.max(most, each));
    const mild = hottest(after({ ...setting, temp_C: 45 }));
    expect(mild).toBeLessThan(45);
    expect(hottest(after(setting)) - mild).toBeGreaterThan(10);
  });

  it('is hot only where the source touches', () => {
    const request = fieldOfDevice(warming(shearwater11(), 'front-bond', 'lower'));
    const field = heatField(request);
    const frame = field.frames[field.times_s.findIndex((time) => time >= 80)]!;
    const row = (y: number) => frame[Math.floor((y / 246) * request.rows) * request.columns + 1]!;
    expect(row(200) - row(40)).toBeGreaterThan(20);
    // in-plane conduction smears the border over some millimetres
    expect(row(123)).toBeGreaterThan(row(40) + 3);
    expect(row(123)).toBeLessThan(row(200) - 3);
  });

  it('tells how long each edge stays soft: none where it was not heated', () => {
    const given = warming(shearwater11(), 'front-bond', 'lower');
    const request = fieldOfDevice(given);
    const { softFor_s: soft, dragFor_s } = cutTimesOf(given, { soften_C: 50, drag_C: 35 }, request, heatField(request));
    // an open seam is cut on for longer than it is soft
    const longer = Object.keys(soft).filter((id) => dragFor_s[id]! > soft[id]!);
    expect(longer.length).toBeGreaterThan(0);
    for (const id of Object.keys(soft)) expect(dragFor_s[id], id).toBeGreaterThanOrEqual(soft[id]!);
    expect(dragFor_s['top']).toBe(0);
    expect(soft['bottom']!).toBeGreaterThan(20);
    expect(soft['top']).toBe(0);
    expect(Object.keys(soft)).toEqual(given.bond.segments!.map(({ id }) => id));
  });

  it('leaves the edges of another zone stiff where one zone is heated', () => {
    const given = { ...warming(shearwater11(), 'front-bond', 'all', 200), zone: 'lower' };
    const request = fieldOfDevice(given);
    const { softFor_s: soft } = cutTimesOf(given, { soften_C: 45, drag_C: 25 }, request, heatField(request));
    for (const { id, zone } of given.bond.segments!) {
      if (zone === 'lower') expect(soft[id], id).toBeGreaterThan(20);
      else expect(soft[id], id).toBe(0);
    }
  });
});
