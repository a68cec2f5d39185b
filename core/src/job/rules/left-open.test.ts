import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { tern5 } from '../../../test/maps.ts';
import { usualSetting } from '../../physics/heat/index.ts';
import { pointName } from '../../planner/words/index.ts';
import { keyOf } from '../../screws/screws/index.ts';
import { foldJob } from '../fold/fold.ts';
import { leftOpen } from './left-open.ts';
import { UNKNOWN } from '../state/surroundings.ts';

const display = (newLacks: string[] = []) => new TestBench(tern5(), [{ replace: 'display', newLacks }]).prepare();
const open = (bench: TestBench) => leftOpen(bench.mechanism, bench.state, UNKNOWN).map(({ what }) => what);
const finish = (bench: TestBench) => bench.send('finish', {}).problem;
const lost = { kind: 'screw-lost', text: '', joint: 'connector-lid-screws', point: 'c' } as const;

describe('a finish', () => {
  it('is refused with the list of what is left open', () => {
    const bench = display().release('edge-screws');
    const said = finish(bench);
    expect(said).toContain('The left screw of Display is on the mat');
    expect(said).toContain('not made again');
    expect(said).toContain('Still to be done: replace Display');
    expect(open(bench)).toEqual(
      expect.arrayContaining(['joint:edge-screws', 'screw:edge-screws/left', 'target:replace:display']),
    );
  });

  it('is refused while a function that was touched was not tried', () => {
    const bench = display().until('test:after');
    // the others were tried before it was sealed; the card goes in last
    expect(open(bench)).toEqual(['test:call']);
    const only = new TestBench(tern5(), [{ remove: 'loudspeaker' }], {}).prepare();
    only.state = { ...only.state, policy: { ...only.state.policy, test: 'after' } };
    only.until('test:after');
    expect(open(only).filter((each) => each.startsWith('test:'))).toContain('test:loudspeaker');
    expect(finish(only)).toContain('was not tried');
    only.do(only.ahead()[0]!);
    expect(finish(only)).toBeNull();
  });

  it('leaves each of it to a decision by name and reason, and takes no decision about what is not open', () => {
    const bench = display().until('fit:connector-lid').send('trouble', lost);
    bench.send('found', { joint: lost.joint, point: lost.point });
    bench.send('trouble', { kind: 'one-screw-more', text: '', joint: lost.joint, fastener: 'lid-short' }).until();
    const [more] = open(bench);
    expect(more).toMatch(/^screw:connector-lid-screws\/more-/);
    expect(finish(bench)).toContain('is on the mat');
    const decide = (what: string) => bench.send('decision', { about: 'left-open', what, text: 'goes to the spares' });
    expect(decide('screw:nothing/a').problem).toContain('Nothing that is left open');
    expect(decide(more!).problem).toBeNull();
    expect(finish(bench)).toBeNull();
  });

  it('is refused while a source is on or a bench is not aired, and no decision lifts that', () => {
    const bench = display().until('heat:front-seal');
    bench.send('heat-on', { joint: 'front-seal', setting: usualSetting('plate'), heat_s: 300 });
    expect(finish(bench)).toContain('The source on');
    expect(bench.send('decision', { about: 'left-open', what: 'source', text: 'soon' }).problem).toContain('do it');
    bench.send('heat-off', { joint: 'front-seal', seconds: 1 }).until('clean:front-seal');
    bench.send('solvent', { joint: 'cell-straps', drops: 4, away: true }).until('vent:bench');
    expect(open(bench)).toEqual(['bench:bench']);
    expect(finish(bench)).toContain('was not aired');
    expect(bench.send('decision', { about: 'left-open', what: 'bench:bench', text: 'x' }).problem).toContain('do it');
    bench.until();
    expect(finish(bench)).toBeNull();
  });

  it('does not wait for the screws of joints that the new part has no place for', () => {
    const bench = display(['edge-screws']).until();
    expect(bench.state.ledger.onMat.map(({ joint }) => joint)).toEqual(['edge-screws', 'edge-screws']);
    expect(open(bench)).toEqual([]);
    expect(finish(bench)).toBeNull();
  });

  it('that was accepted by an earlier version stays one, also where this one would refuse it', () => {
    const bench = display().release('edge-screws');
    const at = '2026-11-24T09:00:00Z';
    const event = { id: '00000000-0000-4000-8000-0000000000ff', type: 'finish', at, by: 'Ines', data: {} } as const;
    expect(foldJob(bench.mechanism, bench.job, [...bench.state.events, event]).finished).toBe(at);
  });
});

describe('a screw', () => {
  it('can only be lost once it is out', () => {
    expect(display().send('trouble', lost).problem).toContain('not on the mat');
  });

  it('that is found after its joint was closed without it lies on the mat, and its hole is open until decided', () => {
    const bench = display().until('fit:connector-lid').send('trouble', lost);
    const made = { id: 'make:connector-lid-screws', kind: 'make', joint: lost.joint } as const;
    bench.send('did', { steps: [{ id: 'fit:connector-lid', kind: 'fit', part: 'connector-lid' }], anyway: 'by hand' });
    bench.send('did', { steps: [made], anyway: 'three hold it' });
    bench.send('found', { joint: lost.joint, point: lost.point });
    expect(bench.problem).toBeNull();
    expect(bench.state.ledger.lost).toEqual([]);
    expect(bench.state.ledger.onMat.map(keyOf)).toContain(keyOf(lost));
    expect(bench.state.ledger.leftOut).toEqual([]);
    // to the end of the repair nothing else speaks of it
    bench.until();
    expect(finish(bench)).toContain(`The ${pointName(bench.mechanism.map, lost.joint, lost.point)} is on the mat`);
    const what = `screw:${keyOf(lost)}`;
    bench.send('decision', { about: 'left-open', what, text: 'three hold it, told to the owner' });
    expect(finish(bench)).toBeNull();
  });

  it('that is found once a new one is in its place goes to the spares', () => {
    const bench = display().until('fit:connector-lid').send('trouble', lost);
    bench.send('did', { steps: [{ id: 'fit:connector-lid', kind: 'fit', part: 'connector-lid' }], anyway: 'by hand' });
    const made = {
      id: 'make:connector-lid-screws',
      kind: 'make',
      joint: lost.joint,
      freshScrews: [lost.point],
    } as const;
    expect(bench.send('did', { steps: [made] }).problem).toBeNull();
    bench.send('found', { joint: lost.joint, point: lost.point });
    expect(bench.problem ?? '').toContain('not missing');
    expect(bench.state.ledger.onMat.map(keyOf)).not.toContain(keyOf(lost));
  });
});
