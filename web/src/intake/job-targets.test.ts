import { describe, expect, it } from 'vitest';
import { addressOf, partOf, targetsIn, withAsked } from './job-targets.ts';

describe('what a repair is taken in for', () => {
  it('stands in the address, and is read from it', () => {
    const targets = [{ replace: 'display' }, { remove: 'cell' }, { reach: 'port' }] as const;
    const search = addressOf('tern-5', targets);
    expect(search.toString()).toBe('map=tern-5&part=display&out=cell&reach=port');
    expect(targetsIn(search)).toEqual(targets);
    expect(targetsIn(addressOf('tern-5', [{ full: true }]))).toEqual([{ full: true }]);
    expect(targetsIn(new URLSearchParams('map=tern-5'))).toEqual([]);
    expect(targetsIn(new URLSearchParams('map=tern-5&part=display&more=1'))).toEqual([{ replace: 'display' }]);
  });

  it('names a part once', () => {
    expect(withAsked([{ replace: 'display' }], 'out', 'display')).toEqual([{ remove: 'display' }]);
    expect(withAsked([{ full: true }], 'part', 'cell')).toEqual([{ replace: 'cell' }]);
    expect([partOf({ reach: 'port' }), partOf({ full: true }), partOf(undefined)]).toEqual(['port', null, null]);
  });
});
