import { describe, expect, it } from 'vitest';
import { about } from './format.ts';

describe('how long something is about to take', () => {
  it('is told between two round figures, never as a false minute', () => {
    expect(about(22 * 60, 28 * 60)).toBe('about 20 to 30 min');
    expect(about(61 * 60, 100 * 60)).toBe('about 1 h to 1 h 40');
    expect(about(95, 260)).toBe('about 1 to 5 min');
    expect(about(10, 50)).toBe('about a minute');
    expect(about(20 * 60, 20 * 60)).toBe('about 20 min');
    expect(about(50 * 60, 66 * 60)).toBe('about 50 min to 1 h 10');
    expect(about(4.6 * 60, 13 * 60)).toBe('about 4 to 15 min');
    expect(about(0, 0)).toBe('nothing');
  });
});
