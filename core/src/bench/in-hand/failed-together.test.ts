import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { changed, tern5 } from '../../../test/maps.ts';
import { opWords } from '../../planner/words/index.ts';
import { failedTogether } from './index.ts';

const fails = (bench: TestBench, ...ids: string[]) =>
  ids.forEach((id) => bench.send('test', { function: id, result: 'fails', stage: 'before' }));

describe('two tests that fail', () => {
  it('have one list, with the one plug that explains both first, and one press for it', () => {
    const map = changed(tern5(), (copy) => {
      const plug = copy.joints.find(({ id }) => id === 'display-plug')!;
      if (plug.type === 'connector') plug.functions = ['picture', 'touch'];
    });
    const bench = new TestBench(map, [{ replace: 'display' }]).until('test:before');
    fails(bench, 'picture', 'touch');
    const { functions, suspects, again } = failedTogether(bench.aheadWhole().failed);
    expect(functions.toSorted()).toEqual(['picture', 'touch']);
    const both = suspects.filter(({ explains }) => explains.length === 2).map(({ joint }) => joint);
    expect(both).toContain('display-plug');
    expect(again.map(({ joint }) => joint)).toEqual(['display-plug']);
    expect(new Set(suspects.map(({ joint, part }) => joint ?? part)).size).toBe(suspects.length);
  });

  it('that no one plug explains have both pressed home while it is open, each by its name', () => {
    const bench = new TestBench(tern5(), [{ replace: 'display' }]).until('test:before');
    fails(bench, 'picture', 'touch');
    const { again } = failedTogether(bench.aheadWhole().failed);
    const targets = again.map(({ joint, part }) => (joint ? { reach: joint } : { remove: part! }));
    bench.send('targets', { targets: [...bench.state.targets, ...targets] });
    const home = bench.ahead().filter(({ name }) => name === 'press-home');
    expect(home.map((op) => opWords(tern5(), op).thing).toSorted()).toEqual(['Picture flex', 'Touch flex']);
  });
});
