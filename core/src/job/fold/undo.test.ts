import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { TestBench } from '../../../test/bench.ts';
import { EFFORT } from '../../../test/effort.ts';
import { tern5 } from '../../../test/maps.ts';
import { doneStep } from '../../bench/in-hand/index.ts';
import { foldJob } from './fold.ts';
import { lastToUndo } from '../events/undoable.ts';

const display = () => new TestBench(tern5(), [{ replace: 'display' }]).prepare();

describe('undo', () => {
  it('takes back one after the other to the beginning, past what is said beside the work', () => {
    const bench = display().until('heat:front-seal').send('note', { text: 'later' });
    const states = bench.state.inForce.length;
    for (let back = 0; back < states; back++) {
      const last = lastToUndo(bench.state.inForce);
      if (!last) break;
      expect(bench.send('undo', { event: last.id }).problem).toBeNull();
    }
    expect(bench.state.done).toEqual([]);
    expect(bench.state.inForce.map(({ type }) => type)).toEqual(['note']);
    expect(foldJob(bench.mechanism, bench.job, bench.state.events)).toEqual(bench.state);
  });

  it('comes to what a fold of all events comes to, wherever it was folded on from', () => {
    const acts = fc.array(fc.constantFrom('step', 'step', 'step', 'undo', 'note', 'reload', 'mark'), {
      minLength: 40,
      maxLength: 160,
    });
    fc.assert(
      fc.property(acts, (all) => {
        const bench = display();
        let count = 0;
        for (const act of all) {
          const last = lastToUndo(bench.state.inForce);
          if (act === 'undo' && last) bench.send('undo', { event: last.id });
          else if (act === 'note') bench.send('note', { text: 'x' });
          else if (act === 'reload') bench.state = foldJob(bench.mechanism, bench.job, bench.state.events);
          else if (act === 'mark')
            bench.send('damage', { kind: count % 9 ? 'dent' : 'swelling', face: 'front', x: 1, y: 1 });
          else bench.send('did', { steps: [{ id: `count:${count++}`, kind: 'procedure', name: 'count' }] });
        }
        expect(foldJob(bench.mechanism, bench.job, bench.state.events)).toEqual(bench.state);
      }),
      { numRuns: 20 * EFFORT, seed: 20_261_128 },
    );
  });

  it('leaves a state that was kept as it was', () => {
    const bench = display().release('edge-screws');
    const before = bench.state;
    const copy = structuredClone({ ...before, job: null });
    bench.send('undo', { event: before.inForce.at(-1)!.id });
    foldJob(bench.mechanism, bench.job, bench.state.events);
    bench.release('edge-screws');
    expect(structuredClone({ ...before, job: null })).toEqual(copy);
  });

  it('and a fold takes several steps of one event as they were taken', () => {
    const bench = display();
    const ops = bench.ahead().slice(0, 9);
    bench.send('did', { steps: ops.map(doneStep) });
    expect(bench.problem).toBeNull();
    const folded = foldJob(bench.mechanism, bench.job, bench.state.events);
    expect(folded).toEqual(bench.state);
    expect(folded.steps.size).toBe(1 + ops.length);
    expect(folded.done.length).toBeGreaterThan(2);
  });
});
