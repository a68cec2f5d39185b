import { describe, expect, it } from 'vitest';
import { tern5 } from '../../../test/maps.ts';
import type { ScrewJoint } from '../../model/device-map/index.ts';
import type { BenchEvent } from '../../job/events/index.ts';
import { ownTimes, samplesOf, type TimeSample } from './index.ts';

const START = Date.UTC(2026, 10, 24, 8);
const event = (type: string, at_s: number, data: object = {}) =>
  ({ id: `${type}-${at_s}`, type, at: new Date(START + at_s * 1000).toISOString(), by: 'Ines', data }) as BenchEvent;
const did = (at_s: number, ...steps: object[]) => event('did', at_s, { steps });
const plug = { id: 'release:display-plug', kind: 'release', joint: 'display-plug' };
const lid = { id: 'lift:connector-lid', kind: 'lift', part: 'connector-lid' };
const samples = (...events: BenchEvent[]) => samplesOf(tern5(), events);

describe('what a repair tells of times', () => {
  it('is from the press before to a step of its own, for each screw where it has several', () => {
    const screws = tern5().joints.find(({ id }) => id === 'connector-lid-screws') as ScrewJoint;
    const took = samples(
      event('prepared', 0),
      did(8, plug),
      did(8 + 3 * screws.points.length, { id: 'x', kind: 'release', joint: 'connector-lid-screws' }),
    );
    expect(took).toEqual([
      { kind: 'release', type: 'connector', style: 'press', seconds: 8, guess: 5 },
      { kind: 'release', type: 'screw', each: true, seconds: 3, guess: expect.any(Number) },
    ]);
  });

  it('leaves out pauses, what is grouped, waited for, undone, told in between, or was a talk', () => {
    expect(samples(did(5, plug))).toEqual([]);
    expect(samples(did(0, lid), event('pause', 5), event('resume', 900), did(906, plug))).toMatchObject([
      { seconds: 6 },
    ]);
    expect(samples(did(0, lid), did(9, plug, lid))).toEqual([]);
    expect(samples(did(0, lid), event('timer', 2), did(9, plug))).toEqual([]);
    expect(samples(did(0, lid), did(9, plug), event('undo', 12, { event: 'did-9' }))).toEqual([]);
    expect(samples(did(0, lid), event('note', 4), did(9, plug))).toEqual([]);
    expect(samples(did(0, lid), did(900, plug))).toEqual([]);
    expect(samples(did(0, lid), did(9, { id: 'test:after', kind: 'procedure', name: 'test' }))).toEqual([]);
  });
});

describe('a workshop’s own times', () => {
  const lifts = (...seconds: number[]) =>
    seconds.map((each): TimeSample => ({ kind: 'lift', seconds: each, guess: 4 }));

  it('are drawn to the guess while there are few of them, and say from how many', () => {
    const [one] = ownTimes(lifts(8));
    const [many] = ownTimes(lifts(...Array<number>(200).fill(8)));
    // 4 × 2^(1/6) and 4 × 2^(200/205)
    expect(one).toMatchObject({ kind: 'lift', likely: 4.5, from: 1 });
    expect(many).toMatchObject({ likely: 7.9, low: 7.8, from: 200 });
    expect(many!.high).toBeLessThan(one!.high + 1);
    for (const { low, likely, high } of [one!, many!]) expect(low <= likely && likely <= high).toBe(true);
  });

  it('are quantiles: a tenth of them takes less than low, a tenth more than high', () => {
    const [time] = ownTimes(lifts(...Array.from({ length: 1000 }, (_, at) => 4 + at / 250)));
    expect(time!.low).toBeCloseTo(4.4, 0);
    expect(time!.likely).toBeCloseTo(6, 0);
    expect(time!.high).toBeCloseTo(7.6, 0);
  });

  it('leave out what lies far from all others, and keep kinds, types and styles apart', () => {
    expect(ownTimes(lifts(4, 4, 4, 4, 29))[0]).toMatchObject({ from: 4, likely: 4 });
    const plugs = samples(did(0, lid), did(8, plug), did(12, lid));
    expect(ownTimes(plugs).map(({ kind, style }) => [kind, style])).toEqual([
      ['lift', undefined],
      ['release', 'press'],
    ]);
    expect(ownTimes([])).toEqual([]);
  });
});
