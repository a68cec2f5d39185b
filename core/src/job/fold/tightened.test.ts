import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { gannetWorks } from '../../../test/maps.ts';
import { EVENT_DATA } from '../events/events.ts';
import { leftOpen } from '../rules/left-open.ts';
import { UNKNOWN } from '../state/surroundings.ts';

const closed = () => new TestBench(gannetWorks(), [{ remove: 'camera' }]).prepare().until();
const open = (bench: TestBench) => leftOpen(bench.mechanism, bench.state, UNKNOWN).map(({ what }) => what);
const turned = (peak_Ncm: number, more: object = {}) =>
  ['tightened', { joint: 'clamp-screw', point: 'k1', peak_Ncm, ...more }] as const;

describe('a screw that a driver tightened', () => {
  it('is done again where it stayed low, before the repair is finished', () => {
    const bench = closed().send(...turned(5));
    expect(bench.state.peaks.get('clamp-screw/k1')).toEqual({ peak_Ncm: 5, verdict: 'low' });
    expect(open(bench)).toEqual(['torque:clamp-screw/k1']);
    expect(bench.send('finish', {}).problem).toContain('stayed below its torque');
    expect(bench.send(...turned(10)).send('finish', {}).problem).toBeNull();
  });
  it('may be decided about by name, as a thread that slips is', () => {
    const bench = closed().send(...turned(3, { slipped: true }));
    expect(bench.send('finish', {}).problem).toContain('a thread that slips');
    bench.send('decision', { about: 'left-open', what: 'torque:clamp-screw/k1', text: 'Maren: the other holds' });
    expect(bench.send('finish', {}).problem).toBeNull();
  });
  it('too tight is kept in the record and holds nothing up', () => {
    expect(open(closed().send(...turned(14)))).toEqual([]);
  });
  it('is forgotten once the screw is out, and refused where there is none', () => {
    const bench = new TestBench(gannetWorks(), [{ remove: 'camera' }]).prepare();
    bench
      .send(...turned(5))
      .until('release:clamp-screw')
      .do(bench.ahead()[0]!);
    expect(bench.state.peaks.size).toBe(0);
    expect(bench.send('tightened', { joint: 'clamp-screw', point: 'k9', peak_Ncm: 5 }).problem).toContain('“k9”');
    expect(bench.send('tightened', { joint: 'cell-strap', point: 'k1', peak_Ncm: 5 }).problem).toContain('cell-strap');
    expect(EVENT_DATA.tightened.validate({ joint: 'a', point: 'b', peak_Ncm: -1 }).error).toBeDefined();
  });
});
