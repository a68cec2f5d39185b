import { describe, expect, it } from 'vitest';
import { tern5 } from '../../../test/maps.ts';
import { addressOf, partOf, targetLine, targetsIn, thingsFor, withAsked } from './job-targets.ts';

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

  it('may be a plug that is reached, or all of it but what is kept', () => {
    const map = tern5();
    const kept = [{ full: true, keep: ['cell', 'display'] }] as const;
    expect(targetsIn(addressOf('tern-5', kept))).toEqual(kept);
    expect(targetLine(map, kept[0])).toBe('Take it all apart but Battery, Display, and back');
    expect(targetLine(map, { reach: 'touch-plug' })).toContain('press connector');
    expect(thingsFor(map, 'reach').map(({ id }) => id)).toEqual(expect.arrayContaining(['touch-plug', 'front-seal']));
    expect(thingsFor(map, 'reach').map(({ id }) => id)).not.toContain('pad-contact');
    expect(thingsFor(map, 'part')).toHaveLength(map.parts.length);
  });

  it('names a part once', () => {
    expect(withAsked([{ replace: 'display' }], 'out', 'display')).toEqual([{ remove: 'display' }]);
    expect(withAsked([{ full: true }], 'part', 'cell')).toEqual([{ replace: 'cell' }]);
    expect([partOf({ reach: 'port' }), partOf({ full: true }), partOf(undefined)]).toEqual(['port', null, null]);
  });
});
