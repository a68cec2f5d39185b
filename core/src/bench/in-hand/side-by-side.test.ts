import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { tern5 } from '../../../test/maps.ts';
import { noPlaceFor, sideBySide } from './index.ts';

/** What is seen at each operation of a plan, as it is gone by. */
function seenAll(bench: TestBench) {
  const ops = bench.ahead();
  return ops.map((op, at) => {
    const seen = sideBySide(bench.mechanism, bench.state, op, ops.slice(at));
    bench.do(op);
    return { op, where: seen && new Map(seen.pieces.map(({ part, at }) => [part, at])) };
  });
}

describe('old and new part side by side', () => {
  it('show each piece where it lies: on the old one, on the mat, on the new one, or come with it', () => {
    const all = seenAll(new TestBench(tern5(), [{ replace: 'display', newIncludes: ['light-sensor'] }]));
    const at = (id: string) => all.find(({ op }) => op.id === id)!.where;
    expect(at('lift:bezel')!.get('bezel')).toBe('old');
    // in the order in which they go over
    const turns = [...at('lift:bezel')!.keys()].filter((id) => id !== 'light-sensor');
    expect(turns).toEqual(all.flatMap(({ op }) => (op.kind === 'fit' && op.stage === 'move' ? [op.part] : [])));
    expect(at('fit:bezel')!.get('bezel')).toBe('mat');
    expect(at('make:bezel-clips')!.get('bezel')).toBe('new');
    expect(at('lift:bezel')!.get('light-sensor')).toBe('came');
    const compared = [...at('compare:display')!.values()];
    expect(compared.length).toBeGreaterThan(2);
    expect(compared.every((each) => each === 'new' || each === 'came' || each === 'renewed')).toBe(true);
    expect(at('fit:display')).toBeNull();
    expect(at('release:front-seal')).toBeNull();
  });

  it('a hole without a counterpart is decided with its reason, and is not made again', () => {
    const bench = new TestBench(tern5(), [{ replace: 'display' }]).until('compare:display');
    const compare = bench.ahead().find(({ id }) => id === 'compare:display')!;
    const { places, lacks } = sideBySide(bench.mechanism, bench.state, compare)!;
    expect(lacks).toEqual([]);
    expect(places).toContain('edge-screws');
    const said = noPlaceFor(bench.state, 'display', 'edge-screws', 'the new rim has no holes');
    expect(said).toMatchObject({ type: 'targets', data: { text: 'the new rim has no holes' } });
    expect(bench.send('targets', said.data as never).problem).toBeNull();
    expect(sideBySide(bench.mechanism, bench.state, compare)).toMatchObject({ lacks: ['edge-screws'] });
    expect(bench.ahead().map(({ id }) => id)).not.toContain('make:edge-screws');
    bench.until();
    expect(bench.send('finish', {}).problem).toBeNull();
  });

  it('is said at the desk where the part was looked at there', () => {
    const bench = new TestBench(tern5(), [{ replace: 'display' }]);
    const part = '11111111-1111-4111-8111-111111111111';
    bench.send('part-arrived', { part, mapPart: 'display', source: 'x', arrived: '2026-11-20', window_days: 30 });
    bench.send('part-looked', { part, condition: 'good', includes: [], lacks: [], text: '' });
    bench.send('part-decided', { part, decision: 'accept', text: '' });
    const said = noPlaceFor(bench.state, 'display', 'edge-screws', 'no holes');
    expect(said).toMatchObject({ type: 'part-looked', data: { part, lacks: ['edge-screws'], text: 'no holes' } });
  });
});
