import { describe, expect, it } from 'vitest';
import { tern5 } from '../../../test/maps.ts';
import { belowRim, fitRim, type RimKind, rimPlaces, rimRequest } from './index.ts';

const display = () => tern5().parts.find(({ id }) => id === 'display')!;
const places = rimPlaces(display());
const middle = { x: 35.5, y: 74 };

/** The same scatter every time (a linear congruence), within about the measure's own. */
function scatter(seed: number) {
  let state = seed;
  return () => {
    state = (state * 1103515245 + 12345) % 2147483648;
    return 0.03 * (state / 1073741824 - 1);
  };
}
const measured = (height: (x: number, y: number) => number, seed = 1) => {
  const noise = scatter(seed);
  return places.map(({ x, y }) => ({ x, y, step_mm: height(x - middle.x, y - middle.y) + noise() }));
};

describe('the steps round a rim', () => {
  const shapes: [RimKind, (x: number, y: number) => number][] = [
    ['flush', () => 0.02],
    ['even', () => 0.25],
    ['tilt', (x) => 0.2 + 0.006 * x],
    ['tilt', (x, y) => 0.1 + 0.003 * x - 0.004 * y],
    ['bend', (_, y) => 0.00008 * y * y],
    ['bend', (x) => 0.0004 * x * x],
    ['high-spot', (x, y) => 0.5 * Math.exp(-((x - 34.5) ** 2 + y ** 2) / 450)],
    ['high-spot', (x, y) => 0.4 * Math.exp(-((x + 34.5) ** 2 + (y + 73) ** 2) / 450)],
  ];
  it.each(shapes)('that are made as %s are found to be that, whatever the scatter', (kind, height) => {
    for (let seed = 1; seed <= 20; seed++) {
      expect(fitRim({ points: measured(height, seed) }).kind, `seed ${seed}`).toBe(kind);
    }
  });

  it('are highest where they are, less what a rim has by design', () => {
    const spot = (x: number, y: number) => 0.2 + 0.5 * Math.exp(-((x - 34.5) ** 2 + y ** 2) / 450);
    const { most_mm, at, kind, likely } = fitRim({ points: measured(spot), design_mm: 0.2 });
    expect(kind).toBe('high-spot');
    expect(at).toEqual(places[3]);
    expect(most_mm).toBeCloseTo(0.5, 1);
    expect(Object.values(likely).reduce((a, b) => a + b)).toBeCloseTo(1, 9);
  });

  it('at three places tell a tilt at most, and fewer are refused in words', () => {
    const three = measured((x) => 0.3 + 0.01 * x).slice(0, 3);
    expect(['even', 'tilt', 'high-spot']).toContain(fitRim({ points: three }).kind);
    const refused = rimRequest.validate({ points: three.slice(0, 2) }).error?.message;
    expect(refused).toContain('three places');
    expect(rimRequest.validate({ points: [{ x: 1, y: 1, step_mm: Number.NaN }] }).error).toBeDefined();
  });
});

describe('what lies below a rim', () => {
  it('is the nearest clip, flex or screw, each once, and nothing from the other side of the device', () => {
    const map = tern5();
    const below = places.flatMap((at) => belowRim(map, 'display', at, 'front'));
    expect(below.length).toBeGreaterThan(0);
    expect(below.every(({ away_mm }) => away_mm <= 18)).toBe(true);
    const ids = belowRim(map, 'display', places[5]!, 'front').map(({ kind, id }) => `${kind} ${id}`);
    expect(new Set(ids).size).toBe(ids.length);
    expect(ids).toContain('screw edge-screws');
  });
});
