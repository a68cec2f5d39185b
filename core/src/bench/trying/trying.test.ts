import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { changed, dunlinOpen, petrelGlass, shearwater11, tern5 } from '../../../test/maps.ts';
import { isDead } from '../../planner/holds/index.ts';
import { failedTests } from '../../job/state/index.ts';
import { instrumentFor, trialNow, whereToTry } from './index.ts';

const ahead = (bench: TestBench) => whereToTry(bench.mechanism, bench.state, bench.ahead());

describe('where to try a device', () => {
  it('is nowhere beside the test before the seal, with plugs as sure as usual', () => {
    const { trials, expected_s, asPlanned_s } = ahead(new TestBench(tern5(), [{ replace: 'display' }]));
    expect(trials).toEqual([]);
    expect(expected_s).toBe(asPlanned_s);
  });

  it('is before the lid, where the school tries it only once it is sealed: it spares more than it takes', () => {
    const bench = new TestBench(shearwater11(), [{ replace: 'display' }]);
    bench.send('policy', { change: { test: 'after' } });
    const { trials, expected_s, asPlanned_s } = ahead(bench);
    expect(trials).toHaveLength(1);
    expect(trials[0]!.functions).toEqual(expect.arrayContaining(['picture', 'touch']));
    expect(expected_s + 60).toBeLessThan(asPlanned_s);
    expect(trials[0]!.spares_s).toBeCloseTo(asPlanned_s - expected_s, 9);
    const ids = bench.ahead().map(({ id }) => id);
    const at = ids.indexOf(trials[0]!.before as (typeof ids)[number]);
    expect(at).toBeGreaterThan(ids.indexOf('make:touch-plug'));
    expect(at).toBeLessThan(ids.indexOf('close:display'));
  });

  it('may be here and now', () => {
    const bench = new TestBench(tern5(), [{ replace: 'display' }]);
    bench.send('policy', { change: { test: 'after' } });
    const [trial] = ahead(bench).trials;
    bench.until(trial!.before);
    expect(ahead(bench).trials[0]).toMatchObject({ before: bench.ahead()[0]!.id });
  });

  it('counts neither what failed when it came in nor what is not on its way back', () => {
    const bench = new TestBench(shearwater11(), [{ replace: 'display' }]);
    bench.send('policy', { change: { test: 'after' } });
    for (const { id } of bench.mechanism.map.functions) {
      bench.send('test', { function: id, result: 'fails', stage: 'intake' });
    }
    expect(ahead(bench)).toEqual({ trials: [], expected_s: 0, asPlanned_s: 0 });
    expect(whereToTry(bench.mechanism, bench.state, [])).toEqual({ trials: [], expected_s: 0, asPlanned_s: 0 });
  });
});

describe('a trial in the middle of the work', () => {
  it('makes it alive and dead again, as often as it is wanted, and the work goes on dead', () => {
    const bench = new TestBench(tern5(), [{ replace: 'display' }]).until('make:display-plug');
    bench.do(bench.ahead()[0]!);
    for (let times = 0; times < 2; times++) {
      const dead = trialNow(bench.mechanism, bench.state, bench.ahead())!;
      expect(dead.functions).toEqual(expect.arrayContaining(['picture', 'touch']));
      expect(dead.off).toBeNull();
      expect(bench.send('did', { steps: dead.on! }).problem).toBeNull();
      expect(isDead(bench.mechanism, bench.state.device)).toBe(false);
      const alive = trialNow(bench.mechanism, bench.state, bench.ahead())!;
      expect(bench.send('did', { steps: alive.off! }).problem).toBeNull();
      expect(isDead(bench.mechanism, bench.state.device)).toBe(true);
    }
    expect(bench.state.steps.get('power-on:trial')).toBe(2);
    bench.until();
    expect(bench.send('finish', {}).problem).toBeNull();
  });

  it('left alive, the plan makes it dead before another plug is pressed', () => {
    const bench = new TestBench(tern5(), [{ replace: 'display' }]).until('make:display-plug');
    bench.send('did', { steps: trialNow(bench.mechanism, bench.state, bench.ahead())!.on! });
    const ids = bench.ahead().map(({ id }) => id);
    expect(ids.indexOf('release:cell-plug')).toBeLessThan(ids.indexOf('make:display-plug'));
    expect(ids).toContain('release:cell-plug');
  });

  it('of a device that is closed shows all of it, and opens nothing to make it dead', () => {
    const bench = new TestBench(tern5(), [{ replace: 'display' }]).until();
    const closed = trialNow(bench.mechanism, bench.state, bench.ahead())!;
    expect(closed).toMatchObject({ on: null, off: null });
    expect(closed.functions).toEqual(expect.arrayContaining(['picture', 'touch', 'call']));
  });

  it('shows nothing while the device is whole or its plugs are out of reach', () => {
    const bench = new TestBench(tern5(), [{ replace: 'display' }]);
    expect(trialNow(bench.mechanism, bench.state, bench.ahead())).toBeNull();
    bench.until('lift:display');
    expect(trialNow(bench.mechanism, bench.state, bench.ahead())?.functions ?? []).not.toContain('picture');
  });

  it('that fails stops the seal, says nothing of the test before it, and is no proof for the end', () => {
    const bench = new TestBench(tern5(), [{ replace: 'display' }]).until('test:before');
    bench.send('test', { function: 'touch', result: 'fails', stage: 'trial' });
    expect(failedTests(bench.mechanism.map, bench.state)).toEqual(['touch']);
    expect(bench.ahead()[0]!.functions).toContain('touch');
    bench.send('test', { function: 'touch', result: 'works', stage: 'trial' });
    expect(failedTests(bench.mechanism.map, bench.state)).toEqual([]);
    const close = { steps: [{ id: 'close:display', kind: 'close', part: 'display' }] } as const;
    bench.send('did', close);
    expect(bench.send('finish', {}).problem).toContain('Touch was not tried');
  });
});

describe('the instrument for a function', () => {
  it('is made for this device: fields as wide as a finger, tones at the speaker, keys where they are', () => {
    const tern = tern5();
    expect(instrumentFor(tern, 'picture')).toEqual({ kind: 'colour-fields', part: 'display' });
    expect(instrumentFor(tern, 'touch')).toMatchObject({ kind: 'touch-grid', columns: 8, rows: 16 });
    expect(instrumentFor(shearwater11(), 'touch')).toMatchObject({ columns: 19, rows: 27 });
    expect(instrumentFor(tern, 'loudspeaker')).toMatchObject({ kind: 'tone', part: 'loudspeaker' });
    expect(instrumentFor(tern, 'volume')).toMatchObject({ kind: 'buttons', buttons: [{ part: 'volume-flex' }] });
    expect(instrumentFor(petrelGlass(), 'front-picture')).toMatchObject({ kind: 'camera', side: 'front' });
    expect(instrumentFor(tern, 'microphone')).toMatchObject({ kind: 'microphone', part: 'port-mic' });
    expect(instrumentFor(dunlinOpen(), 'buzz')).toMatchObject({ kind: 'vibration' });
  });
  it('is none for what a person tries in another way, or what no part serves', () => {
    expect(instrumentFor(tern5(), 'call')).toBeNull();
    expect(instrumentFor(tern5(), 'nothing')).toBeNull();
    const unserved = changed(tern5(), (map) => map.functions.push({ id: 'shine', name: 'Shine', how: 'Look.' }));
    expect(instrumentFor(unserved, 'shine')).toBeNull();
  });
});
