import { describe, expect, it } from 'vitest';
import { tern5 } from '../../../test/maps.ts';
import { worthTrying } from './worth-trying.ts';

const map = tern5();

describe('a trial that pays', () => {
  it('is offered at its own step only, with its functions by name', () => {
    const trials = [{ before: 'fit:connector-lid', functions: ['picture', 'gone'], seconds: 60, spares_s: 120 }];
    const where = { trials, expected_s: 60, asPlanned_s: 180 };
    const at = (id: string) => worthTrying(map, where, { id } as never);
    expect(at('fit:connector-lid')).toBe(
      'Worth trying here: Picture, gone. Takes 60 s, and is likely to spare 2 min more than that',
    );
    expect(at('close:display')).toBeNull();
    expect(worthTrying(map, null, { id: 'fit:connector-lid' } as never)).toBeNull();
  });
});
