import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { dunlinOpen, tern5 } from '../../../test/maps.ts';
import { counts, onMatByKind } from '../../screws/screws/index.ts';
import { doneStep } from '../../bench/in-hand/index.ts';
import { foldJob } from './fold.ts';

const display = () => new TestBench(tern5(), [{ replace: 'display' }]).prepare();

describe('a job as a fold over its events', () => {
  it('goes by plan from the first step to a finished record with no screw left', () => {
    const bench = display().until();
    expect(bench.ahead()).toEqual([]);
    expect(bench.send('finish', {}).problem).toBeNull();
    expect(bench.state.finished).not.toBeNull();
    expect(counts(bench.state.ledger)).toEqual({ out: 7, onMat: 0, back: 7, lost: 0 });
    expect(foldJob(bench.mechanism, bench.job, bench.state.events)).toEqual(bench.state);
  });

  it('can be planned anew at every step, and ends where the first plan ends', () => {
    const bench = new TestBench(dunlinOpen(), [{ replace: 'port-board' }]);
    for (let steps = 0; steps < 60; steps++) {
      const next = bench.ahead()[0];
      if (!next) break;
      expect(bench.do(next).problem).toBeNull();
    }
    expect(bench.send('finish', {}).problem).toBeNull();
  });

  it('does the same for a display, with all that moves over to the new one', () => {
    const bench = display();
    const seen: string[] = [];
    for (let steps = 0; steps < 90; steps++) {
      const next = bench.ahead()[0];
      if (!next) break;
      seen.push(next.id);
      expect(bench.do(next).problem).toBeNull();
    }
    expect(seen).toEqual(expect.arrayContaining(['lift:earpiece', 'fit:earpiece', 'fit:display', 'test:after']));
    expect(seen.filter((id) => id === 'lift:earpiece')).toHaveLength(1);
    expect(bench.send('finish', {}).problem).toBeNull();
  }, 60_000);

  it('refuses what the rules forbid and names what holds, then takes it as having happened anyway', () => {
    const bench = display();
    expect(bench.release('front-seal').problem).toContain('2 screws released');
    expect(bench.state.done).toHaveLength(0);
    bench.send('did', {
      steps: [{ id: 'release:front-seal', kind: 'release', joint: 'front-seal' }],
      anyway: 'It was loose already.',
    });
    expect(bench.problem).toBeNull();
    expect(bench.ahead().some((op) => op.id === 'release:front-seal')).toBe(false);
  });

  it('takes what is legal but not planned, and plans the rest anew', () => {
    const bench = display().until('lift:connector-lid');
    bench.release('speaker-screws');
    expect(bench.problem).toBeNull();
    expect(bench.ahead().map((op) => op.id)).toContain('make:speaker-screws');
  });

  it('refuses the same step twice, as from a second window', () => {
    const bench = display();
    const [first] = bench.ahead();
    expect(bench.send('did', { steps: [doneStep(first!)] }).problem).toBeNull();
    expect(bench.send('did', { steps: [doneStep(first!)] }).problem).toContain('done already');
    bench.release('edge-screws').release('edge-screws');
    expect(bench.problem).toContain('done already');
  });

  it('undoes the last thing done, by an event', () => {
    const bench = display().release('edge-screws');
    const last = bench.state.inForce.at(-1)!;
    bench.send('undo', { event: last.id });
    expect(bench.problem).toBeNull();
    expect(counts(bench.state.ledger).onMat).toBe(0);
    expect(bench.send('undo', { event: last.id }).problem).toContain('Only the last thing');
    bench.release('edge-screws').release('port-screws', { anyway: true });
    expect(bench.send('undo', { event: last.id }).problem).toContain('Only the last thing');
    expect(counts(bench.state.ledger).onMat).toBe(2);
  });

  it('closes up from where it is when the target is dropped', () => {
    const bench = display().until('lift:display').send('targets', { targets: [] });
    expect(bench.ahead().map((op) => op.id)).toContain('make:display-plug');
    bench.until();
    expect(bench.send('finish', {}).problem).toBeNull();
  });

  it('is not finished while anything is open', () => {
    expect(display().until('release:cell-plug').send('finish', {}).problem).toMatch(/not back|not made/);
  });

  it('stops for everything but notes until the lead clears it', () => {
    const bench = display().send('stop', { reason: 'smell', text: '' });
    expect(bench.release('edge-screws').problem).toContain('Stopped');
    expect(bench.send('note', { text: 'outdoors' }).problem).toBeNull();
    bench.send('clear', { text: 'nothing found' }, 'Maren');
    expect(bench.release('edge-screws').problem).toBeNull();
  });

  it('keeps timers until their step is done', () => {
    const bench = display().until('heat:front-seal').send('timer', { step: 'heat:front-seal', seconds: 300 });
    expect(bench.state.timers).toHaveLength(1);
    bench.until('release:front-seal');
    expect(bench.state.timers).toEqual([]);
  });

  it('remembers what was tried, once a function and stage', () => {
    const bench = display();
    bench.send('test', { function: 'picture', result: 'fails', stage: 'before' });
    bench.send('test', { function: 'picture', result: 'works', stage: 'before' });
    expect(bench.state.tests).toHaveLength(1);
    expect(bench.send('test', { function: 'song', result: 'works', stage: 'after' }).problem).toContain('song');
  });
});

describe('screws', () => {
  it('lie on the mat one by one, and the last releases the joint', () => {
    const bench = display().until('release:edge-screws');
    bench.send('screw', { joint: 'edge-screws', point: 'left' });
    expect(counts(bench.state.ledger).onMat).toBe(1);
    expect(bench.send('screw', { joint: 'edge-screws', point: 'left' }).problem).toContain('on the mat already');
    bench.send('screw', { joint: 'edge-screws', point: 'right' });
    expect(bench.state.steps.has('release:edge-screws')).toBe(true);
    expect(onMatByKind(bench.state.ledger).get('edge')).toBe(2);
  });

  it('are counted by what lies in each hole, captive ones not at all', () => {
    const bench = display().until('lift:connector-lid');
    expect(Object.fromEntries(onMatByKind(bench.state.ledger))).toEqual({
      edge: 2,
      'lid-short': 2,
      'lid-middle': 2,
      'lid-long': 1,
    });
    bench.release('port-screws');
    expect(counts(bench.state.ledger).onMat).toBe(7);
  });

  it('a lost one keeps lids off until it is found, replaced, or decided about', () => {
    const lost = { kind: 'screw-lost', text: '', joint: 'connector-lid-screws', point: 'c' } as const;
    const bench = display().until('fit:connector-lid').send('trouble', lost);
    const fit = { steps: [{ id: 'fit:connector-lid', kind: 'fit' as const, part: 'connector-lid' }] };
    expect(bench.send('did', fit).problem).toContain('A screw is missing');
    bench.send('found', { joint: 'connector-lid-screws', point: 'c' });
    expect(bench.send('did', fit).problem).toBeNull();
    bench.send('trouble', lost);
    const make = (freshScrews?: string[]) =>
      bench.send('did', {
        steps: [
          {
            id: 'make:connector-lid-screws',
            kind: 'make',
            joint: 'connector-lid-screws',
            ...(freshScrews ? { freshScrews } : {}),
          },
        ],
      });
    expect(make().problem).toContain('not on the mat');
    expect(make(['c']).problem).toBeNull();
    expect(bench.state.ledger.fresh).toHaveLength(1);
    expect(counts(bench.state.ledger).lost).toBe(0);
  });

  it('a decision to go on without is kept, and the counts stay true', () => {
    const bench = display().until('fit:connector-lid');
    bench.send('trouble', { kind: 'screw-lost', text: 'rolled away', joint: 'connector-lid-screws', point: 'a' });
    bench.send('decision', { about: 'missing-screw', text: 'Lead: three hold it' });
    bench.until();
    expect(bench.send('finish', {}).problem).toBeNull();
    expect(counts(bench.state.ledger)).toMatchObject({ out: 7, back: 6, lost: 0 });
    expect(bench.state.ledger.leftOut).toHaveLength(1);
  });
});

describe('trouble', () => {
  it('will not lift: another round of heat stands before the cut', () => {
    const bench = display()
      .until('release:front-seal')
      .send('trouble', { kind: 'will-not-lift', text: '', joint: 'front-seal' });
    const [heat, cut] = bench.ahead();
    expect([heat!.id, cut!.id]).toEqual(['heat:front-seal', 'release:front-seal']);
    bench.send('did', { steps: [doneStep(heat!)] });
    expect(bench.problem).toBeNull();
    expect(bench.ahead()[0]!.id).toBe('release:front-seal');
  });

  it('will not lift: a screw joint is not heated for it', () => {
    const bench = display().send('trouble', { kind: 'will-not-lift', text: '', joint: 'edge-screws' });
    expect(bench.problem).toBeNull();
    expect(bench.state.troubles).toHaveLength(1);
    expect(bench.ahead().map((op) => op.id)).not.toContain('heat:edge-screws');
  });

  it('a cracked part has to be replaced as well', () => {
    const bench = display().send('trouble', { kind: 'part-cracked', text: '', part: 'rear-camera' });
    expect(bench.state.targets).toContainEqual({ replace: 'rear-camera' });
    expect(bench.ahead().map((op) => op.id)).toContain('lift:rear-camera');
  });

  it('not as the map says: the counts follow, and a correction is proposed', () => {
    const bench = display().until('release:connector-lid-screws');
    bench.send('trouble', { kind: 'screw-never-there', text: '', joint: 'connector-lid-screws', point: 'b' });
    bench.release('connector-lid-screws');
    expect(counts(bench.state.ledger).onMat).toBe(2 + 3);
    bench.send('trouble', {
      kind: 'another-length',
      text: '',
      joint: 'connector-lid-screws',
      point: 'c',
      length_mm: 2.2,
    });
    bench.send('trouble', { kind: 'one-screw-more', text: '', joint: 'connector-lid-screws', fastener: 'lid-short' });
    expect(bench.state.corrections.map(({ path }) => path)).toEqual([
      'joints[4].points[1]',
      'joints[4].points[2]',
      'joints[4].points',
    ]);
    expect(bench.state.ledger.onMat.find((screw) => screw.point === 'c')?.length_mm).toBe(2.2);
    expect(bench.send('trouble', { kind: 'screw-lost', text: '' }).problem).toContain('which screw it is');
  });
});
