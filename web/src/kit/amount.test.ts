import { describe, expect, it } from 'vitest';
import { decimal } from '../app/format.ts';
import { amount } from './amount.ts';

describe('numbers as people type them', () => {
  it('have a comma or a point, and nothing else', () => {
    expect([decimal('8,4'), decimal(' 8.4 '), decimal('-3'), decimal('0')]).toEqual([8.4, 8.4, -3, 0]);
    expect(['', '8mm', '1.2.3', '1e9', 'NaN'].map(decimal)).toEqual([null, null, null, null, null]);
  });

  it('are amounts in pieces, drops and lengths', () => {
    expect([amount(1, 'piece'), amount(420, 'mm'), amount(9400, 'mm'), amount(6, 'drop')]).toEqual([
      '1 piece',
      '420 mm',
      '9.4 m',
      '6 drops',
    ]);
  });
});
