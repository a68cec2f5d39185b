import { describe, expect, it } from 'vitest';
import { sample } from '../../../test/maps.ts';
import type { BenchEvent, DoneStep } from '../../job/events/index.ts';
import { timesTaken } from './taken.ts';

const screws: DoneStep = { id: 'release:lid-screws', kind: 'release', joint: 'lid-screws' };
const lift: DoneStep = { id: 'lift:lid', kind: 'lift', part: 'lid' };
const event = (id: string, at_s: number, type: string, data: object = {}) =>
  ({ id, type, at: new Date(at_s * 1000).toISOString(), by: 'Ines', data }) as unknown as BenchEvent;

describe('times taken', () => {
  it('are those from the press before, shared among what one press joins as each is thought to take', () => {
    const taken = timesTaken(sample(), [
      event('a', 0, 'prepared'),
      event('b', 12, 'did', { steps: [screws] }),
      event('c', 36, 'did', { steps: [screws, lift] }),
    ]);
    expect(taken.get('b')).toEqual([12]);
    const [first, second] = taken.get('c')!;
    expect(first! + second!).toBeCloseTo(24, 9);
    // one screw out is thought to take 6 s with its set-up, one part off 4 s (guesses)
    expect(first! / second!).toBeCloseTo(6 / 4, 9);
  });

  it('are not said where nobody knows when hands began', () => {
    const taken = timesTaken(sample(), [
      event('a', 0, 'did', { steps: [screws] }),
      event('b', 5, 'pause'),
      event('c', 90, 'did', { steps: [lift] }),
    ]);
    expect([...taken.keys()]).toEqual([]);
  });
});
